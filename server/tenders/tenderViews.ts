import { TENDERS, JOBS_WITH_QUOTATIONS } from './queries';
import type { RegisteredQuotation, TenderRow } from '../../wire/tenders';
import type { Reader } from '../db/sql';
import { estimateList } from '../estimates/estimateViews';
import { quotationList } from '../offers/quotationList';

/** Every tender with the estimate that is to be offered, and the quotation that was made last. */
export async function tenderList(sql: Reader): Promise<TenderRow[]> {
  const rows: TenderRow[] = [];
  for (const tender of await sql.all(TENDERS)) {
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
  for (const { job, name, clientName } of await sql.all(JOBS_WITH_QUOTATIONS))
    rows.push(...(await quotationList(sql, job)).map((it) => ({ ...it, job, jobName: name, clientName })));
  const order = (it: RegisteredQuotation) => it.sentOn ?? '9';
  return rows.sort((a, b) => (order(a) < order(b) ? 1 : order(a) > order(b) ? -1 : 0));
}
