import { PRESENTATIONS } from '../../core/offers/clientDocument';
import { amount, date, integer, oneOf, percent, REQUIRED, text, yesNo } from '../bookFormat/columns';
import { bookFile } from '../bookFormat/bookFile';
import { estimates } from '../estimates/bookFiles';
import { jobs } from '../jobs/bookFiles';
import { QuotationAlternateTable, QuotationPaymentTable, QuotationTable, TermsTextTable } from './models';

export const terms = bookFile({
  name: 'terms',
  columns: { name: text(REQUIRED), body: text(REQUIRED) },
  key: ['name'],
  called: 'text of terms',
  query: 'SELECT id, name, body FROM terms_text',
  save: (rows, into): Promise<void> =>
    into.insertAll(
      TermsTextTable,
      rows.map(({ name, body }) => ({ name, body })),
    ),
});

export const quotations = bookFile({
  name: 'quotations',
  columns: {
    job: text(REQUIRED),
    quotation: integer(1, 9999)(REQUIRED, '1, 2 …'),
    estimate: integer(1, 9999)(REQUIRED),
    title: text(REQUIRED),
    presentation: oneOf(PRESENTATIONS)(),
    quantities: yesNo(),
    unit_prices: yesNo(),
    contact: text(),
    email: text(),
    introduction: text(),
    exclusions: text('one a line'),
    terms: text(),
    valid_until: date(),
    status: oneOf(['draft', 'sent', 'accepted', 'declined'])(),
    sent_on: date('required once sent'),
    answered_on: date(),
    answered_by: text(),
  },
  key: ['job', 'quotation'],
  called: 'quotation',
  takenBy: 'tender',
  refers: { job: { to: jobs }, estimate: { to: estimates, by: ['job', 'estimate'] } },
  query: `SELECT q.id, j.number AS job, q.number AS quotation, e.number AS estimate, q.title, q.presentation, q.quantities, q.unit_prices, q.contact, q.email, q.introduction,
    q.exclusions, q.terms, q.valid_until, q.status, q.sent_on, q.answered_on, q.answered_by FROM quotation q JOIN job j ON j.id = q.job_id JOIN estimate e ON e.id = q.estimate_id`,
  check(row, book) {
    if (row.status && row.status !== 'draft' && row.sent_on === null) {
      const message = `missing required cell: a quotation that is ${row.status} needs the day it was sent`;
      book.fault(quotations, row, 'sent_on', message);
    }
    if (row.answered_on && row.sent_on && row.answered_on < row.sent_on)
      book.fault(quotations, row, 'answered_on', `${row.answered_on} is before sent_on, ${row.sent_on}`);
  },
  save: (rows, into): Promise<void> =>
    into.keyed(
      quotations,
      QuotationTable,
      rows,
      (row) => [row.job, row.quotation],
      (row) => ({
        job_id: into.id(jobs, row.job),
        number: row.quotation,
        estimate_id: into.id(estimates, row.job, row.estimate),
        title: row.title,
        presentation: row.presentation ?? 'lump-sum',
        quantities: row.quantities ? 1 : 0,
        unit_prices: row.unit_prices ? 1 : 0,
        contact: row.contact ?? '',
        email: row.email ?? '',
        introduction: row.introduction ?? '',
        exclusions: row.exclusions ?? '',
        terms: row.terms ?? '',
        valid_until: row.valid_until,
        status: row.status ?? 'draft',
        sent_on: row.sent_on,
        answered_on: row.answered_on,
        answered_by: row.answered_by ?? '',
        saved_by: into.actor.name,
        saved_at: into.actor.at,
      }),
    ),
});

const PART = {
  columns: { job: text(REQUIRED), quotation: integer(1, 9999)(REQUIRED) },
  refers: {
    job: { to: jobs },
    quotation: { to: quotations, by: ['job', 'quotation'], whole: 'an import brings quotations whole' },
  },
};

export const quotationAlternates = bookFile({
  name: 'quotation_alternates',
  columns: { ...PART.columns, name: text(REQUIRED), amount: amount(REQUIRED) },
  key: [],
  takenBy: 'tender',
  refers: PART.refers,
  query: `SELECT a.id, j.number AS job, q.number AS quotation, a.name, a.amount
    FROM quotation_alternate a JOIN quotation q ON q.id = a.quotation_id JOIN job j ON j.id = q.job_id`,
  save: (rows, into): Promise<void> =>
    into.insertAll(
      QuotationAlternateTable,
      rows.map((row) => ({ quotation_id: into.id(quotations, row.job, row.quotation), name: row.name, amount: row.amount })),
    ),
});

export const quotationPayments = bookFile({
  name: 'quotation_payments',
  columns: {
    ...PART.columns,
    name: text(REQUIRED),
    percent: percent('or amount'),
    amount: amount(),
    due_on: date(),
    stage: text(),
  },
  key: [],
  takenBy: 'tender',
  refers: PART.refers,
  query: `SELECT p.id, j.number AS job, q.number AS quotation, p.name, p.rate AS percent, p.amount, p.due_on, p.stage
    FROM quotation_payment p JOIN quotation q ON q.id = p.quotation_id JOIN job j ON j.id = q.job_id`,
  check(row, book) {
    if (row.percent !== undefined && row.amount !== undefined && (row.percent === null) === (row.amount === null))
      book.fault(quotationPayments, row, 'percent', 'enter a percentage or an amount, not both');
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      QuotationPaymentTable,
      rows.map((row) => ({
        quotation_id: into.id(quotations, row.job, row.quotation),
        name: row.name,
        rate: row.percent,
        amount: row.amount,
        due_on: row.due_on,
        stage: row.stage ?? '',
      })),
    ),
});
