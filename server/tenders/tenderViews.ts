import { shape, t, type RowOf } from '../db/fields';
import type { RegisteredQuotation, TenderRow } from '../../wire/tenders';
import type { Reader } from '../db/sql';
import { estimateList } from '../estimates/estimateViews';
import { quotationList } from '../quotations/quotationList';

const JobRow = shape({ job: t.text, name: t.text, clientName: t.text, estimator: t.text });
type JobRow = RowOf<typeof JobRow>;

function jobs(sql: Reader, which: string): Promise<JobRow[]> {
  return sql.all(
    JobRow,
    `SELECT job.number AS job, job.name, c.name AS clientName, job.estimator FROM job JOIN client c ON c.id = job.client_id WHERE ${which} ORDER BY job.number`,
  );
}

/** Every tender with the estimate that is to be offered, and the quotation that was made last. */
export async function tenderList(sql: Reader): Promise<TenderRow[]> {
  const rows: TenderRow[] = [];
  for (const tender of await jobs(sql, `job.status = 'tender'`)) {
    const chosen = (await estimateList(sql, tender.job)).find((it) => it.chosen);
    const estimate =
      chosen && (({ number, name, status, price, marginRate }) => ({ number, name, status, price, marginRate }))(chosen);
    rows.push({ ...tender, estimate: estimate ?? null, quotation: (await quotationList(sql, tender.job)).at(-1) ?? null });
  }
  return rows;
}

/** The quotations of all jobs: drafts first, then by the day they were sent, newest first. */
export async function quotationRegister(sql: Reader): Promise<RegisteredQuotation[]> {
  const rows: RegisteredQuotation[] = [];
  for (const { job, name, clientName } of await jobs(sql, 'EXISTS (SELECT 1 FROM quotation WHERE job_id = job.id)'))
    rows.push(...(await quotationList(sql, job)).map((it) => ({ ...it, job, jobName: name, clientName })));
  const order = (it: RegisteredQuotation) => it.sentOn ?? '9';
  return rows.sort((a, b) => (order(a) < order(b) ? 1 : order(a) > order(b) ? -1 : 0));
}
