import { type JobIdentity } from '../jobs/jobByNumber';
import { loadCostLines } from './costLineStates';
import { mapInTurns } from '../db/inTurns';
import type { Reader } from '../db/sql';
import { isFinished } from '../../core/progress/workInProgress';
import {
  estimateAtCompletion,
  revisedBudget,
  type CostLineState,
  type LineEstimate,
} from '../../core/forecast/estimateAtCompletion';
import { compareCostLines, type CostType } from '../../core/costs/costType';
import { known } from '../../core/errors/known';
import { ESTIMATED_LINES } from './queries';

/** One cost line with its names and its estimate, in report order. */
export interface EstimatedLine {
  id: number;
  section: string;
  costCode: string;
  description: string;
  costType: CostType;
  state: CostLineState;
  estimate: LineEstimate;
  revised: number;
  variance: number;
  /** SOV lines that its budget rows and the approved changes of it serve. */
  serves: string[];
}

/** Every cost line of a job that something speaks of by the date; with the forecasts by `forecastsBy` alone. */
export async function estimatedLines(
  sql: Reader,
  job: JobIdentity,
  asOf: string,
  forecastsBy: string = asOf,
): Promise<EstimatedLine[]> {
  const states = await loadCostLines(sql, asOf, job.id, forecastsBy);
  const names = await sql.all(ESTIMATED_LINES, [job.id, asOf]);
  const byId = new Map(names.map((row) => [row.id, row]));
  const finished = isFinished(job.finished_on, asOf);
  const lines = await mapInTurns(states, (state): EstimatedLine => {
    const { section, code, description, cost_type, serves } = known(byId, state.id);
    const estimate = estimateAtCompletion(state, finished);
    const revised = revisedBudget(state);
    return {
      id: state.id,
      section,
      costCode: code,
      description,
      costType: cost_type,
      state,
      estimate,
      revised,
      variance: revised - estimate.amount,
      serves: JSON.parse(serves) as string[],
    };
  });
  return lines.sort(compareCostLines);
}
