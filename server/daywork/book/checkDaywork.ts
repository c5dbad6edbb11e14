import { whyNotTaken } from '../../../core/jobs/takes';
import type { MoneyReceived } from '../../../core/billing/invoiceRefusals';
import { passesCeiling } from '../../../core/charging/ceiling';
import { chargeOf, type ChargeTerms } from '../../../core/charging/charge';
import { ChargeRates } from '../../../core/charging/chargeRates';
import { countsFrom, markOf } from '../../../core/charging/chargeMark';
import { creditsWithTax } from '../../../core/charging/credit';
import { dayworkFigures, dayworkRefusals, takeRefusal } from '../../../core/charging/dayworkInvoice';
import { present } from '../../../core/errors/known';
import { grouped } from '../../../core/lists/grouped';
import { formatCents } from '../../../core/money/cents';
import { isNumber } from '../../../core/money/decimal';
import { refuse, type Refusal } from '../../../core/refusals/refusal';
import { bookBilling } from '../../billing/book/bookBilling';
import { checkReceived } from '../../billing/book/checkBilling';
import type { RECEIPT, RELEASE } from '../../billing/book/bookColumns';
import { type BookCheck } from '../../bookFormat/bookCheck';
import type { BookFileOf } from '../../bookFormat/bookFile';
import { MOST_DIGITS } from '../../bookFormat/cells';
import { isWhole } from '../../bookFormat/columns';
import { joinKey } from '../../bookFormat/keys';
import { isChargedJob, jobs } from '../../jobs/bookFiles';
import { markupsByJob } from '../../charging/chargeTerms';
import { chargingOfBook, type CostOfBook } from '../../charging/book/chargingOfBook';
import { chargeRates, dayworkTerms } from '../../charging/book/chargeBookFiles';
import { dayworkCredits, dayworkInvoices } from './dayworkBookFiles';
import { checkCredits } from './checkCredits';
import { dayworkOfDatabase, invoicesOfBook, moneyOfBook, taxRateOf, type Invoice } from './dayworkOfBook';

/** The files of billing that are judged with it. */
export interface BesideDaywork {
  receipts: BookFileOf<typeof RECEIPT>;
  retentionReleases: BookFileOf<typeof RELEASE>;
}

/** Checks invoices of charged cost, what they took, what is credited and received, and ceilings: once all cost was read. */
export function checkDaywork(book: BookCheck, beside: BesideDaywork): void {
  const invoices = invoicesOfBook(book);
  const costs = book.own(chargingOfBook).costs;
  checkReferences(book, beside);
  for (const it of invoices.values()) checkInvoice(book, it);
  checkTaken(book, costs, invoices);
  addFigures(book, costs, invoices);
  checkCredits(book, invoices);
  checkCeilings(book, invoices);
  checkMoney(book, invoices, beside);
}

/** References are unique in a job over releases, daywork invoices and credit notes. */
function checkReferences(book: BookCheck, { retentionReleases }: BesideDaywork): void {
  const there = (file: typeof dayworkCredits | typeof dayworkInvoices | typeof retentionReleases) => [
    ...book.keysOf(file).existing.keys(),
  ];
  const taken = new Set([...there(retentionReleases), ...there(dayworkInvoices), ...there(dayworkCredits)]);
  for (const it of book.own(dayworkOfDatabase).invoices)
    for (const credit of it.credits) taken.add(joinKey(it.job, credit.creditNote));
  for (const row of book.rowsOf(retentionReleases)) taken.add(joinKey(row.job ?? '', row.reference ?? ''));
  const take = (
    file: typeof dayworkInvoices | typeof dayworkCredits,
    row: { row: number },
    column: string,
    job: string | null | undefined,
    reference: string | null | undefined,
  ) => {
    if (!job || !reference) return;
    const key = joinKey(job, reference);
    // A second row of the same key is a fault of its own.
    if (taken.has(key) && !(file === dayworkInvoices && column === 'invoice' && book.keysOf(file).existing.has(key)))
      book.fault(file as never, row, column, `duplicate key: ${reference} is already there on job ${job}`);
    taken.add(key);
  };
  const seen = new Set<string>();
  for (const row of book.rowsOf(dayworkInvoices)) {
    const key = joinKey(row.job ?? '', row.invoice ?? '');
    if (!seen.has(key)) take(dayworkInvoices, row, 'invoice', row.job, row.invoice);
    seen.add(key);
  }
  for (const row of book.rowsOf(dayworkInvoices)) take(dayworkInvoices, row, 'credit_note', row.job, row.credit_note);
  const notes = new Set<string>();
  for (const row of book.rowsOf(dayworkCredits)) {
    const key = joinKey(row.job ?? '', row.credit_note ?? '');
    if (!notes.has(key) && !book.keysOf(dayworkCredits).existing.has(key))
      take(dayworkCredits, row, 'credit_note', row.job, row.credit_note);
    notes.add(key);
  }
}

function checkInvoice(book: BookCheck, { job, row }: Invoice): void {
  if (row === null) return;
  const billing = book.own(bookBilling).get(job);
  const { invoice: reference, dated, cut_off: cutOff } = row;
  if (!billing) return;
  const why = billing.status !== 'closed' ? whyNotTaken({ status: billing.status, locked: false }, 'bills') : null;
  if (why !== null) book.fault(dayworkInvoices, row, 'job', `job ${job} ${why}`);
  if (reference && dated && cutOff)
    for (const it of dayworkRefusals({ job: { number: job, awardedOn: billing.awardedOn }, reference, dated, cutOff }))
      book.refuse(dayworkInvoices, row, it, { reference: 'invoice', cutOff: 'cut_off' });
  const at = (column: string, message: string) => book.fault(dayworkInvoices, row, column, message);
  if (row.credited_on && row.status === 'draft') at('credited_on', 'only an issued invoice is credited');
  if (row.amount !== null && row.credited_on === null)
    at('amount', 'expected an empty cell: what is not credited in full asks for what its entries are charged at');
  if (row.credit_note && row.credited_on === null) at('credited_on', 'missing required cell: a credit note has a day');
  if (row.credited_on && dated && row.credited_on < dated)
    book.refuse(dayworkInvoices, row, refuse('credited-before-invoice', 'credited_on', { on: row.credited_on, dated }));
  if (row.credit_note && isNumber(row.credit_note))
    book.refuse(dayworkInvoices, row, refuse('invoice-named-as-number', 'credit_note', { reference: row.credit_note }));
}

/** Each invoice a cost names is one of its job that takes it, and all but the last are credited in full before the next. */
function checkTaken(book: BookCheck, costs: readonly CostOfBook[], invoices: ReadonlyMap<string, Invoice>): void {
  const judged = new Set<string>();
  for (const cost of costs) {
    // The pay and the burden of a line of time stand in one row.
    const place = `${cost.file.name} ${cost.row}`;
    if (cost.invoices.length === 0 || judged.has(place)) continue;
    judged.add(place);
    const fault = (message: string) => {
      book.fault(cost.file, cost, 'daywork_invoice', message);
      spoil(cost, invoices);
    };
    const refuseAt = (refusal: Refusal) => {
      book.refuse(cost.file, cost, { ...refusal, at: 'daywork_invoice' });
      spoil(cost, invoices);
    };
    cost.invoices.forEach((reference, i) => {
      const invoice = invoices.get(joinKey(cost.job, reference));
      if (!invoice) {
        if (!book.keysOf(dayworkInvoices).incomplete)
          fault(`unknown reference: job ${cost.job} has no daywork invoice ${reference}`);
        return;
      }
      if (invoice.row === null) return fault(`daywork invoice ${reference} is already in the database; its entries are there`);
      const next = invoices.get(joinKey(cost.job, cost.invoices[i + 1] ?? ''));
      const mark = markOf(cost.charging, isChargedJob(book, cost.job) ? 'charged' : 'fixed');
      const refusal = takeRefusal(
        { name: cost.name, dated: cost.dated, countsFrom: countsFrom(cost.postedOn, cost.charging.from), mark, takenBy: null },
        invoice.cutOff,
      );
      if (refusal) return refuseAt(refusal);
      const isLast = i === cost.invoices.length - 1;
      if (
        !isLast &&
        (invoice.creditedOn === null || (next && next.dated < invoice.creditedOn) || cost.invoices.indexOf(reference) !== i)
      )
        refuseAt(refuse('entry-taken', 'daywork_invoice', { entry: cost.name, invoice: reference }));
    });
  }
}

/** What the invoices of a cost ask for is not known. */
function spoil(cost: CostOfBook, invoices: ReadonlyMap<string, Invoice>): void {
  for (const it of cost.invoices) {
    const invoice = invoices.get(joinKey(cost.job, it));
    if (invoice) invoice.spoilt = true;
  }
}

/** What each invoice of the book asks for: what its entries are charged at. */
function addFigures(book: BookCheck, costs: readonly CostOfBook[], invoices: ReadonlyMap<string, Invoice>): void {
  const terms = termsOfBook(book);
  const digits = book.digits ?? MOST_DIGITS;
  const clients = clientsOf(book);
  const charges = new Map<string, number[]>();
  for (const cost of costs) {
    const { charge } = chargeOf({ ...cost, client: clients(cost.job), markup: cost.charging.markup }, terms, digits);
    for (const it of cost.invoices) {
      const key = joinKey(cost.job, it);
      const there = charges.get(key);
      if (there) there.push(charge);
      else charges.set(key, [charge]);
    }
  }
  for (const [key, invoice] of invoices) {
    if (invoice.row === null) continue;
    const posted = invoice.row.amount;
    const asked = typeof posted === 'number' ? [posted] : (charges.get(key) ?? []);
    const { amount, tax } = dayworkFigures(asked, taxRateOf(book, invoice.job));
    Object.assign(invoice, { amount, tax });
  }
}

function clientsOf(book: BookCheck): (job: string) => string {
  const own = new Map(book.rowsOf(jobs).map((it) => [it.job ?? '', it.customer ?? '']));
  return (job) => own.get(job) ?? String(book.there(jobs, job)?.customer ?? '');
}

function termsOfBook(book: BookCheck): ChargeTerms {
  const { rates, markups } = book.own(dayworkOfDatabase);
  const added = book.rowsOf(chargeRates).filter(isWhole);
  const marked = book.rowsOf(dayworkTerms).filter(isWhole);
  return {
    rates: new ChargeRates([
      ...rates,
      ...added.map((it) => ({
        from: it.from ?? '',
        job: it.job ?? '',
        client: it.customer ?? '',
        workKind: it.work_kind ?? '',
        employee: it.employee ?? '',
        wageClass: it.wage_class ?? '',
        rate: it.rate ?? 0,
      })),
    ]),
    markups: markupsByJob([
      ...markups,
      ...marked.map((it) => ({
        job: it.job ?? '',
        costType: present(it.cost_type ?? undefined),
        markup: it.markup_percent ?? 0,
      })),
    ]),
  };
}

/** On no day is more invoiced of a charged job than its ceiling. */
function checkCeilings(book: BookCheck, invoices: ReadonlyMap<string, Invoice>): void {
  const ceilings = ceilingsOf(book);
  for (const [job, of] of grouped([...invoices.values()], (it) => it.job)) {
    const ceiling = ceilings(job);
    if (ceiling === null || !isChargedJob(book, job) || of.some((it) => it.spoilt)) continue;
    const issued = of
      .filter((it) => it.issued)
      .toSorted((a, b) => (a.dated < b.dated ? -1 : a.dated > b.dated ? 1 : (a.row?.row ?? 0) - (b.row?.row ?? 0)));
    const credits = issued.flatMap((it) => it.credits.map((c) => ({ dated: c.dated, amount: -c.amount })));
    const before: MoneyReceived[] = [];
    for (const it of issued) {
      before.push({ dated: it.dated, amount: it.amount });
      const passed = it.row && passesCeiling([...before, ...credits], ceiling, it.dated);
      if (!passed || passed.on !== it.dated) continue;
      const digits = book.digits ?? MOST_DIGITS;
      book.fault(
        dayworkInvoices,
        present(it.row ?? undefined),
        'invoice',
        `by ${passed.on} ${formatCents(passed.total, digits)} would be invoiced, more than the ceiling of job ${job}, ${formatCents(ceiling, digits)}`,
      );
      before.pop();
    }
  }
}

function ceilingsOf(book: BookCheck): (job: string) => number | null {
  const own = new Map(book.rowsOf(jobs).map((it) => [it.job ?? '', it.charge_ceiling ?? null]));
  return (job) => {
    if (own.has(job)) return own.get(job) ?? null;
    const there = book.there(jobs, job)?.charge_ceiling;
    return typeof there === 'number' ? there : null;
  };
}

function checkMoney(book: BookCheck, invoices: ReadonlyMap<string, Invoice>, { receipts }: BesideDaywork): void {
  for (const [key, rows] of book.own(moneyOfBook)) {
    const invoice = invoices.get(key);
    if (!invoice) continue;
    if (!invoice.issued) {
      for (const { row } of rows)
        book.fault(receipts, row, 'dated', `daywork invoice ${invoice.reference} is a draft; only what is issued is paid`);
      continue;
    }
    if (invoice.spoilt) continue;
    checkReceived(
      book,
      receipts,
      {
        since: invoice.dated,
        payable: invoice.amount + invoice.tax,
        receipts: invoice.receipts,
        credits: creditsWithTax(invoice.credits),
      },
      rows,
    );
  }
}
