import { RECEIPTS_BY_JOB_AND_INVOICE } from '../queries';
import { isCertifiedAt } from '../../../core/billing/application';
import { planCertification } from '../../../core/billing/certification';
import { dueDay } from '../../../core/billing/invoice';
import { receiptJournal } from '../../../core/billing/receipt';
import { retentionReleaseJournal } from '../../../core/billing/retentionRelease';
import { LAST_DAY } from '../../../core/calendar/plainDate';
import { known, present } from '../../../core/errors/known';
import { isNumber } from '../../../core/money/decimal';
import { rateOf } from '../../../core/money/rate';
import { refuse } from '../../../core/refusals/refusal';
import { shared, type BookCheck } from '../../bookFormat/bookCheck';
import { isWhole, type ReadRow, type Row } from '../../bookFormat/columns';
import { checkDaywork } from '../../daywork/book/checkDaywork';
import { loadDayworkOf, moneyOfBook } from '../../daywork/book/dayworkOfBook';
import { dayworkCredits, dayworkInvoices } from '../../daywork/book/dayworkBookFiles';
import { bookFile, type BookFile } from '../../bookFormat/bookFile';
import type { BookSave } from '../../bookFormat/bookSave';
import { APPLICATION, APPLICATION_LINE, RECEIPT, RELEASE, type BillingFiles } from './bookColumns';
import { joinKey } from '../../bookFormat/keys';
import { changeOrderLines } from '../../changes/bookFiles';
import { jobs, scheduleOfValues } from '../../jobs/bookFiles';
import { PostingBatch } from '../../ledger/postingBatch';
import { loadBillingJobs } from '../billingJobs';
import { billingOfBook } from './billingOfBook';
import { bookBilling, type BookApplication, type BookBilling } from './bookBilling';
import { checkBilling, checkReceipts, isApplicationNumber, receivedBefore } from './checkBilling';
import { giveNumbers, saveInvoices, type PostedInvoice } from '../invoices';
import { ApplicationLineTable, ApplicationTable, InvoiceTable, ReceiptTable, RetentionReleaseTable } from '../models';

export const applications = bookFile({
  name: 'applications',
  columns: APPLICATION,
  key: ['job', 'application'],
  called: 'application',
  takenBy: 'final',
  refers: { job: { to: jobs } },
  order: 'job_id, application',
  query: `SELECT a.id, a.job_id, j.number AS job, a.number AS application, a.dated, a.status, a.certified_on, a.reference, a.invoice_number, nullif(a.above_scheduled, 0) AS above_scheduled, a.above_reason FROM application a JOIN job j ON j.id = a.job_id`,
  countsOn: ({ certified_on }) => ({ certified_on }),
  prepare: prepareBilling,
  checkAll: (_rows, book): void => {
    checkBilling(book, FILES);
    checkInvoiceNumbers(book);
  },
  acts: (rows) =>
    rows
      .filter((row) => (row.above_scheduled ?? 0) > 0)
      .map((row) => ({ row, column: 'above_scheduled', kind: 'overbilling', amount: row.above_scheduled ?? 0 })),
  save: saveApplications,
});

/** Works out the billing of the jobs the book says something of, with what the database has of them. */
async function prepareBilling(book: BookCheck): Promise<void> {
  for (const { number } of await book.sql.find(InvoiceTable, {})) book.own(takenNumbers).add(number);
  const files: readonly BookFile[] = [
    ...[jobs, scheduleOfValues, changeOrderLines, applications, retentionReleases, receipts],
    ...[dayworkInvoices, dayworkCredits],
  ];
  const mentioned = new Set(files.flatMap((file) => book.rowsOf(file).map((row) => String(row.job ?? ''))));
  const there = [...book.keysOf(jobs).existing].filter(([number]) => mentioned.has(number));
  const loaded = await loadBillingJobs(book.sql, ...there.map(([, { id }]) => id));
  if (there.length > 0) {
    const before = book.own(receivedBefore);
    for (const { job, invoice, ...it } of await book.sql.all(RECEIPTS_BY_JOB_AND_INVOICE)) {
      const key = joinKey(job, invoice);
      before.set(key, [...(before.get(key) ?? []), it]);
    }
  }
  billingOfBook(book, loaded, FILES);
  await loadDayworkOf(book.sql, book);
}

/** Numbers of invoices the database has. */
const takenNumbers = shared(() => new Set<number>());

/** A number stands once, over applications and releases, in the book and in the database. */
function checkInvoiceNumbers(book: BookCheck): void {
  const usedNumbers = new Set(book.own(takenNumbers));
  const take = (file: BookFile, row: { invoice_number?: number | null | undefined; row: number }) => {
    const { invoice_number: number } = row;
    if (number === null || number === undefined) return;
    if (usedNumbers.has(number)) book.fault(file, row, 'invoice_number', `duplicate key: there is an invoice ${number} already`);
    usedNumbers.add(number);
  };
  for (const row of book.rowsOf(applications)) take(applications, row);
  for (const row of book.rowsOf(retentionReleases)) take(retentionReleases, row);
  for (const row of book.rowsOf(dayworkInvoices)) take(dayworkInvoices, row);
}

async function saveApplications(rows: readonly Row<typeof APPLICATION>[], into: BookSave): Promise<void> {
  const fresh = [...into.book.own(bookBilling)].flatMap(([number, job]) =>
    job.applications.filter((it) => it.row !== null).map((application) => ({ number, job, application })),
  );
  const postings = await PostingBatch.open(into.sql, into.actor);
  const asked = new Map(rows.map((row) => [joinKey(row.job, row.application), row.invoice_number]));
  const unnumbered = fresh.map((it) => ({ ...it, ...post(it.number, it.job, it.application, into, postings) }));
  const numbers = await giveNumbers(
    into.sql,
    unnumbered.map(({ number, application, postingId }) => ({
      postedOn: postingId === null ? null : application.certifiedOn,
      number: asked.get(joinKey(number, application.number)) ?? null,
    })),
  );
  const posted = unnumbered.map((it, i) => ({ ...it, invoiceNumber: numbers[i] ?? null }));
  await postings.save();
  await into.keyed(
    applications,
    ApplicationTable,
    posted,
    ({ number, application }) => [number, application.number],
    ({ number, application, postingId, figures, invoiceNumber }) => ({
      job_id: into.id(jobs, number),
      number: application.number,
      dated: application.dated,
      status: application.status,
      certified_on: application.certifiedOn,
      reference: application.reference,
      posting_id: postingId,
      gross: figures?.gross ?? null,
      retention: figures?.retention ?? null,
      due: figures?.due ?? null,
      tax: figures?.tax ?? null,
      invoice_number: invoiceNumber,
      above_scheduled: application.above ?? 0,
      above_reason: application.aboveReason ?? '',
    }),
  );
  await into.insertAll(
    ApplicationLineTable,
    fresh.flatMap(({ number, application }) =>
      application.lines.map((line) => ({
        application_id: into.id(applications, number, application.number),
        sov_line_id: into.id(scheduleOfValues, number, line.line),
        work: line.work,
        materials: line.materials,
        certified_work: line.certifiedWork,
        certified_materials: line.certifiedMaterials,
      })),
    ),
  );
  const invoices = posted.flatMap(({ number, job, application, postingId, figures, invoiceNumber }): PostedInvoice[] => {
    if (postingId === null || figures === null) return [];
    const postedOn = present(application.certifiedOn);
    const invoice = {
      kind: 'application' as const,
      reference: String(application.number),
      dated: application.dated,
      postedOn,
      dueOn: dueDay(postedOn, job.termsDays),
      payable: figures.due + figures.tax,
    };
    return [{ jobId: into.id(jobs, number), postingId, invoice, number: present(invoiceNumber ?? undefined) }];
  });
  await saveInvoices(into.sql, invoices);
}

/** Posts a certified application; one that is not posts nothing. */
function post(number: string, job: BookBilling, application: BookApplication, into: BookSave, postings: PostingBatch) {
  if (!isCertifiedAt(application, LAST_DAY)) return { postingId: null, figures: null };
  const { figures, journal } = planCertification(job, application);
  const posting = {
    kind: 'application' as const,
    jobId: into.id(jobs, number),
    reference: String(application.number),
    postedOn: present(application.certifiedOn),
    dated: application.dated,
  };
  return { postingId: postings.add(posting, journal), figures };
}

export const applicationLines = bookFile({
  name: 'application_lines',
  columns: APPLICATION_LINE,
  key: ['job', 'application', 'sov_line'],
  existing: null,
  takenBy: 'final',
  refers: {
    job: { to: jobs },
    application: { to: applications, by: ['job', 'application'], whole: 'its lines are there' },
    sov_line: { to: scheduleOfValues, by: ['job', 'sov_line'] },
  },
  order: 'job_id, application, sov_line_id',
  query: `SELECT x.application_id * 1000000000 + x.sov_line_id AS id, a.job_id, x.sov_line_id, j.number AS job, a.number AS application, s.line AS sov_line, x.work AS work_to_date, x.materials AS materials_on_site,
    x.certified_work AS certified_work_to_date, x.certified_materials AS certified_materials_on_site
    FROM application_line x JOIN application a ON a.id = x.application_id JOIN job j ON j.id = a.job_id JOIN sov_line s ON s.id = x.sov_line_id`,
});

export const retentionReleases = bookFile({
  name: 'retention_releases',
  columns: RELEASE,
  key: ['job', 'reference'],
  called: 'retention release',
  takenBy: 'unlocked',
  refers: { job: { to: jobs } },
  query:
    'SELECT r.id, j.number AS job, r.dated, r.amount, r.reference, i.number AS invoice_number FROM retention_release r JOIN job j ON j.id = r.job_id JOIN invoice i ON i.posting_id = r.posting_id',
  countsOn: ({ dated }) => ({ dated }),
  check(row, book) {
    if (row.reference && isNumber(row.reference))
      book.refuse(retentionReleases, row, refuse('release-named-as-number', 'reference', { reference: row.reference }));
  },
  async save(rows, into) {
    const postings = await PostingBatch.open(into.sql, into.actor);
    const posted = rows.map((row) => {
      const job = known(into.book.own(bookBilling), row.job);
      const tax = rateOf(job.taxRate, row.amount);
      const posting = {
        kind: 'retention-release' as const,
        jobId: into.id(jobs, row.job),
        reference: row.reference,
        postedOn: row.dated,
      };
      const postingId = postings.add(posting, retentionReleaseJournal(row.dated, row.amount, tax));
      return { ...row, tax, postingId, dueOn: dueDay(row.dated, job.termsDays) };
    });
    await postings.save();
    await into.keyed(
      retentionReleases,
      RetentionReleaseTable,
      posted,
      (row) => [row.job, row.reference],
      (row) => ({
        job_id: into.id(jobs, row.job),
        dated: row.dated,
        amount: row.amount,
        tax: row.tax,
        reference: row.reference,
        posting_id: row.postingId,
      }),
    );
    const numbers = await giveNumbers(
      into.sql,
      posted.map((it) => ({ postedOn: it.dated, number: it.invoice_number })),
    );
    await saveInvoices(
      into.sql,
      posted.map(({ job, reference, dated, dueOn, amount: released, tax, postingId }, i) => ({
        jobId: into.id(jobs, job),
        postingId,
        number: present(numbers[i] ?? undefined),
        invoice: { kind: 'release', reference, dated, postedOn: dated, dueOn, payable: released + tax },
      })),
    );
  },
});

export const receipts = bookFile({
  name: 'receipts',
  columns: RECEIPT,
  key: [],
  takenBy: 'unlocked',
  refers: { job: { to: jobs } },
  query: `SELECT r.id, r.dated, j.number AS job, i.reference AS application, r.amount, r.reference
    FROM receipt r JOIN job j ON j.id = r.job_id JOIN invoice i ON i.id = r.invoice_id
    WHERE NOT EXISTS (SELECT 1 FROM application a WHERE a.job_id = i.job_id AND CAST(a.number AS TEXT) = i.reference AND a.status <> 'certified')`,
  countsOn: ({ dated }) => ({ dated }),
  check(row, book) {
    if (!row.job || !row.application || !book.keysOf(jobs).has(row.job)) return;
    const isDaywork = book.keysOf(dayworkInvoices).has(joinKey(row.job, row.application));
    const to = isApplicationNumber(row.application) ? applications : isDaywork ? dayworkInvoices : retentionReleases;
    book.resolves(receipts, row, 'application', { to }, [row.job, row.application]);
    if (to === dayworkInvoices && isWhole(row)) noteMoney(row, book);
  },
  checkAll: (rows, book): void => checkReceipts(rows, book, receipts),
  checkEnd: (book): void => checkDaywork(book, { receipts, retentionReleases }),
  async finish(into) {
    const rows = into.book.rowsOf(receipts) as unknown as readonly Row<typeof RECEIPT>[];
    const invoices = await into.sql.find(InvoiceTable, {});
    const ids = new Map(invoices.map((it) => [joinKey(it.job_id, it.reference), it.id]));
    const postings = await PostingBatch.open(into.sql, into.actor);
    const toSave = rows.map((row) => {
      const [jobId, reference] = [into.id(jobs, row.job), row.reference ?? ''];
      const posting = { kind: 'receipt' as const, jobId, reference, postedOn: row.dated };
      const invoice = isApplicationNumber(row.application) ? String(Number(row.application)) : row.application;
      return {
        job_id: jobId,
        invoice_id: known(ids, joinKey(jobId, invoice)),
        dated: row.dated,
        amount: row.amount,
        reference,
        posting_id: postings.add(posting, receiptJournal(row.dated, row.amount)),
      };
    });
    await postings.save();
    await into.insertAll(ReceiptTable, toSave);
  },
});

/** Money on a daywork invoice: judged once its entries are charged. */
function noteMoney(row: ReadRow<typeof RECEIPT>, book: BookCheck): void {
  const money = book.own(moneyOfBook);
  const key = joinKey(row.job ?? '', row.application ?? '');
  money.set(key, [...(money.get(key) ?? []), { row, dated: row.dated ?? '', amount: row.amount ?? 0 }]);
}

/** What the checks of the whole need of these files. */
const FILES: BillingFiles = { applications, applicationLines, retentionReleases };
