import { dueDay } from '../../core/billing/invoice';
import { passesCeiling } from '../../core/charging/ceiling';
import {
  dayworkFigures,
  dayworkJournal,
  dayworkRefusals,
  invoiceLines,
  takeRefusal,
  type ShownAs,
} from '../../core/charging/dayworkInvoice';
import { nextReference } from '../../core/charging/nextReference';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { present } from '../../core/errors/known';
import { takesRefusal } from '../../core/jobs/takes';
import { journalView } from '../../core/ledger/journalView';
import { refuse } from '../../core/refusals/refusal';
import type { RunInput, RunInvoiceView, RunPreview } from '../../wire/charging';
import { nextInvoiceNumber, saveInvoice } from '../billing/invoices';
import { REFERENCE_OF_JOB } from '../billing/queries';
import { loadDigits } from '../company/company';
import { loadPositions } from '../costs/jobPositions';
import { nextId, type Reader } from '../db/sql';
import type { RowOf } from '../db/fields';
import { assertNoFaults, faultsOf } from '../acts/refused';
import type { Command } from '../acts/command';
import { savePosting } from '../ledger/savePosting';
import { assertAsPreviewed } from '../versions/staleness';
import { digestOf } from '../versions/digest';
import { assertOfTeam } from '../jobs/restricted';
import { wordsOf } from './invoiceWords';
import { DayworkInvoiceTable, DayworkLineTable } from './models';
import { CHARGE_ENTRIES_OF_IDS, MARKED_OF_JOB } from '../charging/queries';
import { INVOICED_OF_JOB, JOB_TO_INVOICE, REFERENCES_OF_JOB } from './queries';

type Entry = RowOf<typeof MARKED_OF_JOB>;
type Job = RowOf<typeof JOB_TO_INVOICE>;

/** An invoice worked out, with everything it rests on checked. */
interface PlannedInvoice {
  job: Job;
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

interface Planned {
  invoices: PlannedInvoice[];
  notReady: RunPreview['notReady'];
}

/** Works out a run. Throws with all faults, by invoice and field. */
async function planRun(sql: Reader, { dated, cutOff, invoices }: RunInput): Promise<Planned> {
  const digits = await loadDigits(sql);
  const faults: Fault[] = [];
  const planned: Planned = { invoices: [], notReady: [] };
  const seen = new Set<string>();
  for (const [i, asked] of invoices.entries()) {
    const at = (refusals: Parameters<typeof faultsOf>[0]) =>
      faults.push(
        ...faultsOf(refusals, digits).map((it) => ({
          ...it,
          field: DAYS.has(it.field) ? it.field : `invoices.${i}.${it.field}`,
        })),
      );
    const job = await sql.get(JOB_TO_INVOICE, [asked.job]);
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
    const reference = asked.reference.trim() || (await nextOf(sql, job.id));
    at(dayworkRefusals({ job, reference, dated, cutOff }));
    if (await sql.get(REFERENCE_OF_JOB, [job.id, reference])) at([refuse('reference-taken', 'reference', { reference })]);
    const entries = await entriesOf(sql, job, asked.entries, cutOff, planned.notReady);
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
    const passed = passesCeiling(
      [...(await sql.all(INVOICED_OF_JOB, [job.id])), { dated, amount: figures.amount }],
      job.ceiling,
      dated,
    );
    if (passed) at([refuse('ceiling-passed', 'entries', { ceiling: present(job.ceiling ?? undefined), ...passed })]);
    const { shown, wording } = asked;
    planned.invoices.push({ job, reference, dated, cutOff, shown, wording, entries, ...figures });
  }
  assertNoFaults(faults);
  return planned;
}

/** Fields that are of the whole run. */
const DAYS: ReadonlySet<string> = new Set(['dated', 'cutOff']);

async function nextOf(sql: Reader, jobId: number): Promise<string> {
  return nextReference('D', new Set((await sql.all(REFERENCES_OF_JOB, [jobId])).map((it) => it.reference)));
}

/** How many there are: the burden of a line of time stands with its pay. */
const countOf = (entries: readonly Entry[]) => entries.filter((it) => it.timeLine === null || it.hours !== null).length;

const nameOf = (it: Entry) => it.reference || `${it.costCode}, ${it.dated}`;

/** The entries asked for, the pay and burden of a line of time together; or all that are ready, and beside them what is not. */
async function entriesOf(
  sql: Reader,
  job: Job,
  asked: readonly number[] | null,
  cutOff: string,
  notReady: RunPreview['notReady'],
): Promise<Entry[]> {
  if (asked !== null) return sql.all(CHARGE_ENTRIES_OF_IDS, [JSON.stringify(asked)]);
  const all = (await sql.all(MARKED_OF_JOB, [job.id, cutOff])).filter((it) => it.takenBy === null);
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

const shownOf = ({ invoices }: Planned) =>
  invoices.map((it) => [
    ...[it.job.number, it.reference, it.dated, it.cutOff, it.shown, it.wording],
    it.entries.map((entry) => [entry.id, entry.charge, wordsOf(entry)]),
  ]);

/** What a run would post: the invoices as the client reads them, with their journals and what they do to the jobs. */
export async function previewRun(sql: Reader, input: RunInput): Promise<RunPreview> {
  const planned = await planRun(sql, input);
  const invoices: RunInvoiceView[] = [];
  for (const it of planned.invoices) {
    const [position] = await loadPositions(sql, it.dated, it.job.id);
    const before = position ? position.progress.billed - position.progress.earned : 0;
    const { job, amount, tax, payable } = it;
    invoices.push({
      job: job.number,
      jobName: job.name,
      client: job.client,
      clientName: job.clientName,
      reference: it.reference,
      dueOn: dueDay(it.dated, job.termsDays),
      entries: countOf(it.entries),
      cost: it.entries.reduce((sum, entry) => sum + entry.amount, 0),
      lines: invoiceLines(
        it.entries.map((entry) => ({ ...entry, words: wordsOf(entry) })),
        it.shown,
        it.wording,
      ),
      amount,
      tax,
      payable,
      journal: journalView(dayworkJournal(it.dated, it)),
      before,
      after: before + amount,
    });
  }
  return { seen: digestOf(shownOf(planned)), invoices, notReady: planned.notReady };
}

/** Issues a run as it was previewed: each invoice posted with its number, all of them or none. */
export async function issueRun(
  command: Command,
  { seen, ...input }: RunInput & { seen: string },
): Promise<{ invoices: { job: string; reference: string; payable: number }[] }> {
  const { sql, actor } = command;
  const planned = await planRun(sql, input);
  assertAsPreviewed(command, 'What is charged', shownOf(planned), seen);
  await assertOfTeam(
    sql,
    actor,
    planned.invoices.map((it) => it.job.id),
  );
  for (const it of planned.invoices) {
    const id = await nextId(sql, DayworkInvoiceTable);
    const postingId = await postInvoice(command, it);
    const { job, reference, dated, cutOff, shown, wording, amount, tax } = it;
    await sql.insert(DayworkInvoiceTable, {
      id,
      job_id: job.id,
      reference,
      dated,
      cut_off: cutOff,
      shown,
      wording,
      status: 'issued',
      amount,
      tax,
      posting_id: postingId,
    });
    await sql.insertAll(
      DayworkLineTable,
      it.entries.map((entry) => ({ daywork_invoice_id: id, cost_entry_id: entry.id, charge: entry.charge })),
    );
    command.note(`${job.number}/${reference}`, { dated, cutOff, entries: it.entries.length, amount, tax });
  }
  return {
    invoices: planned.invoices.map(({ job, reference, payable }) => ({ job: job.number, reference, payable })),
  };
}

type ToPost = Pick<PlannedInvoice, 'job' | 'reference' | 'dated' | 'amount' | 'tax' | 'payable'>;

/** Posts an invoice of charged cost, with the next number of the company; gives back the posting. */
export async function postInvoice({ sql, actor }: Command, it: ToPost): Promise<number> {
  const { job, reference, dated, payable } = it;
  const posting = { kind: 'daywork-invoice' as const, jobId: job.id, reference, postedOn: dated };
  const postingId = await savePosting(sql, actor, posting, [dayworkJournal(dated, it)]);
  await saveInvoice(
    sql,
    job.id,
    postingId,
    { kind: 'daywork', reference, dated, postedOn: dated, dueOn: dueDay(dated, job.termsDays), payable },
    await nextInvoiceNumber(sql),
  );
  return postingId;
}

/** The job of a number, as it is invoiced. Throws not-found. */
export async function jobToInvoice(sql: Reader, number: string): Promise<Job> {
  const job = await sql.get(JOB_TO_INVOICE, [number]);
  if (!job) throw new LedrinError('not-found', `There is no job ${number}`);
  return job;
}
