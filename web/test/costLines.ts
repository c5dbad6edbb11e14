import { EMPTY_LINE } from '../../core/forecast/estimateAtCompletion';
import type { ForecastLine } from '../../wire/forecasts';
import type { EstimateLine } from '../../wire/jobs';

const NAMES = { id: 1, section: 'A', costCode: '100', description: 'Decks', costType: 'labour' as const };

/** A cost line of estimate versus actual at 10,000.00, of which 4,000.00 is spent. */
export const estimateLine = (more: Partial<EstimateLine>): EstimateLine => ({
  ...NAMES,
  original: 1_000_000,
  changes: 0,
  transfers: 0,
  revised: 1_000_000,
  actual: 400_000,
  committed: 0,
  estimate: 1_000_000,
  toComplete: 600_000,
  variance: 0,
  hoursBudgeted: 0,
  hoursActual: 0,
  budgeted: true,
  basis: '',
  serves: [],
  ...more,
});

/** The same as it is forecast: nothing said of it yet, 200 hours budgeted, 50 worked. */
export const forecastLine = (more: Partial<ForecastLine>): ForecastLine => ({
  ...NAMES,
  entered: null,
  before: null,
  lastMonth: 1_000_000,
  state: {
    ...EMPTY_LINE,
    budgeted: true,
    original: 1_000_000,
    hoursBudgeted: 2_000_000,
    cost: 400_000,
    hours: 500_000,
  },
  ...more,
});
