import { displayDate } from '../calendar/displayDate';
import type { PlainDate } from '../calendar/plainDate';
import { revisedBudget, type CostLineState, type LineEstimate } from '../forecast/estimateAtCompletion';

/** What a job's margin moved by since the end of the month before, and what that comes from. */
export const MOVE_FIGURES = {
  marginMoved: 'Margin since last month',
  profitMoved: 'Estimated profit since last month',
  contractSumMoved: 'Contract sum since last month',
  estimateMoved: 'Estimate at completion since last month',
} as const;
export type MoveFigure = keyof typeof MOVE_FIGURES;

/** A line on a day: what is known of it, and its estimate. */
export interface LineOnDay {
  state: Pick<CostLineState, 'original' | 'changes' | 'transfers' | 'cost' | 'dayworkCost' | 'openCommitment' | 'forecast'>;
  estimate: LineEstimate;
}

const NOTHING: LineOnDay['state'] = {
  original: 0,
  changes: 0,
  transfers: 0,
  cost: 0,
  dayworkCost: 0,
  openCommitment: 0,
  forecast: null,
};

/** Why the estimate of a line moved between two days, in words; `then` null for a line that was not there. */
export function whyMoved(then: LineOnDay | null, now: LineOnDay, since: PlainDate): string {
  const before = then?.state ?? NOTHING;
  const { state, estimate } = now;
  const because: string[] = [];
  if (estimate.basis === 'finished' && then?.estimate.basis !== 'finished') because.push('the job is finished');
  else if (estimate.basis === 'spent')
    because.push(
      state.openCommitment > before.openCommitment ? 'orders and cost beyond what was expected' : 'cost beyond what was expected',
    );
  if (state.changes - state.transfers !== before.changes - before.transfers) because.push('change orders');
  if (state.transfers !== before.transfers) because.push('transfers');
  if (state.forecast && state.forecast.asOf > since) because.push(`forecast of ${displayDate(state.forecast.asOf)}`);
  if (state.dayworkCost !== before.dayworkCost) because.push('daywork');
  if (because.length === 0 && revisedBudget(state) !== revisedBudget(before)) because.push('budget');
  return because.join(', ');
}
