import { messageOf, showIn } from '../../core/refusals/messages';
import { digestOf } from '../versions/digest';
import { originalSetup, setupFrozen } from './correctSetup';
import { TEMPLATES } from './queries';
import type { JobSetup, JobTemplate } from '../../wire/jobs';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';
import { jobFileView } from '../jobFile/jobFileView';

/** What another job may be begun from: schedule, budget, terms, team and checklist of one that is there. */
export async function jobSetup(sql: Reader, number: string): Promise<JobSetup> {
  const job = await jobByNumber(sql, number, 'job');
  const file = await jobFileView(sql, number);
  const setup = await originalSetup(sql, job.id);
  const frozen = await setupFrozen(sql, job);
  const { retention, taxRate, termsDays, revenueMethod } = file.facts;
  return {
    ...setup,
    retention,
    taxRate,
    termsDays,
    revenueMethod,
    seen: digestOf(setup),
    frozen: frozen && messageOf(frozen, showIn(0)),
    people: file.people.filter((it) => it.side === 'team'),
    checklist: file.checklist.map((it) => ({ item: it.item, person: it.person, dueOn: null, doneOn: null })),
  };
}

export async function jobTemplateList(sql: Reader): Promise<JobTemplate[]> {
  const rows = await sql.all(TEMPLATES);
  return rows.map((row) => ({ name: row.name, content: JSON.parse(row.content) as JobTemplate['content'] }));
}
