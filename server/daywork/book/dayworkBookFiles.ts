import { SHOWN_AS } from '../../../core/charging/dayworkInvoice';
import { bookFile } from '../../bookFormat/bookFile';
import { amount, date, integer, oneOf, REQUIRED, text } from '../../bookFormat/columns';
import { jobs } from '../../jobs/bookFiles';
import { saveDaywork } from './saveDaywork';

export const dayworkInvoices = bookFile({
  name: 'daywork_invoices',
  columns: {
    job: text(REQUIRED),
    invoice: text(REQUIRED, 'its reference, not a number; unique over all invoices of the job'),
    dated: date(REQUIRED),
    cut_off: date(REQUIRED),
    shown: oneOf(SHOWN_AS)('empty: entries'),
    status: oneOf(['draft', 'issued'])('empty: issued'),
    credited_on: date('in full'),
    credit_note: text('its reference'),
    invoice_number: integer(1, 999_999_999)('empty: the next of the series, once issued'),
    wording: text('above its lines; of one line alone, its words'),
    credit_reason: text(),
    amount: amount('before tax, as it was posted; of one credited in full whose entries are charged otherwise since'),
  },
  key: ['job', 'invoice'],
  called: 'daywork invoice',
  takenBy: 'unlocked',
  refers: { job: { to: jobs } },
  query: `SELECT d.id, j.number AS job, d.reference AS invoice, d.dated, d.cut_off, nullif(d.shown, 'entries') AS shown, nullif(d.status, 'issued') AS status,
      c.dated AS credited_on, c.credit_note, i.number AS invoice_number, d.wording, c.reason AS credit_reason,
      CASE WHEN c.id IS NOT NULL THEN nullif(d.amount, (SELECT coalesce(sum(m.charge), 0) FROM daywork_line x JOIN charge_mark m ON m.cost_entry_id = x.cost_entry_id
        WHERE x.daywork_invoice_id = d.id)) END AS amount
    FROM daywork_invoice d JOIN job j ON j.id = d.job_id LEFT JOIN invoice i ON i.posting_id = d.posting_id
    LEFT JOIN invoice_credit c ON c.invoice_id = i.id AND c.in_full = 1`,
  countsOn: ({ status, dated, credited_on }) => (status === 'draft' ? {} : { dated, credited_on }),
  finish: (into): Promise<void> => saveDaywork(into, { dayworkInvoices, dayworkCredits }),
});

export const dayworkCredits = bookFile({
  name: 'daywork_credits',
  columns: {
    job: text(REQUIRED),
    invoice: text(REQUIRED),
    credit_note: text(REQUIRED, 'its reference, not a number'),
    dated: date(REQUIRED),
    amount: amount(REQUIRED, 'before tax, above 0'),
    reason: text(),
  },
  key: ['job', 'credit_note'],
  called: 'credit note',
  takenBy: 'unlocked',
  refers: { job: { to: jobs }, invoice: { to: dayworkInvoices, by: ['job', 'invoice'] } },
  query: `SELECT c.id, j.number AS job, i.reference AS invoice, c.credit_note, c.dated, c.amount, c.reason
    FROM invoice_credit c JOIN invoice i ON i.id = c.invoice_id JOIN job j ON j.id = c.job_id WHERE c.in_full = 0`,
  countsOn: ({ dated }) => ({ dated }),
});
