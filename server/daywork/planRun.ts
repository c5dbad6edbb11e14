import { passesCeiling } from '../../core/charging/ceiling';
import { dayworkFigures, dayworkRefusals, takeRefusal, type ShownAs } from '../../core/charging/dayworkInvoice';
import { nextReference } from '../../core/charging/nextReference';
import { present } from '../../core/errors/known';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { takesRefusal } from '../../core/jobs/takes';
import { refuse } from '../../core/refusals/refusal';
import type { RunInput, RunPreview } from '../../wire/charging';
import { assertNoFaults, faultsOf } from '../acts/refused';
import { CHARGE_ENTRIES_OF_IDS, RUN_ENTRIES_OF_JOBS } from '../charging/queries';
import { loadDigits } from '../company/company';
import type { RowOf } from '../db/fields';
import { allInBulk } from '../db/inBulk';
import type { Reader } from '../db/sql';
import { INVOICED_OF_JOBS, JOBS_TO_INVOICE, REFERENCES_OF_JOBS } from './queries';

type Entry = RowOf<typeof RUN_ENTRIES_OF_JOBS>;
export type JobToInvoice = RowOf<typeof JOBS_TO_INVOICE>;

/** An invoice worked out, with everything it rests on checked. */
export interface PlannedInvoice {
  job: JobToInvoice;
  reference: string;
  dated: string;
  cutOff: string;
  shown: ShownAs;
  wording: string;
  entries: Entry[];
  amount: number;
  tax: number;
  payable: number;
}

export interface Planned {
  invoices: PlannedInvoice[];
  notReady: RunPreview['notReady'];
}

/** Works out a run. Throws with all faults, by invoice and field. */
export async function planRun(sql: Reader, { dated, cutOff, invoices }: RunInput): Promise<Planned> {
  const digits = await loadDigits(sql);
  const faults: Fault[] = [];
  const planned: Planned = { invoices: [], notReady: [] };
  const seen = new Set<string>();
  const read = await readRun(sql, { cutOff, invoices });
  for (const [i, asked] of invoices.entries()) {
    const at = (refusals: Parameters<typeof faultsOf>[0]) =>
      faults.push(
        ...faultsOf(refusals, digits).map((it) => ({
          ...it,
          field: DAYS.has(it.field) ? it.field : `invoices.${i}.${it.field}`,
        })),
      );
    const job = read.jobs.get(asked.job);
    if (!job) {
      faults.push({ field: `invoices.${i}.job`, message: `There is no job ${asked.job}` });
      continue;
    }
    if (seen.has(job.number)) faults.push({ field: `invoices.${i}.job`, message: `Job ${job.number} is in the run already` });
    seen.add(job.number);
    const notTaken = takesRefusal(job, 'bills');
    if (notTaken) {
      at([notTaken]);
      continue;
    }
    const taken = new Set(read.references.get(job.id)?.map((it) => it.reference));
    const reference = asked.reference.trim() || nextReference('D', taken);
    at(dayworkRefusals({ job, reference, dated, cutOff }));
    if (taken.has(reference)) at([refuse('reference-taken', 'reference', { reference })]);
    const entries =
      asked.entries === null
        ? readyOf(job, read.marked.get(job.id) ?? [], cutOff, planned.notReady)
        : await sql.all(CHARGE_ENTRIES_OF_IDS, [JSON.stringify(asked.entries)]);
    if (asked.entries !== null) {
      const refused = entries.flatMap((it) => takeRefusal({ name: nameOf(it), ...it }, cutOff) ?? []);
      at(refused.slice(0, 20));
      const there = new Set(entries.map((it) => it.id));
      if (asked.entries.some((id) => !there.has(id)) || entries.some((it) => it.job !== job.number))
        faults.push({
          field: `invoices.${i}.entries`,
          message: `Entries of job ${job.number} have changed since; reload the page`,
        });
    }
    if (entries.length === 0) at([refuse('invoice-takes-nothing', 'entries', {})]);
    const figures = dayworkFigures(
      entries.map((it) => it.charge),
      job.taxRate,
    );
    const passed = passesCeiling([...(read.invoiced.get(job.id) ?? []), { dated, amount: figures.amount }], job.ceiling, dated);
    if (passed) at([refuse('ceiling-passed', 'entries', { ceiling: present(job.ceiling ?? undefined), ...passed })]);
    const { shown, wording } = asked;
    planned.invoices.push({ job, reference, dated, cutOff, shown, wording, entries, ...figures });
  }
  assertNoFaults(faults);
  return planned;
}

/** Fields that are of the whole run. */
const DAYS: ReadonlySet<string> = new Set(['dated', 'cutOff']);

/** What a run rests on, by job: read once for all its invoices. */
async function readRun(sql: Reader, { cutOff, invoices }: Pick<RunInput, 'cutOff' | 'invoices'>) {
  const jobs = await sql.all(JOBS_TO_INVOICE, [JSON.stringify(invoices.map((it) => it.job))]);
  const ids = JSON.stringify(jobs.map((it) => it.id));
  const whole = new Set(invoices.filter((it) => it.entries === null).map((it) => it.job));
  const marked = jobs.filter((it) => whole.has(it.number)).map((it) => it.id);
  return {
    jobs: new Map(jobs.map((it) => [it.number, it])),
    references: byJob(await sql.all(REFERENCES_OF_JOBS, [ids])),
    invoiced: byJob(await sql.all(INVOICED_OF_JOBS, [ids])),
    marked: byJob(await allInBulk(sql, RUN_ENTRIES_OF_JOBS, [JSON.stringify(marked), cutOff])),
  };
}

function byJob<Row extends { jobId: number }>(rows: readonly Row[]): Map<number, Row[]> {
  const groups = new Map<number, Row[]>();
  for (const it of rows) {
    const own = groups.get(it.jobId);
    if (own) own.push(it);
    else groups.set(it.jobId, [it]);
  }
  return groups;
}

/** The job of a number, as it is invoiced. Throws not-found. */
export async function jobToInvoice(sql: Reader, number: string): Promise<JobToInvoice> {
  const [job] = await sql.all(JOBS_TO_INVOICE, [JSON.stringify([number])]);
  if (!job) throw new LedrinError('not-found', `There is no job ${number}`);
  return job;
}

/** How many there are: the burden of a line of time stands with its pay. */
export const countOf = (entries: readonly Entry[]) => entries.filter((it) => it.timeLine === null || it.hours !== null).length;

const nameOf = (it: Entry) => it.reference || `${it.costCode}, ${it.dated}`;

/** The entries of a job that are ready, of those marked; what is not is noted with why. */
function readyOf(job: JobToInvoice, marked: readonly Entry[], cutOff: string, notReady: RunPreview['notReady']): Entry[] {
  const all = marked.filter((it) => it.takenBy === null);
  const ready = all.filter((it) => takeRefusal({ name: '', ...it }, cutOff) === null);
  const note = (entries: readonly Entry[], why: string) => {
    if (entries.length === 0) return;
    const charge = entries.reduce((sum, it) => sum + it.charge, 0);
    notReady.push({ job: job.number, jobName: job.name, entries: countOf(entries), charge, why });
  };
  note(
    all.filter((it) => it.mark === 'hold'),
    'held',
  );
  note(
    all.filter((it) => it.mark === 'yes' && !ready.includes(it)),
    'charged from a day after the cut-off',
  );
  return ready;
}
