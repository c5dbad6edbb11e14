import type { LabourProgress } from '../forecast/labourProgress';
import { WHOLE, type Hours, type Quantity } from '../money/rate';
import { divideRounded } from '../money/round';

/** Hours that one unit takes, in ten-thousandths; null where it cannot be said. */
export interface HoursAUnit {
  /** As budgeted. */
  planned: Hours | null;
  /** So far: hours used over what is done of the quantity. At the end of a job, what was achieved. */
  achieved: Hours | null;
}

const UNIT = 10_000n;

/** Half away from zero, once. */
export function hoursAUnit(
  { budgeted, used, percentDone }: Pick<LabourProgress, 'budgeted' | 'used' | 'percentDone'>,
  quantity: Quantity | null,
): HoursAUnit {
  if (quantity === null || quantity <= 0) return { planned: null, achieved: null };
  return {
    planned: divideRounded(BigInt(budgeted) * UNIT, BigInt(quantity)),
    achieved:
      percentDone === 0 ? null : divideRounded(BigInt(used) * UNIT * BigInt(WHOLE), BigInt(quantity) * BigInt(percentDone)),
  };
}

/** What day sheets say of a task: what was installed, and the hours on the same sheets; null without a quantity in the task's own unit. */
export interface Installed {
  quantity: Quantity;
  hours: Hours;
  /** Hours that one unit took, half away from zero. */
  perUnit: Hours;
}

export function installedBy(hours: Hours, quantity: Quantity): Installed | null {
  if (quantity <= 0) return null;
  return { quantity, hours, perUnit: divideRounded(BigInt(hours) * UNIT, BigInt(quantity)) };
}
