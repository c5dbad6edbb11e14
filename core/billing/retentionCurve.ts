import { multiplyDivide } from '../money/round';
import { WHOLE, type Rate } from '../money/rate';
import { retentionToDate, type RetentionRule } from './retention';
import type { Cents } from '../money/cents';

/** What is held at a share of the work done. */
export interface CurvePoint {
  share: Rate;
  held: Cents;
}

/** What will be held as a job progresses evenly over all its lines, without materials on site; `steps` points after the first. */
export function retentionCurve(
  rule: RetentionRule,
  lines: readonly { value: Cents; rate: Rate | null }[],
  steps = 20,
): CurvePoint[] {
  const contractSum = lines.reduce((total, it) => total + it.value, 0);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const share = Math.round((WHOLE * i) / steps);
    const done = lines.map((it) => ({ work: multiplyDivide(it.value, share, WHOLE), materials: 0, rate: it.rate }));
    return { share, held: retentionToDate(rule, contractSum, done).total };
  });
}
