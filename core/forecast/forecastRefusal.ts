import type { PlainDate } from '../calendar/plainDate';
import { takesRefusal, type TakingJob } from '../jobs/takes';
import { isFinished } from '../progress/workInProgress';
import { refuse, type Refusal } from '../refusals/refusal';

/** A job as far as it is forecast. */
export interface ForecastJob extends TakingJob {
  number: string;
  awardedOn: PlainDate | null;
  finishedOn: PlainDate | null;
}

/** Why nothing is forecast on a job on a day: its state, that it is finished, or that it was not awarded yet. Null where it is. docs/rules.md §7. */
export function forecastRefusal(job: ForecastJob, on: PlainDate): Refusal | null {
  const { number, awardedOn, finishedOn } = job;
  const refused = takesRefusal(job, 'forecasts');
  if (refused !== null) return refused;
  if (isFinished(finishedOn, on)) return refuse('forecast-of-finished', 'job', { job: number });
  return awardedOn !== null && on < awardedOn ? refuse('forecast-before-award', 'on', { on, job: number, awardedOn }) : null;
}
