import * as v from 'valibot';
import { isNotJson } from '../bookFormat/readJson';
import { ALL_JOB_STATUSES, hasContract, needsAward } from '../../core/jobs/jobStatus';
import { PRICINGS } from '../../core/charging/pricing';
import { refuse } from '../../core/refusals/refusal';
import { termsRefusals, type JobTerms } from '../../core/jobs/jobTerms';
import { REVENUE_METHODS } from '../../core/progress/workInProgress';
import { typedJob } from '../../wire/jobs';
import { scheduledLines, unreliable } from '../billing/book/bookBilling';
import { shared, type BookCheck } from '../bookFormat/bookCheck';
import { bookFile } from '../bookFormat/bookFile';
import {
  amount,
  date,
  days,
  isWhole,
  longText,
  moment,
  oneOf,
  percent,
  quantity,
  REQUIRED,
  text,
  yesNo,
  type ReadRow,
} from '../bookFormat/columns';
import type { BookSave } from '../bookFormat/bookSave';
import { joinKey } from '../bookFormat/keys';
import { bookTaxRate, customers } from '../company/book/bookFiles';
import { departments, jobKinds, workKinds } from '../company/book/listBookFiles';
import { JobMoveTable, JobTable, JobTemplateTable, SovLineTable } from './models';
import { assertOfTeam } from './restricted';
import { whyNotAdded } from '../bookFormat/whyNotAdded';

export const jobTemplates = bookFile({
  name: 'job_templates',
  columns: { template: text(REQUIRED), content: longText(REQUIRED, 'a job as typed, as JSON') },
  key: ['template'],
  called: 'job template',
  query: 'SELECT id, name AS template, content FROM job_template',
  check(row, book) {
    if (row.content && isNotJson(row.content, (read) => v.is(typedJob, read)))
      book.fault(
        jobTemplates,
        row,
        'content',
        'is not a job as Ledrin saves one, JSON with its parts; take it as it was exported',
      );
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      JobTemplateTable,
      rows.map((row) => ({ name: row.template, content: row.content, saved_at: into.actor.at })),
    ),
});

const JOB = {
  job: text(REQUIRED),
  name: text(REQUIRED),
  customer: text(REQUIRED),
  contract_reference: text(),
  status: oneOf(ALL_JOB_STATUSES)(),
  awarded_on: date('required but for a tender, lost, withdrawn'),
  starts_on: date(),
  finishes_on: date(),
  finished_on: date(),
  manager: text(),
  site: text(),
  revenue_method: oneOf(REVENUE_METHODS)(),
  retention_percent: percent(),
  retention_on_materials_percent: percent(),
  retention_step_at_percent: percent(),
  retention_step_to_percent: percent(),
  retention_step_applies: oneOf(['all', 'further'])(),
  retention_cap_percent: percent(),
  tax_percent: percent(),
  terms_days: days(),
  estimator: text(),
  defects_end: date(),
  no_retention: yesNo('it was agreed that there is none'),
  locked: yesNo(),
  restricted: yesNo('it takes costs and documents from its team alone'),
  kind: text(),
  department: text(),
  work_kind: text('what its hours are, where a line of time does not say otherwise'),
  pricing: oneOf(PRICINGS)('empty: fixed'),
  charge_ceiling: amount('of a charged job; before tax'),
};

export const jobs = bookFile({
  name: 'jobs',
  columns: JOB,
  key: ['job'],
  called: 'job',
  refers: {
    customer: { to: customers },
    kind: { to: jobKinds },
    department: { to: departments },
    work_kind: { to: workKinds },
  },
  countsOn: ({ status, awarded_on, finished_on }) => (hasContract(status ?? 'awarded') ? { awarded_on, finished_on } : {}),
  existing: `SELECT job.id, job.number AS job, job.status, job.locked, job.pricing, job.charge_ceiling,
    (SELECT code FROM client WHERE id = job.client_id) AS customer,
    (SELECT max(dated) FROM application WHERE job_id = job.id) AS billed_to,
    EXISTS (SELECT 1 FROM budget_line b JOIN cost_line l ON l.id = b.cost_line_id WHERE l.job_id = job.id) AS budgeted,
    EXISTS (SELECT 1 FROM instalment WHERE job_id = job.id) AS scheduled,
    (SELECT number FROM estimate WHERE job_id = job.id AND status = 'accepted') AS accepted FROM job`,
  query: `SELECT j.id, j.number AS job, j.name, c.code AS customer, j.contract_reference, j.status, j.awarded_on, j.starts_on, j.finishes_on, j.finished_on, j.manager, j.site,
    CASE WHEN j.pricing = 'charged' THEN NULL ELSE j.revenue_method END AS revenue_method, j.retention_rate AS retention_percent, j.retention_materials_rate AS retention_on_materials_percent,
    j.retention_step_at AS retention_step_at_percent, j.retention_step_to AS retention_step_to_percent, j.retention_step_applies,
    j.retention_cap AS retention_cap_percent, j.tax_rate AS tax_percent, j.terms_days, j.estimator, j.defects_end, j.no_retention, j.locked, j.restricted,
    h.code AS kind, d.code AS department, w.code AS work_kind, nullif(j.pricing, 'fixed') AS pricing, j.charge_ceiling
    FROM job j JOIN client c ON c.id = j.client_id LEFT JOIN job_kind h ON h.id = j.job_kind_id
    LEFT JOIN department d ON d.id = j.department_id LEFT JOIN work_kind w ON w.id = j.work_kind_id`,
  whyNotNamed: (key, by, book): string | null => {
    const there = book.keysOf(jobs).existing.get(key);
    return there && by.takenBy ? whyNotAdded(by, key, there) : null;
  },
  check(row, book) {
    const at = (column: string, message: string) => book.fault(jobs, row, column, message);
    const status = row.status ?? 'awarded';
    if (row.status !== undefined && needsAward(status) && row.awarded_on === null)
      at('awarded_on', `missing required cell: a job that is ${status} needs the day it was awarded`);
    if (row.finished_on && row.awarded_on && row.finished_on < row.awarded_on)
      at('finished_on', `${row.finished_on} is before awarded_on, ${row.awarded_on}`);
    const refusals = termsRefusals(termsOf(row));
    for (const refusal of refusals) book.refuse(jobs, row, refusal, TERMS_COLUMNS);
    if (refusals.some((it) => it.rule === 'step-half') || !isWhole(row)) book.own(unreliable).job(row.job);
    if (row.pricing === 'charged' && row.revenue_method)
      book.refuse(jobs, row, refuse('charged-has-none', 'revenue_method', { job: row.job ?? '', what: 'method of revenue' }));
    if (row.charge_ceiling !== null && row.charge_ceiling !== undefined) {
      if ((row.pricing ?? 'fixed') === 'fixed' && row.pricing !== undefined)
        book.refuse(jobs, row, refuse('ceiling-of-fixed', 'charge_ceiling', {}));
      else if (row.charge_ceiling <= 0) book.refuse(jobs, row, refuse('ceiling-nothing', 'charge_ceiling', {}));
    }
    if (status === 'closed' && row.finished_on === null) at('finished_on', 'a closed job needs the day it was finished');
  },
  save(rows, into): Promise<void> {
    const taxRate = bookTaxRate(into.book);
    return into.keyed(
      jobs,
      JobTable,
      rows,
      (row) => [row.job],
      (row) => ({
        number: row.job,
        name: row.name,
        client_id: into.id(customers, row.customer),
        contract_reference: row.contract_reference ?? '',
        status: row.status ?? 'awarded',
        awarded_on: row.awarded_on,
        starts_on: row.starts_on,
        finishes_on: row.finishes_on,
        finished_on: row.finished_on,
        manager: row.manager ?? '',
        site: row.site ?? '',
        revenue_method: row.revenue_method ?? 'cost-to-cost',
        retention_rate: row.retention_percent ?? 0,
        retention_materials_rate: row.retention_on_materials_percent,
        retention_step_at: row.retention_step_at_percent,
        retention_step_to: row.retention_step_to_percent,
        retention_step_applies: row.retention_step_applies ?? 'all',
        retention_cap: row.retention_cap_percent,
        tax_rate: row.tax_percent ?? taxRate,
        terms_days: row.terms_days,
        estimator: row.estimator ?? '',
        defects_end: row.defects_end,
        no_retention: row.no_retention ? 1 : 0,
        locked: row.locked ? 1 : 0,
        restricted: row.restricted ? 1 : 0,
        job_kind_id: row.kind ? into.id(jobKinds, row.kind) : null,
        department_id: row.department ? into.id(departments, row.department) : null,
        work_kind_id: row.work_kind ? into.id(workKinds, row.work_kind) : null,
        pricing: row.pricing ?? 'fixed',
        charge_ceiling: row.charge_ceiling,
      }),
    );
  },
});

/** The jobs of a book that are charged, found once. */
const chargedJobs = shared(() => ({ numbers: null as ReadonlySet<string> | null }));

/** Whether a job of the book or of the database is charged for what it costs. */
export function isChargedJob(book: BookCheck, job: string | null | undefined): boolean {
  const own = book.own(chargedJobs);
  own.numbers ??= new Set([
    ...[...book.keysOf(jobs).existing].flatMap(([number, it]) => (it.pricing === 'charged' ? [number] : [])),
    ...book.rowsOf(jobs).flatMap((it) => (it.pricing === 'charged' && it.job ? [it.job] : [])),
  ]);
  return own.numbers.has(job ?? '');
}

const TERMS_COLUMNS = {
  finishesOn: 'finishes_on',
  defectsEnd: 'defects_end',
  stepAt: 'retention_step_at_percent',
  stepTo: 'retention_step_to_percent',
  noRetention: 'no_retention',
};

/** The terms a row states; what could not be read is as if it were not there, since it is a fault already. */
function termsOf(row: ReadRow<typeof JOB>): JobTerms {
  const [stepAt, stepTo] = [row.retention_step_at_percent, row.retention_step_to_percent];
  const readable = stepAt !== undefined && stepTo !== undefined;
  return {
    awardedOn: null,
    startsOn: row.starts_on ?? null,
    finishesOn: row.finishes_on ?? null,
    defectsEnd: row.defects_end ?? null,
    retention: { rate: row.retention_percent ?? 0, stepAt: readable ? stepAt : null, stepTo: readable ? stepTo : null },
    noRetention: row.no_retention === true,
  };
}

export const jobMoves = bookFile({
  name: 'job_moves',
  columns: {
    job: text(REQUIRED),
    was: oneOf(ALL_JOB_STATUSES)('empty for a job that was set up so'),
    became: oneOf([...ALL_JOB_STATUSES, 'locked', 'unlocked', 'restricted', 'unrestricted'])(REQUIRED),
    on_day: date(),
    reason: text(),
    moved_by: text(REQUIRED),
    moved_at: moment(REQUIRED),
  },
  key: [],
  takenBy: 'always',
  refers: { job: { to: jobs, whole: 'its moves are recorded there' } },
  query: `SELECT m.id, j.number AS job, m.was, m.became, m.on_day, m.reason, m.actor AS moved_by, m.at AS moved_at FROM job_move m JOIN job j ON j.id = m.job_id`,
  save: (rows, into): Promise<void> =>
    into.insertAll(
      JobMoveTable,
      rows.map((row) => ({
        job_id: into.id(jobs, row.job),
        was: row.was ?? '',
        became: row.became,
        on_day: row.on_day,
        reason: row.reason ?? '',
        actor: row.moved_by,
        at: row.moved_at,
      })),
    ),
});

export const scheduleOfValues = bookFile({
  name: 'schedule_of_values',
  columns: {
    job: text(REQUIRED),
    sov_line: text(REQUIRED),
    section: text(),
    description: text(REQUIRED),
    scheduled_value: amount(REQUIRED),
    quantity: quantity(),
    unit: text(),
    retention_percent: percent(),
  },
  key: ['job', 'sov_line'],
  called: 'SOV line',
  takenBy: 'contract',
  refers: { job: { to: jobs } },
  // Lines that change orders brought are there as well.
  existing: 'SELECT s.id, j.number AS job, s.line AS sov_line FROM sov_line s JOIN job j ON j.id = s.job_id',
  query: `SELECT s.id, j.number AS job, s.line AS sov_line, s.section, s.description, s.scheduled_value, s.quantity, s.unit, s.retention_rate AS retention_percent
    FROM sov_line s JOIN job j ON j.id = s.job_id WHERE s.original = 1`,
  check(row, book) {
    const message = `job ${row.job} is already in the database and has been billed; its schedule changes by change order only`;
    if (book.there(jobs, row.job)?.billed_to) book.fault(scheduleOfValues, row, 'job', message);
    if (isChargedJob(book, row.job))
      book.refuse(scheduleOfValues, row, refuse('charged-has-none', 'job', { job: row.job ?? '', what: 'schedule of values' }));
    if (!isWhole(row)) book.own(unreliable).schedule(row.job, row.sov_line);
  },
  /** The lines in SOV order: as the book lists them, then those its change orders bring. */
  save(_rows, into): Promise<void> {
    const { existing } = into.book.keysOf(scheduleOfValues);
    const fresh = scheduledLines(into.book).filter(({ job, line }) => !existing.has(joinKey(job, line.line)));
    return into.keyed(
      scheduleOfValues,
      SovLineTable,
      fresh,
      ({ job, line }) => [job, line.line],
      ({ job, line, position }) => ({
        job_id: into.id(jobs, job),
        line: line.line,
        position,
        original: line.original ? 1 : 0,
        section: line.section,
        description: line.description,
        scheduled_value: line.scheduledValue,
        quantity: line.quantity,
        unit: line.unit,
        retention_rate: line.retentionRate,
      }),
    );
  },
});

/** Throws refused where a job that was there before the book is restricted and whoever brings it in is not on its team. */
export async function assertBookOfTeam({ sql, actor, book }: BookSave, jobIds: Iterable<number>): Promise<void> {
  const before = new Set([...book.keysOf(jobs).existing.values()].map((it) => it.id));
  await assertOfTeam(
    sql,
    actor,
    [...jobIds].filter((id) => before.has(id)),
  );
}
