import type { QuotationView } from '../../wire/quotations';
import type { Reader } from '../db/sql';
import { quotationDocument } from '../offers/clientDocuments';
import { jobByNumber } from '../jobs/jobByNumber';
import { offersOf } from '../offers/offerViews';
import { loadQuotation, type LoadedQuotation } from '../offers/quotationList';

const viewOf = ({ id: _id, answeredBy: _by, ...it }: LoadedQuotation) => it;

/** A quotation with what the client reads, and what came back. `today` dates one that was not sent yet. */
export async function quotationView(sql: Reader, job: string, number: number, today: string): Promise<QuotationView> {
  const it = await loadQuotation(sql, job, number);
  const { status: jobStatus } = await jobByNumber(sql, job, 'job');
  const offers = await offersOf(sql, job, 'quotation', String(number), today);
  return { ...viewOf(it), jobStatus, ...(await quotationDocument(sql, job, number, it.sentOn ?? today, it)), offers };
}
