import { known, present } from '../../core/errors/known';
import { shape, t, type RowOf } from '../db/fields';
import { JobTable } from '../jobs/models';
import { plainFacts } from '../../core/jobs/jobFacts';
import { LedrinError } from '../../core/errors/ledrinError';
import type { CheckTemplate, JobFacts, JobFileView } from '../../wire/jobFile';
import type { Reader } from '../db/sql';
import { loadBillingJobs } from '../billing/billingJobs';
import { digestOf } from '../versions/digest';
import { jobByNumber } from '../jobs/jobByNumber';
import { missingForSite } from '../jobs/readiness';

type FactRow = RowOf<typeof JobTable>;

/** Retention, tax, terms and revenue method are fixed once an application or an entry was worked with them. */
export async function factsAreFixed(sql: Reader, jobId: number): Promise<boolean> {
  return (
    (await sql.get(
      shape({ used: t.flag }),
      `SELECT 1 AS used FROM application WHERE job_id = $1 AND status <> 'draft' UNION ALL SELECT 1 FROM cost_entry WHERE job_id = $1 LIMIT 1`,
      [jobId],
    )) !== undefined
  );
}

/** Everything of a job beside its figures. */
export async function jobFileView(sql: Reader, number: string): Promise<JobFileView> {
  const { id, status } = await jobByNumber(sql, number, 'job');
  const [row, fixed, billing, people, events, checklist, templates, files, moves, missing] = await Promise.all([
    sql.findOne(JobTable, { id }),
    factsAreFixed(sql, id),
    loadBillingJobs(sql, id),
    sql.all(
      shape({ side: t.oneOf<'client' | 'team'>(), name: t.text, role: t.text, email: t.text, phone: t.text }),
      'SELECT side, name, role, email, phone FROM job_person WHERE job_id = $1 ORDER BY id',
      [id],
    ),
    sql.all(
      shape({
        kind: t.oneOf<'note' | 'call' | 'meeting' | 'visit' | 'letter'>(),
        dated: t.day,
        text: t.text,
        id: t.whole,
        actor: t.text,
        recordedAt: t.moment,
      }),
      'SELECT id, kind, dated, text, actor, recorded_at AS recordedAt FROM job_event WHERE job_id = $1 ORDER BY dated DESC, id DESC',
      [id],
    ),
    sql.all(
      shape({ item: t.text, person: t.text, dueOn: t.orNull(t.day), doneOn: t.orNull(t.day) }),
      'SELECT item, person, due_on AS dueOn, done_on AS doneOn FROM job_check WHERE job_id = $1 ORDER BY id',
      [id],
    ),
    checkTemplates(sql),
    sql.all(
      shape({
        id: t.whole,
        name: t.text,
        mediaType: t.text,
        size: t.whole,
        hash: t.text,
        about: t.text,
        actor: t.text,
        addedAt: t.moment,
      }),
      'SELECT id, name, media_type AS mediaType, size, hash, about, actor, added_at AS addedAt FROM attachment WHERE job_id = $1 ORDER BY id DESC',
      [id],
    ),
    sql.all(
      shape({ was: t.text, became: t.text, onDay: t.orNull(t.text), reason: t.text, actor: t.text, at: t.moment }),
      'SELECT was, became, on_day AS onDay, reason, actor, at FROM job_move WHERE job_id = $1 ORDER BY id',
      [id],
    ),
    // What goes on site must be whole; what is there already is not held up any more.
    status === 'tender' || status === 'awarded' ? missingForSite(sql, id) : [],
  ]);
  return {
    seen: { facts: digestOf(factsOf(present(row))), people: digestOf(people), checklist: digestOf(checklist) },
    facts: factsOf(present(row)),
    fixed,
    lines: known(billing, number).sovLines.map((it) => ({ value: it.scheduledValue, rate: it.retentionRate })),
    ...{ people, events, checklist, templates, files, moves, missing },
  };
}

function factsOf(row: FactRow): JobFacts {
  return {
    name: row.name,
    ...plainFacts(row),
    revenueMethod: row.revenue_method,
    retention: {
      rate: row.retention_rate,
      materialsRate: row.retention_materials_rate,
      stepAt: row.retention_step_at,
      stepTo: row.retention_step_to,
      stepApplies: row.retention_step_applies,
      cap: row.retention_cap,
    },
    noRetention: row.no_retention === 1,
    taxRate: row.tax_rate,
    termsDays: row.terms_days,
  };
}

async function checkTemplates(sql: Reader): Promise<CheckTemplate[]> {
  const rows = await sql.all(shape({ name: t.text, items: t.text }), 'SELECT name, items FROM check_template ORDER BY name');
  return rows.map((row) => ({ name: row.name, items: JSON.parse(row.items) as string[] }));
}

export async function attachedFile(sql: Reader, id: number): Promise<{ name: string; mediaType: string; hash: string }> {
  const row = await sql.get(
    shape({ name: t.text, mediaType: t.text, hash: t.text }),
    'SELECT name, media_type AS mediaType, hash FROM attachment WHERE id = $1',
    [id],
  );
  if (!row) throw new LedrinError('not-found', `There is no attachment ${id}`);
  return row;
}
