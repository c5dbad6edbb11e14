import type { PlainDate } from '../calendar/plainDate';
import { LARGEST_AMOUNT } from '../money/cents';
import { LARGEST_QUANTITY, WHOLE } from '../money/rate';
import {
  contractBudget,
  contractHours,
  estimateAtCompletion,
  type CostLineState,
  type ForecastMethod,
} from './estimateAtCompletion';

/** What somebody says a line will still cost; `value` as LineForecast has it. */
export interface TypedForecast {
  method: ForecastMethod;
  value: number;
}

/** A line as it stands once a forecast of the same day counts. `state` is as of that day, without one of it. */
export function withForecast(state: CostLineState, typed: TypedForecast | null, asOf: PlainDate): CostLineState {
  if (!typed) return state;
  return {
    ...state,
    forecast: {
      ...typed,
      asOf,
      costThen: state.cost - state.dayworkCost,
      hoursThen: contractHours(state),
      revisedThen: contractBudget(state),
      hoursBudgetedThen: state.hoursBudgeted,
    },
    changesSinceForecast: 0,
    hoursChangedSinceForecast: 0,
  };
}

const MOST = { 'to-complete': LARGEST_AMOUNT, percent: WHOLE, hours: LARGEST_QUANTITY };

/** Why a forecast of a line cannot be taken; null where it can (docs/rules.md §7). `state` and `asOf` as in `withForecast`. */
export function forecastFault(typed: TypedForecast, state: CostLineState, asOf: PlainDate): string | null {
  const { method, value } = typed;
  if (value < 0) return 'Expected 0 or more';
  if (value > MOST[method]) return method === 'percent' ? 'Expected at most 100 %' : 'The number is too large';
  if (method === 'percent' && value === 0) return 'Expected more than 0 %; for a line not begun, enter the cost to complete';
  if (method === 'percent' && state.cost - state.dayworkCost <= 0)
    return 'Nothing is spent yet; enter the cost to complete instead';
  if (method === 'hours' && contractHours(state) <= 0 && state.hoursBudgeted <= 0)
    return 'There are no hours yet, and none in the budget; enter the cost to complete instead';
  const { amount } = estimateAtCompletion(withForecast(state, typed, asOf), false);
  return amount > LARGEST_AMOUNT ? 'The line would cost more than an amount may be; check the number' : null;
}
