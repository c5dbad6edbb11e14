import { QUOTATIONS, TERMS_TEXTS } from './queries';
import type { ClientDocument } from '../../core/offers/clientDocument';
import type { QuotationStatus } from '../../core/offers/quotationLife';
import type { MovingQuotation } from '../../core/offers/quotationRefusals';
import { LedrinError } from '../../core/errors/ledrinError';
import type { QuotationInput, QuotationSummary } from '../../wire/quotations';
import type { Reader } from '../db/sql';
import { quotationDocument } from './clientDocuments';
import { jobByNumber, type JobIdentity } from '../jobs/jobByNumber';

/** A quotation as the books hold it. */
export interface LoadedQuotation extends QuotationInput {
  id: number;
  number: number;
  status: QuotationStatus;
  sentOn: string | null;
  answeredOn: string | null;
  answeredBy: string;
  savedBy: string;
  savedAt: string;
}

/** The quotations of a job, in the order they were made. */
export async function loadQuotations(sql: Reader, job: string): Promise<LoadedQuotation[]> {
  const { id } = await jobByNumber(sql, job, 'job');
  const rows = await sql.all(QUOTATIONS, [id]);
  return rows.map((row) => ({
    ...row,
    quantities: row.quantities === 1,
    unitPrices: row.unitPrices === 1,
    alternates: JSON.parse(row.alternates) as QuotationInput['alternates'],
    payments: JSON.parse(row.payments) as QuotationInput['payments'],
  }));
}

export async function loadQuotation(sql: Reader, job: string, number: number): Promise<LoadedQuotation> {
  const found = (await loadQuotations(sql, job)).find((it) => it.number === number);
  if (!found) throw new LedrinError('not-found', `Job ${job} has no quotation ${number}`);
  return found;
}

/** What the moves of a quotation depend on. `document`: what the client reads; `difference`: what its payments leave of the price. */
export function movingQuotation(
  job: Pick<JobIdentity, 'number' | 'status'>,
  { number, status, estimate }: LoadedQuotation,
  { lines, total }: Pick<ClientDocument, 'lines' | 'total'>,
  difference: number,
): MovingQuotation {
  return { number, status, job, estimate, hasLines: lines.length > 0, difference, total };
}

export async function quotationList(sql: Reader, job: string): Promise<QuotationSummary[]> {
  const list: QuotationSummary[] = [];
  for (const it of await loadQuotations(sql, job)) {
    const { document } = await quotationDocument(sql, job, it.number, it.sentOn ?? '', it);
    const { number, title, estimate, status, validUntil, sentOn, answeredOn, answeredBy } = it;
    list.push({ number, title, estimate, status, total: document.total, validUntil, sentOn, answeredOn, answeredBy });
  }
  return list;
}

/** The company's library of terms. */
export function termsLibrary(sql: Reader): Promise<{ name: string; body: string }[]> {
  return sql.all(TERMS_TEXTS);
}
