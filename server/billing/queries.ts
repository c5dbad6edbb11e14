import type { Application } from '../../core/billing/application';
import { JobTable, SovLineTable } from '../jobs/models';
import { InvoiceTable, RetentionReleaseTable } from './models';
import type { ApplicationRow } from '../../wire/billing';
import { query } from '../db/query';
import { shape, t, pick, listed } from '../db/fields';

export const PARTIES = query(
  shape({ client_name: t.text, client_address: t.text, contract_reference: t.text, site: t.text }),
  'SELECT c.name AS client_name, c.address AS client_address, job.contract_reference, job.site FROM job JOIN client c ON c.id = job.client_id WHERE job.id = $1',
);

export const INVOICE_NUMBER = query(
  shape({ number: t.whole, dueOn: t.day }),
  `SELECT number, due_on AS dueOn FROM invoice WHERE job_id = $1 AND reference = $2 AND kind = 'application'`,
);

/** Certifications of application `$2` of job `$1` that were reversed, the oldest first. */
export const REVERSED_CERTIFICATIONS = query(
  shape({ certifiedOn: t.day, reason: t.text, postingId: t.whole }),
  `SELECT p.posted_on AS certifiedOn, r.note AS reason, r.id AS postingId FROM posting p JOIN posting r ON r.reverses_id = p.id
    WHERE p.job_id = $1 AND p.reference = $2 AND p.kind = 'application' ORDER BY p.id`,
);

/** Change orders of a job approved by a date, with their prices. */
export const APPROVED_CHANGES = query(
  shape({ number: t.text, title: t.text, decidedOn: t.day, amount: t.cents }),
  `SELECT number, title, decided_on AS decidedOn, sum(amount) AS amount FROM approved_change_line
    WHERE job_id = $1 AND decided_on <= $2 AND side = 'price' GROUP BY change_order_id ORDER BY decided_on, change_order_id`,
);

export const RECEIPTS_OF_INVOICE = query(
  shape({ dated: t.day, amount: t.cents, reference: t.text, postingId: t.whole }),
  `SELECT r.dated, r.amount, r.reference, r.posting_id AS postingId FROM receipt r JOIN invoice i ON i.id = r.invoice_id
        WHERE i.job_id = $1 AND i.reference = $2 ORDER BY r.dated, r.id`,
);

export const APPLICATION_VERSION = query(
  shape({ version: t.whole, savedBy: t.text, savedAt: t.moment }),
  'SELECT version, saved_by AS savedBy, saved_at AS savedAt FROM application WHERE id = $1',
);

export const LAST_APPLICATION_BY_JOB = query(
  shape({ job_id: t.whole, number: t.whole, dated: t.day }),
  'SELECT job_id, number, max(dated) AS dated FROM application WHERE dated <= $1 GROUP BY job_id',
);

export const RECEIPTS_BY_JOB_AND_INVOICE = query(
  shape({ job: t.text, invoice: t.text, dated: t.day, amount: t.cents }),
  `SELECT job.number AS job, i.reference AS invoice, r.dated, r.amount FROM receipt r JOIN job ON job.id = r.job_id
        JOIN invoice i ON i.id = r.invoice_id ORDER BY r.id`,
);

export const RECEIVED_BY_INVOICE = query(
  shape({ key: t.text, amount: t.cents }),
  `SELECT i.job_id || '/' || i.reference AS key, sum(r.amount) AS amount FROM receipt r JOIN invoice i ON i.id = r.invoice_id WHERE r.dated <= $1 GROUP BY i.id`,
);

export const RELEASES_OF_JOB = query(
  shape({
    reference: t.text,
    amount: t.cents,
    dated: t.day,
    tax: t.cents,
    received: t.cents,
    postingId: t.whole,
    dueOn: t.day,
  }),
  `SELECT r.reference, r.dated, r.amount, r.tax, r.posting_id AS postingId, i.due_on AS dueOn,
        coalesce((SELECT sum(amount) FROM receipt WHERE invoice_id = i.id AND dated <= $2), 0) AS received
        FROM retention_release r JOIN invoice i ON i.posting_id = r.posting_id WHERE r.job_id = $1 AND r.dated <= $2 ORDER BY r.dated, r.id`,
);

/** The largest number given to an invoice so far; 0 where there is none. */
export const LAST_INVOICE_NUMBER = query(
  shape({ last: t.whole }),
  `SELECT max(coalesce((SELECT max(number) FROM invoice), 0), coalesce((SELECT max(invoice_number) FROM application), 0)) AS last`,
);

export const INVOICE_BY_REFERENCE = query(
  shape({ id: t.whole, since: t.day, payable: t.cents }),
  'SELECT id, posted_on AS since, payable FROM invoice WHERE job_id = $1 AND reference = $2',
);

/** What credit notes take off invoice `$1`, with tax. */
export const CREDITS_ON_INVOICE = query(
  shape({ dated: t.day, amount: t.cents }),
  'SELECT dated, amount + tax AS amount FROM invoice_credit WHERE invoice_id = $1 ORDER BY dated, id',
);

/** What was received on invoice `$1`, refunds and reversals among it. */
export const RECEIVED_ON_INVOICE = query(
  shape({ dated: t.day, amount: t.cents }),
  'SELECT dated, amount FROM receipt WHERE invoice_id = $1 ORDER BY dated, id',
);

/** Certified applications carry their figures; those not yet certified by the date are valued afresh. */
export const REGISTER = query(
  shape({
    job_id: t.whole,
    job: t.text,
    name: t.text,
    client: t.text,
    number: t.whole,
    dated: t.day,
    status: t.oneOf<ApplicationRow['status']>(),
    certified_on: t.orNull(t.day),
    gross: t.orNull(t.cents),
    retention: t.orNull(t.cents),
    due: t.orNull(t.cents),
    tax: t.orNull(t.cents),
    received: t.cents,
    due_on: t.orNull(t.day),
  }),
  `SELECT a.job_id, job.number AS job, job.name, c.code AS client, a.number, a.dated, a.status, a.certified_on, a.gross, a.retention, a.due, a.tax, i.due_on,
  coalesce((SELECT sum(amount) FROM receipt WHERE invoice_id = i.id AND dated <= $1), 0) AS received
  FROM application a JOIN job ON job.id = a.job_id JOIN client c ON c.id = job.client_id LEFT JOIN invoice i ON i.posting_id = a.posting_id
  WHERE a.dated <= $1 AND (a.status <> 'certified' OR a.certified_on > $1 OR a.dated >= $2 OR a.due + a.tax <> coalesce((SELECT sum(amount) FROM receipt WHERE invoice_id = i.id AND dated <= $1), 0))
  ORDER BY job.number, a.number`,
);

/** Releases of retention and daywork invoices by `$1` that are not paid, or are of the month that begins on `$2`. */
export const OTHER_INVOICES = query(
  shape({
    kind: t.oneOf('release', 'daywork'),
    job: t.text,
    jobName: t.text,
    client: t.text,
    reference: t.text,
    dated: t.day,
    amount: t.cents,
    payable: t.cents,
    received: t.cents,
    dueOn: t.day,
  }),
  `SELECT * FROM (SELECT i.kind, job.number AS job, job.name AS jobName, c.code AS client, i.reference, i.dated,
      coalesce((SELECT amount FROM retention_release WHERE posting_id = i.posting_id), (SELECT amount FROM daywork_invoice WHERE posting_id = i.posting_id), 0) AS amount,
      i.payable - coalesce((SELECT sum(amount + tax) FROM invoice_credit WHERE invoice_id = i.id AND dated <= $1), 0) AS payable,
      coalesce((SELECT sum(amount) FROM receipt WHERE invoice_id = i.id AND dated <= $1), 0) AS received, i.due_on AS dueOn
    FROM invoice i JOIN job ON job.id = i.job_id JOIN client c ON c.id = job.client_id
    WHERE i.kind <> 'application' AND i.posted_on <= $1) WHERE payable <> received OR dated >= $2 ORDER BY job, dated, reference`,
);

const InvoiceRow = shape({
  ...pick(InvoiceTable, 'kind', 'dated', 'due_on', 'payable').fields,
  client: t.text,
  job: t.text,
  invoice: t.text,
  received: t.cents,
  held: t.cents,
});

/** Invoices with something open or held as of `$1`; of one job or of all. */
export const openInvoices = (jobId: number | null) =>
  query(
    InvoiceRow,
    `WITH last AS (SELECT job_id, max(number) AS number FROM certified_application WHERE certified_on <= $1 GROUP BY job_id),
  released AS (SELECT job_id, sum(amount) AS amount FROM retention_release WHERE dated <= $1 GROUP BY job_id),
  held AS (SELECT a.posting_id, a.retention - coalesce(released.amount, 0) AS amount
    FROM certified_application a JOIN last ON last.job_id = a.job_id AND last.number = a.number LEFT JOIN released ON released.job_id = a.job_id),
  state AS (SELECT i.*, i.payable - coalesce((SELECT sum(amount + tax) FROM invoice_credit WHERE invoice_id = i.id AND dated <= $1), 0) AS asked,
    coalesce((SELECT sum(amount) FROM receipt WHERE invoice_id = i.id AND dated <= $1), 0) AS received, coalesce(held.amount, 0) AS held
    FROM invoice i LEFT JOIN held ON held.posting_id = i.posting_id WHERE i.posted_on <= $1 ${jobId === null ? '' : `AND i.job_id = ${Number(jobId)}`})
  SELECT c.code AS client, job.number AS job, i.reference AS invoice, i.kind, i.dated, i.due_on, i.asked AS payable, i.received, i.held
    FROM state i JOIN job ON job.id = i.job_id JOIN client c ON c.id = job.client_id WHERE i.asked <> i.received OR i.held <> 0`,
  );

export const RetentionRow = pick(
  JobTable,
  ...(['retention_rate', 'retention_materials_rate', 'retention_step_at', 'retention_step_to'] as const),
  ...(['retention_step_applies', 'retention_cap'] as const),
);
const JobFacts = pick(JobTable, 'id', 'number', 'name', 'status', 'awarded_on', 'locked', 'tax_rate', 'pricing');
const BillingJobRow = shape({
  ...JobFacts.fields,
  ...RetentionRow.fields,
  client: t.text,
  terms_days: t.orNull(t.whole),
  never_certifies: t.flag,
});

/* Those below are of the jobs whose ids are in the list `$1`. */

export const BILLING_JOBS = query(
  BillingJobRow,
  `SELECT ${listed(JobFacts, 'job')}, ${listed(RetentionRow, 'job')}, c.code AS client, coalesce(job.terms_days, c.terms_days) AS terms_days, c.never_certifies FROM job JOIN client c ON c.id = job.client_id WHERE job.id IN (SELECT value FROM json_each($1)) ORDER BY job.number`,
);

export const SCHEDULES = query(
  SovLineTable,
  `SELECT s.* FROM sov_line s JOIN job ON job.id = s.job_id WHERE job.id IN (SELECT value FROM json_each($1)) ORDER BY s.job_id, s.original DESC, s.position`,
);

export const PRICE_CHANGES = query(
  shape({ job_id: t.whole, number: t.text, line: t.text, amount: t.cents, decided_on: t.day }),
  `SELECT o.job_id, o.number, s.line, l.amount, o.decided_on FROM change_order_line l JOIN change_order o ON o.id = l.change_order_id
      JOIN sov_line s ON s.id = l.sov_line_id JOIN job ON job.id = o.job_id WHERE job.id IN (SELECT value FROM json_each($1)) AND l.side = 'price' AND o.status = 'approved' ORDER BY l.id`,
);

export const APPLICATIONS = query(
  shape({
    id: t.whole,
    job_id: t.whole,
    number: t.whole,
    dated: t.day,
    status: t.oneOf<Application['status']>(),
    certified_on: t.orNull(t.day),
    reference: t.text,
    above: t.cents,
    lines: t.text,
  }),
  `SELECT a.id, a.job_id, a.number, a.dated, a.status, a.certified_on, a.reference, a.above_scheduled AS above,
      (SELECT json_group_array(json_array(s.line, l.work, l.materials, l.certified_work, l.certified_materials))
        FROM application_line l JOIN sov_line s ON s.id = l.sov_line_id WHERE l.application_id = a.id) AS lines
      FROM application a JOIN job ON job.id = a.job_id WHERE job.id IN (SELECT value FROM json_each($1)) ORDER BY a.job_id, a.number`,
);

export const RELEASES = query(
  RetentionReleaseTable,
  `SELECT r.* FROM retention_release r JOIN job ON job.id = r.job_id WHERE job.id IN (SELECT value FROM json_each($1)) ORDER BY r.dated, r.id`,
);

export const INSTALMENTS = query(
  shape({
    amount: t.orNull(t.cents),
    rate: t.orNull(t.rate),
    name: t.text,
    due: t.oneOf<'day' | 'start' | 'finish'>(),
    day: t.orNull(t.text),
    days: t.whole,
    from: t.oneOf<'stages' | 'job'>(),
    stages: t.text,
  }),
  `SELECT name, due, day, days, taken_from AS "from", rate, amount,
      (SELECT json_group_array(section ORDER BY id) FROM instalment_stage WHERE instalment_id = i.id) AS stages
      FROM instalment i WHERE job_id = $1 ORDER BY number`,
);

export const SCHEDULED_JOBS = query(shape({ id: t.whole }), 'SELECT DISTINCT job_id AS id FROM instalment');

/** A document of job `$1` under reference `$2`. */
export const REFERENCE_OF_JOB = query(
  shape({ reference: t.text }),
  `SELECT reference FROM invoice WHERE job_id = $1 AND reference = $2
    UNION SELECT reference FROM daywork_invoice WHERE job_id = $1 AND reference = $2
    UNION SELECT credit_note FROM invoice_credit WHERE job_id = $1 AND credit_note = $2`,
);
