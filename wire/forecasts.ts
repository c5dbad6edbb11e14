import * as v from 'valibot';
import { FORECAST_METHODS, type CostLineState } from '../core/forecast/estimateAtCompletion';
import type { TypedForecast } from '../core/forecast/typedForecast';
import { costType, filled, list, plainDate, seen, text } from './fields';
import { command, dated, query } from './call';

/** What is still to come on lines of a job, as said on one day: whole, so that a line left out has no forecast of that day. */
export const forecastInput = v.strictObject({
  seen,
  on: plainDate,
  lines: list(
    v.strictObject({
      section: text(80),
      costCode: filled(40),
      costType,
      method: v.picklist(FORECAST_METHODS, `expected one of ${FORECAST_METHODS.join(', ')}`),
      /** As its method has it; core says what it may be. */
      value: v.pipe(v.number('expected a number'), v.safeInteger('expected a whole number')),
      note: text(400),
    }),
    5000,
    'lines',
  ),
});
export type ForecastInput = v.InferOutput<typeof forecastInput>;

export interface ForecastLine {
  /** Of the cost line. */
  id: number;
  section: string;
  costCode: string;
  description: string;
  costType: ForecastInput['lines'][number]['costType'];
  /** As of the day, with the forecasts before it alone. */
  state: CostLineState;
  /** Of the day itself. */
  entered: (TypedForecast & { note: string }) | null;
  /** The one before. */
  before: (TypedForecast & { on: string; note: string }) | null;
  /** Estimate at completion as of the end of the month before, as it stood; null for a line that was not there. */
  lastMonth: number | null;
}

export interface ForecastView {
  seen: string;
  /** The day forecasts of this page are of. */
  on: string;
  lines: ForecastLine[];
  contractSum: number;
  /** As it stood at the end of the month before. */
  contractSumLastMonth: number;
  /** Why nothing is forecast on the job any more, or not yet; null where it can be. */
  closed: string | null;
  finished: boolean;
}

export const forecastCalls = {
  forecast: query<ForecastView>('read-jobs')('/jobs/:job/forecast', { query: dated, part: 'report:estimate-vs-actual' }),
  saveForecast: command('forecast')('/jobs/:job/forecast', { method: 'PUT', input: forecastInput }),
};
