import { dueDay } from '../../core/billing/invoice';
import { dayworkJournal, invoiceLines } from '../../core/charging/dayworkInvoice';
import { journalView } from '../../core/ledger/journalView';
import type { RunInput, RunInvoiceView, RunPreview } from '../../wire/charging';
import type { Command } from '../acts/command';
import { nextInvoiceNumber, saveInvoices } from '../billing/invoices';
import { loadPositions } from '../costs/jobPositions';
import { nextId, type Reader } from '../db/sql';
import { assertOfTeam } from '../jobs/restricted';
import { assertMayPost } from '../ledger/gate';
import { PostingTable } from '../ledger/models';
import { savePostings } from '../ledger/savePosting';
import { digestOf } from '../versions/digest';
import { assertAsPreviewed } from '../versions/staleness';
import { wordsOf } from './invoiceWords';
import { DayworkInvoiceTable, DayworkLineTable } from './models';
import { JOBS_TO_INVOICE } from './queries';
import { countOf, planRun, type Planned, type PlannedInvoice } from './planRun';

const shownOf = ({ invoices }: Planned) =>
  invoices.map((it) => [
    ...[it.job.number, it.reference, it.dated, it.cutOff, it.shown, it.wording],
    it.entries.map((entry) => [entry.id, entry.charge, wordsOf(entry)]),
  ]);

/** What a run would post: the invoices as the client reads them, with their journals and what they do to the jobs. */
export async function previewRun(sql: Reader, input: RunInput): Promise<RunPreview> {
  const planned = await planRun(sql, input);
  const invoices: RunInvoiceView[] = [];
  // Of one job, or of all at once: one by one, 200 jobs are read 200 times.
  const [only, ...others] = planned.invoices;
  const loaded = await loadPositions(sql, input.dated, only && others.length === 0 ? only.job.id : null);
  const positions = new Map(loaded.map((it) => [it.id, it]));
  for (const it of planned.invoices) {
    const position = positions.get(it.job.id);
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
  const jobs = await sql.all(JOBS_TO_INVOICE, [JSON.stringify(input.invoices.map((it) => it.job))]);
  await assertOfTeam(
    sql,
    actor,
    jobs.map((it) => it.id),
  );
  const planned = await planRun(sql, input);
  assertAsPreviewed(command, 'What is charged', shownOf(planned), seen);
  const first = await nextId(sql, DayworkInvoiceTable);
  const postings = await postInvoices(command, planned.invoices);
  await sql.insertAll(
    DayworkInvoiceTable,
    planned.invoices.map(({ job, reference, dated, cutOff, shown, wording, amount, tax }, i) => ({
      id: first + i,
      job_id: job.id,
      reference,
      dated,
      cut_off: cutOff,
      shown,
      wording,
      status: 'issued' as const,
      amount,
      tax,
      posting_id: postings + i,
    })),
  );
  await sql.insertAll(
    DayworkLineTable,
    planned.invoices.flatMap(({ entries }, i) =>
      entries.map((entry) => ({ daywork_invoice_id: first + i, cost_entry_id: entry.id, charge: entry.charge })),
    ),
  );
  for (const { job, reference, dated, cutOff, entries, amount, tax } of planned.invoices)
    command.note(`${job.number}/${reference}`, { dated, cutOff, entries: entries.length, amount, tax });
  return {
    invoices: planned.invoices.map(({ job, reference, payable }) => ({ job: job.number, reference, payable })),
  };
}

type ToPost = Pick<PlannedInvoice, 'job' | 'reference' | 'dated' | 'amount' | 'tax' | 'payable'>;

/** Posts invoices of charged cost, with the next numbers of the company; gives back the first posting, which the others follow. */
export async function postInvoices({ sql, actor }: Command, invoices: readonly ToPost[]): Promise<number> {
  const kind = 'daywork-invoice';
  const jobIds = invoices.map((it) => it.job.id);
  await assertMayPost(sql, actor, { kind, jobIds, days: invoices.map((it) => it.dated) });
  const first = await nextId(sql, PostingTable);
  await savePostings(
    sql,
    actor,
    invoices.map((it, i) => ({
      id: first + i,
      posting: { kind, jobId: it.job.id, reference: it.reference, postedOn: it.dated },
      journals: [dayworkJournal(it.dated, it)],
    })),
  );
  const number = await nextInvoiceNumber(sql);
  await saveInvoices(
    sql,
    invoices.map(({ job, reference, dated, payable }, i) => ({
      jobId: job.id,
      postingId: first + i,
      number: number + i,
      invoice: { kind: 'daywork', reference, dated, postedOn: dated, dueOn: dueDay(dated, job.termsDays), payable },
    })),
  );
  return first;
}
