import { shape, t } from '../db/fields';
import type { JobSetup, JobTemplate } from '../../wire/jobs';
import { COST_TYPES } from '../../core/costs/costType';
import type { Reader } from '../db/sql';
import { jobByNumber } from './jobByNumber';
import { jobFileView } from '../jobFile/jobFileView';

/** What another job may be begun from: schedule, budget, terms, team and checklist of one that is there. */
export async function jobSetup(sql: Reader, number: string): Promise<JobSetup> {
  const { id } = await jobByNumber(sql, number, 'job');
  const [file, sov, budget] = [
    await jobFileView(sql, number),
    await sql.all(
      shape({
        line: t.text,
        section: t.text,
        description: t.text,
        scheduledValue: t.cents,
        quantity: t.orNull(t.quantity),
        unit: t.text,
        retentionRate: t.orNull(t.rate),
      }),
      `SELECT line, section, description, scheduled_value AS scheduledValue, quantity, unit, retention_rate AS retentionRate
        FROM sov_line WHERE job_id = $1 AND original = 1 ORDER BY position`,
      [id],
    ),
    await sql.all(
      shape({
        section: t.text,
        costCode: t.text,
        costType: t.oneOf(...COST_TYPES),
        sovLine: t.text,
        description: t.text,
        quantity: t.orNull(t.quantity),
        unit: t.text,
        hours: t.orNull(t.hours),
        amount: t.cents,
      }),
      `SELECT l.section, c.code AS costCode, l.cost_type AS costType, coalesce(s.line, '') AS sovLine, b.description, b.quantity, b.unit, b.hours, b.amount
        FROM budget_line b JOIN cost_line l ON l.id = b.cost_line_id JOIN cost_code c ON c.id = l.cost_code_id LEFT JOIN sov_line s ON s.id = b.sov_line_id
        WHERE l.job_id = $1 ORDER BY b.id`,
      [id],
    ),
  ];
  const { retention, taxRate, termsDays, revenueMethod } = file.facts;
  return {
    ...{ sov, budget, retention, taxRate, termsDays, revenueMethod },
    people: file.people.filter((it) => it.side === 'team'),
    checklist: file.checklist.map((it) => ({ item: it.item, person: it.person, dueOn: null, doneOn: null })),
  };
}

export async function jobTemplateList(sql: Reader): Promise<JobTemplate[]> {
  const rows = await sql.all(shape({ name: t.text, content: t.text }), 'SELECT name, content FROM job_template ORDER BY name');
  return rows.map((row) => ({ name: row.name, content: JSON.parse(row.content) as JobTemplate['content'] }));
}
