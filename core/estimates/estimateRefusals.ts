import { moveRefusal } from '../life/life';
import { refuse, type Refusal } from '../refusals/refusal';
import { ESTIMATE_LIFE, type EstimateMove, type EstimateStatus } from './estimateLife';

/** An estimate as far as its moves go. */
export interface MovingEstimate {
  number: number;
  status: EstimateStatus;
  job: { number: string; status: string };
  hasLines: boolean;
  /** A quotation made from it; null where there is none. */
  quotation: number | null;
}

/** Why an estimate cannot make a move of its life: its state, what was made from it, or that the work was awarded. */
export function estimateRefusal(move: EstimateMove, it: MovingEstimate): Refusal | null {
  const { number, job } = it;
  if (job.status !== 'tender' && move === 'choose')
    return refuse('estimate-settled', 'job', { job: job.number, status: job.status });
  if (job.status !== 'tender' && move === 'award') return refuse('award-made', 'job', { job: job.number, status: job.status });
  const refused = moveRefusal(ESTIMATE_LIFE, move, `Estimate ${number}`, it.status);
  if (refused !== null) return refused;
  if ((move === 'send' || move === 'award') && !it.hasLines) return refuse('estimate-empty', 'lines', { number, to: move });
  if (move === 'delete' && it.quotation !== null) return refuse('estimate-quoted', 'number', { number, quotation: it.quotation });
  return null;
}
