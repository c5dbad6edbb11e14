import { PROGRESS_FIGURES, type ProgressFigure } from '../../../../core/progress/figures';

/** The figures of work in progress that the list of jobs shows, each with the width of its column. Over and under billed stand in one. */
export const LISTED_FIGURES = [
  ['contractSum', 112],
  ['estimate', 112],
  ['margin', 72],
  ['complete', 80],
] as const satisfies readonly (readonly [ProgressFigure, number])[];
export type ListedFigure = (typeof LISTED_FIGURES)[number][0];

/** A figure's title as it heads a column. */
export function headOf(figure: ProgressFigure): string {
  const { title, unit } = PROGRESS_FIGURES[figure];
  return unit === 'percent' ? `${title} %` : title;
}
