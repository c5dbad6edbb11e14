import { LedrinError } from '../../core/errors/ledrinError';
import { displayExact } from '../../core/money/display';
import type { CostBatchInput, CostLineInput } from '../../wire/costs';
import type { PlainDate } from '../../core/calendar/plainDate';
import type { Reader } from '../db/sql';
import { loadPositions, type LoadedPosition } from './jobPositions';

type Shown = NonNullable<CostBatchInput['shown']>[number];

/** The day on which a line counts: its accounting date, else its document's. */
export function accountingDate(line: Pick<CostLineInput, 'dated' | 'postedOn'>): PlainDate {
  return line.postedOn ?? line.dated;
}

export function latestOf(days: readonly PlainDate[]): PlainDate {
  return days.reduce((latest, day) => (day > latest ? day : latest));
}

/** The date a batch is previewed as of: that of the page, or its own latest day where that is later. */
export function previewDate(input: CostBatchInput): string {
  return latestOf([input.asOf, ...input.lines.map(accountingDate)]);
}

/** The jobs of a batch as they are. */
export async function positionsBefore(sql: Reader, jobIds: readonly number[], asOf: string): Promise<LoadedPosition[]> {
  const positions: LoadedPosition[] = [];
  for (const id of jobIds) positions.push(...(await loadPositions(sql, asOf, id)));
  return positions;
}

/** What a preview shows of a job, as a posting carries it. */
export function shownOf({ number, progress }: LoadedPosition): Shown {
  return {
    job: number,
    estimate: progress.estimate,
    profit: progress.estimatedProfit,
    overUnder: progress.overbilled - progress.underbilled,
  };
}

const NAMES = { estimate: 'estimate at completion', profit: 'estimated profit', overUnder: 'overbilling' } as const;

/** Throws conflict where a job of the batch has changed since its preview, with what is different. */
export async function assertAsShown(
  sql: Reader,
  input: CostBatchInput,
  jobIds: readonly number[],
  digits: number,
): Promise<void> {
  const { shown } = input;
  if (!shown) return;
  const differences = (await positionsBefore(sql, jobIds, previewDate(input))).flatMap((position) => {
    const now = shownOf(position);
    const was = shown.find((it) => it.job === now.job);
    if (!was) return [];
    return (Object.keys(NAMES) as (keyof typeof NAMES)[])
      .filter((key) => was[key] !== now[key])
      .map((key) => `${now.job}: ${NAMES[key]} was ${displayExact(was[key], digits)}, is ${displayExact(now[key], digits)}`);
  });
  if (differences.length > 0)
    throw new LedrinError(
      'conflict',
      `The books have changed since the preview. ${differences.join('; ')}. Preview again, then post`,
      [{ field: 'shown', message: 'the jobs have changed since the preview' }],
    );
}
