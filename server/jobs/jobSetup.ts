import { ORIGINAL_SOV_LINES, ORIGINAL_BUDGET, TEMPLATES } from './queries';
import type { JobSetup, JobTemplate } from '../../wire/jobs';
import type { Reader } from '../db/sql';
import { jobByNumber } from './jobByNumber';
import { jobFileView } from '../jobFile/jobFileView';

/** What another job may be begun from: schedule, budget, terms, team and checklist of one that is there. */
export async function jobSetup(sql: Reader, number: string): Promise<JobSetup> {
  const { id } = await jobByNumber(sql, number, 'job');
  const [file, sov, budget] = [
    await jobFileView(sql, number),
    await sql.all(ORIGINAL_SOV_LINES, [id]),
    await sql.all(ORIGINAL_BUDGET, [id]),
  ];
  const { retention, taxRate, termsDays, revenueMethod } = file.facts;
  return {
    ...{ sov, budget, retention, taxRate, termsDays, revenueMethod },
    people: file.people.filter((it) => it.side === 'team'),
    checklist: file.checklist.map((it) => ({ item: it.item, person: it.person, dueOn: null, doneOn: null })),
  };
}

export async function jobTemplateList(sql: Reader): Promise<JobTemplate[]> {
  const rows = await sql.all(TEMPLATES);
  return rows.map((row) => ({ name: row.name, content: JSON.parse(row.content) as JobTemplate['content'] }));
}
