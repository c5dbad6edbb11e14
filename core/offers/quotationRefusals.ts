import type { Cents } from '../money/cents';
import { moveRefusal } from '../life/life';
import { refuse, type Refusal } from '../refusals/refusal';
import { QUOTATION_LIFE, type QuotationMove, type QuotationStatus } from './quotationLife';

/** A quotation as far as its moves go. */
export interface MovingQuotation {
  number: number;
  status: QuotationStatus;
  job: { number: string; status: string };
  estimate: number;
  hasLines: boolean;
  /** What its payments leave of the price, and the price. */
  difference: Cents;
  total: Cents;
}

/** Why nothing is quoted for any more: the work was awarded. */
export function quotedRefusal(job: { number: string; status: string }): Refusal | null {
  return job.status === 'tender' ? null : refuse('quotation-of-awarded', 'job', { job: job.number, status: job.status });
}

/** Why a quotation cannot make a move of its life: the work was awarded, its state, or what it is made of. */
export function quotationRefusal(move: QuotationMove, it: MovingQuotation): Refusal | null {
  const { number, estimate, hasLines, difference, total } = it;
  const settled = move === 'edit' || move === 'send' ? quotedRefusal(it.job) : null;
  const refused = settled ?? moveRefusal(QUOTATION_LIFE, move, `Quotation ${number}`, it.status);
  if (refused !== null || move !== 'send') return refused;
  if (!hasLines) return refuse('estimate-empty', 'estimate', { number: estimate, to: 'offer' });
  return difference === 0 ? null : refuse('payments-differ', 'payments', { difference, total });
}
