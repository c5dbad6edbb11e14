import { displayDate } from '../../core/calendar/displayDate';
import type { FigureRef, Workings } from '../../core/workings/workings';
import type { Reader } from '../db/sql';
import { ofApplications } from './ofApplications';
import { labourFigures, lineFigures } from './ofLines';
import { quantityFigures } from './ofQuantities';
import { derivedStatus, statusOfAllJobs, statusOfCostLines, statusOfSchedule } from './ofContractStatus';
import { movesOfJob } from './ofMoves';
import { jobProgress, totalsOfJobs } from './ofProgress';
import { openOnRelease } from './ofInvoice';
import { postedFigures } from './sources';
import { sovLineFigures } from './sovLines';
import { unknownFigure, type ExplainFigure, type FigureFamily, type FigureOf } from './figureFamily';

/** Every figure that can be opened. A name stands for one figure of an application, one of a job and one of all jobs. */
export const FIGURE_FAMILIES: readonly FigureFamily[] = [
  totalsOfJobs,
  jobProgress,
  movesOfJob,
  postedFigures,
  openOnRelease,
  statusOfAllJobs,
  derivedStatus,
  statusOfCostLines,
  statusOfSchedule,
  lineFigures,
  labourFigures,
  quantityFigures,
  sovLineFigures,
  ofApplications,
];

const keyOf = (of: FigureOf, figure: string) => `${of}/${figure}`;

const EXPLAIN: ReadonlyMap<string, ExplainFigure> = new Map(
  FIGURE_FAMILIES.flatMap(({ of, figures, explain: by }) => figures.map((figure) => [keyOf(of, figure), by] as const)),
);

/** Explains any figure of the screens. Throws not-found where there is no such figure, or nothing it could be of. */
export async function explain(sql: Reader, { on, ...ref }: FigureRef, asOf: string): Promise<Workings> {
  if (on === undefined) return explainAsOf(sql, ref, asOf);
  const workings = await explainAsOf(sql, ref, on);
  // What it is worked from is of the same day.
  const operands = workings.operands.map((it) => (it.figure ? { ...it, figure: { ...it.figure, on } } : it));
  return { ...workings, subject: `${workings.subject}, as of ${displayDate(on)}`, operands };
}

function explainAsOf(sql: Reader, ref: FigureRef, asOf: string): Promise<Workings> {
  const of = ref.application !== undefined ? 'application' : ref.job !== undefined ? 'job' : 'all jobs';
  const explainFigure = EXPLAIN.get(keyOf(of, ref.figure));
  if (!explainFigure) throw unknownFigure(ref.figure);
  return explainFigure(sql, ref, asOf);
}
