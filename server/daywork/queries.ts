import { CHARGE_MARKS } from '../../core/charging/chargeMark';
import { SHOWN_AS } from '../../core/charging/dayworkInvoice';
import { PRICINGS } from '../../core/charging/pricing';
import { COST_TYPES } from '../../core/costs/costType';
import { shape, t } from '../db/fields';
import { query } from '../db/query';

/** Daywork invoices with what they ask for; `invoice`: null for a draft. */
export const DAYWORK_INVOICES = query(
  shape({
    id: t.whole,
    invoice: t.orNull(t.whole),
    job: t.text,
    reference: t.text,
    dated: t.day,
    cutOff: t.day,
    status: t.oneOf('draft', 'issued'),
    amount: t.cents,
    tax: t.cents,
  }),
  `SELECT d.id, i.id AS invoice, j.number AS job, d.reference, d.dated, d.cut_off AS cutOff, d.status, d.amount, d.tax
    FROM daywork_invoice d JOIN job j ON j.id = d.job_id LEFT JOIN invoice i ON i.posting_id = d.posting_id ORDER BY d.dated, d.id`,
);

/** Credit notes of all invoices, the oldest first. */
export const CREDITS_OF_INVOICES = query(
  shape({ invoice: t.whole, creditNote: t.text, dated: t.day, amount: t.cents, tax: t.cents, inFull: t.flag }),
  `SELECT invoice_id AS invoice, credit_note AS creditNote, dated, amount, tax, in_full AS inFull FROM invoice_credit ORDER BY dated, id`,
);

/** Entries of job `$1` that are charged or held by `$2`; `invoice`: issued by then and not credited in full. */
export const DAYWORK_ENTRIES = query(
  shape({
    id: t.whole,
    dated: t.day,
    source: t.oneOf('cost', 'time'),
    reference: t.text,
    costType: t.oneOf(...COST_TYPES),
    cost: t.cents,
    charge: t.cents,
    mark: t.oneOf(...CHARGE_MARKS),
    invoice: t.orNull(t.text),
  }),
  `SELECT e.id, e.dated, CASE WHEN e.time_line_id IS NULL THEN 'cost' ELSE 'time' END AS source, e.reference, l.cost_type AS costType,
      e.amount AS cost, m.charge, m.mark,
      (SELECT d.reference FROM daywork_line x JOIN daywork_invoice d ON d.id = x.daywork_invoice_id JOIN invoice i ON i.posting_id = d.posting_id
        WHERE x.cost_entry_id = e.id AND d.dated <= $2
          AND NOT EXISTS (SELECT 1 FROM invoice_credit c WHERE c.invoice_id = i.id AND c.in_full = 1 AND c.dated <= $2)
        ORDER BY d.dated DESC, d.id DESC LIMIT 1) AS invoice
    FROM charge_mark m JOIN cost_entry e ON e.id = m.cost_entry_id JOIN cost_line l ON l.id = e.cost_line_id
    WHERE m.job_id = $1 AND m.mark <> 'no' AND m.counts_from <= $2 ORDER BY e.id`,
);

/** What is charged or waits on jobs and is on no issued invoice by `$1`; of job `$2` or, where that is null, of all. */
export const UNBILLED_JOBS = query(
  shape({
    job: t.text,
    jobName: t.text,
    status: t.text,
    locked: t.flag,
    client: t.text,
    clientName: t.text,
    pricing: t.oneOf(...PRICINGS),
    ceiling: t.orNull(t.cents),
    entries: t.whole,
    cost: t.cents,
    charge: t.cents,
    heldEntries: t.whole,
    heldCharge: t.cents,
    oldest: t.orNull(t.day),
    charged: t.cents,
    invoiced: t.cents,
  }),
  `WITH taken AS MATERIALIZED (SELECT DISTINCT x.cost_entry_id AS id FROM daywork_line x JOIN daywork_invoice d ON d.id = x.daywork_invoice_id
      LEFT JOIN invoice i ON i.posting_id = d.posting_id
      WHERE d.dated <= $1 AND NOT EXISTS (SELECT 1 FROM invoice_credit c WHERE c.invoice_id = i.id AND c.in_full = 1 AND c.dated <= $1)),
    open AS (SELECT m.job_id, sum(m.mark = 'yes' AND taken.id IS NULL AND (e.time_line_id IS NULL OR e.hours IS NOT NULL)) AS entries,
        sum(CASE WHEN m.mark = 'yes' AND taken.id IS NULL THEN e.amount ELSE 0 END) AS cost,
        sum(CASE WHEN m.mark = 'yes' AND taken.id IS NULL THEN m.charge ELSE 0 END) AS charge,
        sum(m.mark = 'hold' AND (e.time_line_id IS NULL OR e.hours IS NOT NULL)) AS heldEntries, sum(CASE WHEN m.mark = 'hold' THEN m.charge ELSE 0 END) AS heldCharge,
        min(CASE WHEN m.mark = 'yes' AND taken.id IS NULL THEN m.counts_from END) AS oldest,
        sum(CASE WHEN m.mark = 'yes' THEN m.charge ELSE 0 END) AS charged
      FROM charge_mark m JOIN cost_entry e ON e.id = m.cost_entry_id LEFT JOIN taken ON taken.id = m.cost_entry_id
      WHERE m.mark <> 'no' AND m.counts_from <= $1 AND ($2 IS NULL OR m.job_id = $2) GROUP BY m.job_id)
  SELECT j.number AS job, j.name AS jobName, j.status, j.locked, c.code AS client, c.name AS clientName, j.pricing, j.charge_ceiling AS ceiling,
      coalesce(open.entries, 0) AS entries, coalesce(open.cost, 0) AS cost, coalesce(open.charge, 0) AS charge,
      coalesce(open.heldEntries, 0) AS heldEntries, coalesce(open.heldCharge, 0) AS heldCharge, open.oldest, coalesce(open.charged, 0) AS charged,
      coalesce((SELECT sum(d.amount) FROM daywork_invoice d JOIN invoice i ON i.posting_id = d.posting_id WHERE d.job_id = j.id AND d.dated <= $1), 0)
        - coalesce((SELECT sum(x.amount) FROM invoice_credit x JOIN invoice i ON i.id = x.invoice_id WHERE x.job_id = j.id AND i.kind = 'daywork' AND x.dated <= $1), 0) AS invoiced
    FROM job j JOIN client c ON c.id = j.client_id LEFT JOIN open ON open.job_id = j.id
    WHERE ($2 IS NULL AND (open.entries > 0 OR open.heldEntries > 0)) OR j.id = $2 ORDER BY c.name, j.number`,
);

/** Daywork invoices of job `$1` dated by `$2`, with what was credited and received by then. */
export const DAYWORK_OF_JOB = query(
  shape({
    reference: t.text,
    number: t.orNull(t.whole),
    dated: t.day,
    dueOn: t.orNull(t.day),
    status: t.oneOf('draft', 'issued'),
    amount: t.cents,
    tax: t.cents,
    credited: t.cents,
    creditedInFull: t.flag,
    received: t.cents,
  }),
  `SELECT d.reference, i.number, d.dated, i.due_on AS dueOn, d.status, d.amount, d.tax,
      coalesce((SELECT sum(amount + tax) FROM invoice_credit WHERE invoice_id = i.id AND dated <= $2), 0) AS credited,
      EXISTS (SELECT 1 FROM invoice_credit WHERE invoice_id = i.id AND in_full = 1 AND dated <= $2) AS creditedInFull,
      coalesce((SELECT sum(amount) FROM receipt WHERE invoice_id = i.id AND dated <= $2), 0) AS received
    FROM daywork_invoice d LEFT JOIN invoice i ON i.posting_id = d.posting_id WHERE d.job_id = $1 AND d.dated <= $2 ORDER BY d.dated, d.id`,
);

const OF_JOBS = 'IN (SELECT value FROM json_each($1))';

/** References of documents of the jobs in the JSON list `$1`. */
export const REFERENCES_OF_JOBS = query(
  shape({ jobId: t.whole, reference: t.text }),
  `SELECT job_id AS jobId, reference FROM invoice WHERE job_id ${OF_JOBS} UNION SELECT job_id, reference FROM daywork_invoice WHERE job_id ${OF_JOBS}
    UNION SELECT job_id, credit_note FROM invoice_credit WHERE job_id ${OF_JOBS}`,
);

/** What was invoiced of the jobs in the JSON list `$1`, credits below zero, each on its day. */
export const INVOICED_OF_JOBS = query(
  shape({ jobId: t.whole, dated: t.day, amount: t.cents }),
  `SELECT d.job_id AS jobId, d.dated, d.amount FROM daywork_invoice d WHERE d.job_id ${OF_JOBS} AND d.status = 'issued'
    UNION ALL SELECT c.job_id, c.dated, -c.amount FROM invoice_credit c JOIN invoice i ON i.id = c.invoice_id WHERE c.job_id ${OF_JOBS} AND i.kind = 'daywork'`,
);

/** The daywork invoice of job `$1` under reference `$2`. */
export const DAYWORK_INVOICE = query(
  shape({
    id: t.whole,
    reference: t.text,
    dated: t.day,
    cutOff: t.day,
    shown: t.oneOf(...SHOWN_AS),
    status: t.oneOf('draft', 'issued'),
    wording: t.text,
    amount: t.cents,
    tax: t.cents,
    postingId: t.orNull(t.whole),
    invoiceId: t.orNull(t.whole),
    number: t.orNull(t.whole),
    dueOn: t.orNull(t.day),
  }),
  `SELECT d.id, d.reference, d.dated, d.cut_off AS cutOff, d.shown, d.status, d.wording, d.amount, d.tax, d.posting_id AS postingId, i.id AS invoiceId,
      i.number, i.due_on AS dueOn FROM daywork_invoice d LEFT JOIN invoice i ON i.posting_id = d.posting_id WHERE d.job_id = $1 AND d.reference = $2`,
);

/** The entries of daywork invoice `$1`, at the charge it was issued with. */
export const LINES_OF_DAYWORK = query(
  shape({
    id: t.whole,
    dated: t.day,
    reference: t.text,
    party: t.text,
    description: t.text,
    wording: t.text,
    codeName: t.text,
    costType: t.oneOf(...COST_TYPES),
    hours: t.orNull(t.hours),
    timeLine: t.orNull(t.whole),
    cost: t.cents,
    charge: t.cents,
    postingId: t.whole,
  }),
  `SELECT e.id, e.dated, e.reference, e.party, e.description, coalesce(m.wording, '') AS wording, c.description AS codeName, l.cost_type AS costType,
      e.hours, e.time_line_id AS timeLine, e.amount AS cost, x.charge, e.posting_id AS postingId
    FROM daywork_line x JOIN cost_entry e ON e.id = x.cost_entry_id JOIN cost_line l ON l.id = e.cost_line_id JOIN cost_code c ON c.id = l.cost_code_id
    LEFT JOIN charge_mark m ON m.cost_entry_id = e.id WHERE x.daywork_invoice_id = $1 ORDER BY e.dated, e.id`,
);

/** Credit notes of invoice `$1`. */
export const CREDITS_OF_INVOICE = query(
  shape({ creditNote: t.text, dated: t.day, amount: t.cents, tax: t.cents, inFull: t.flag, reason: t.text, postingId: t.whole }),
  `SELECT credit_note AS creditNote, dated, amount, tax, in_full AS inFull, reason, posting_id AS postingId FROM invoice_credit WHERE invoice_id = $1 ORDER BY dated, id`,
);

/** The tax rate, terms, award and ceiling of the jobs whose numbers are in the JSON list `$1`. */
export const JOBS_TO_INVOICE = query(
  shape({
    id: t.whole,
    number: t.text,
    name: t.text,
    status: t.text,
    locked: t.flag,
    client: t.text,
    clientName: t.text,
    awardedOn: t.orNull(t.day),
    taxRate: t.rate,
    termsDays: t.orNull(t.whole),
    pricing: t.oneOf(...PRICINGS),
    ceiling: t.orNull(t.cents),
  }),
  `SELECT j.id, j.number, j.name, j.status, j.locked, c.code AS client, c.name AS clientName, j.awarded_on AS awardedOn, j.tax_rate AS taxRate,
      coalesce(j.terms_days, c.terms_days) AS termsDays, j.pricing, j.charge_ceiling AS ceiling
    FROM job j JOIN client c ON c.id = j.client_id WHERE j.number IN (SELECT value FROM json_each($1))`,
);
