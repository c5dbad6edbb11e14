import { query } from './call';
import type { QuotationSummary } from './quotations';

/** A tender: what it is priced at, and what was offered last. */
export interface TenderRow {
  job: string;
  name: string;
  clientName: string;
  estimator: string;
  /** tender, lost or withdrawn, and why. */
  status: string;
  reason: string;
  /** The estimate that is to be offered; null where none is chosen. */
  estimate: { number: number; name: string; status: string; price: number; marginRate: number } | null;
  quotation: QuotationSummary | null;
}

/** A quotation of whatever job, sent or not. */
export interface RegisteredQuotation extends QuotationSummary {
  job: string;
  jobName: string;
  clientName: string;
}

export const tenderCalls = {
  tenders: query<TenderRow[]>('read-tenders')('/tenders'),
  quotations: query<RegisteredQuotation[]>('read-tenders')('/quotations'),
};
