import { QUOTATION_LIFE } from '../../core/offers/quotationLife';
import { quotationRefusal } from '../../core/offers/quotationRefusals';
import { showIn } from '../../core/refusals/messages';
import { reasonsOf } from '../../core/refusals/reasons';
import type { QuotationView } from '../../wire/quotations';
import type { Reader } from '../db/sql';
import { quotationDocument } from '../offers/clientDocuments';
import { jobByNumber } from '../jobs/jobByNumber';
import { offersOf } from '../offers/offerViews';
import { loadQuotation, movingQuotation, type LoadedQuotation } from '../offers/quotationList';

const viewOf = ({ id: _id, answeredBy: _by, ...it }: LoadedQuotation) => it;

/** A quotation with what the client reads, and what came back. `today` dates one that was not sent yet. */
export async function quotationView(sql: Reader, job: string, number: number, today: string): Promise<QuotationView> {
  const it = await loadQuotation(sql, job, number);
  const identity = await jobByNumber(sql, job, 'job');
  const offers = await offersOf(sql, job, 'quotation', String(number), today);
  const { document, difference } = await quotationDocument(sql, job, number, it.sentOn ?? today, it);
  const moving = movingQuotation(identity, it, document, difference);
  const refused = reasonsOf(QUOTATION_LIFE, (move) => quotationRefusal(move, moving), showIn(document.digits));
  return { ...viewOf(it), jobStatus: identity.status, document, difference, offers, refused };
}
