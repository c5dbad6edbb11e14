import { shape, t, type RowOf } from '../db/fields';
import { ageInvoices, USUAL_TERMS_DAYS, type AgedInvoice, type OpenInvoice } from '../../core/billing/ageing';
import type { PlainDate } from '../../core/calendar/plainDate';
import type { Reader } from '../db/sql';

const InvoiceRow = shape({
  client: t.text,
  job: t.text,
  invoice: t.text,
  kind: t.oneOf<OpenInvoice['kind']>(),
  dated: t.day,
  terms_from: t.text,
  terms: t.orNull(t.whole),
  payable: t.whole,
  received: t.cents,
  held: t.cents,
});
type InvoiceRow = RowOf<typeof InvoiceRow>;

const INVOICES = `WITH terms AS (SELECT job.id, job.number, c.code AS client, coalesce(job.terms_days, c.terms_days) AS days FROM job JOIN client c ON c.id = job.client_id),
  last AS (SELECT job_id, max(number) AS number FROM application WHERE status = 'certified' AND certified_on <= $1 GROUP BY job_id),
  released AS (SELECT job_id, sum(amount) AS amount FROM retention_release WHERE dated <= $1 GROUP BY job_id),
  invoice AS (
    SELECT a.job_id, CAST(a.number AS TEXT) AS invoice, 'application' AS kind, a.dated, a.certified_on AS terms_from, a.due + a.tax AS payable,
      coalesce((SELECT sum(amount) FROM receipt WHERE application_id = a.id AND dated <= $1), 0) AS received,
      CASE WHEN a.number = last.number THEN a.retention - coalesce(released.amount, 0) ELSE 0 END AS held
      FROM application a JOIN last ON last.job_id = a.job_id LEFT JOIN released ON released.job_id = a.job_id
      WHERE a.status = 'certified' AND a.certified_on <= $1 $JOB
    UNION ALL
    SELECT a.job_id, a.reference, 'release', a.dated, a.dated, a.amount + a.tax, coalesce((SELECT sum(amount) FROM receipt WHERE release_id = a.id AND dated <= $1), 0), 0
      FROM retention_release a WHERE a.dated <= $1 $JOB)
  SELECT t.client, t.number AS job, i.invoice, i.kind, i.dated, i.terms_from, t.days AS terms, i.payable, i.received, i.held
    FROM invoice i JOIN terms t ON t.id = i.job_id WHERE i.payable <> i.received OR i.held <> 0`;

/** Every invoice with something open or held as of `asOf`, aged; of one job or of all. */
export async function agedInvoices(sql: Reader, asOf: PlainDate, jobId: number | null): Promise<AgedInvoice[]> {
  const rows = await sql.all(InvoiceRow, INVOICES.replaceAll('$JOB', jobId === null ? '' : `AND a.job_id = ${Number(jobId)}`), [
    asOf,
  ]);
  const invoices = rows.map((row): OpenInvoice => ({
    client: row.client,
    job: row.job,
    invoice: row.invoice,
    kind: row.kind,
    dated: row.dated,
    termsFrom: row.terms_from,
    termsDays: row.terms ?? USUAL_TERMS_DAYS,
    payable: row.payable,
    received: row.received,
    retentionHeld: row.held,
  }));
  return ageInvoices(invoices, asOf);
}
