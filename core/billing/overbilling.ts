import { displayExact } from '../money/display';
import type { Cents } from '../money/cents';
import type { BilledLine } from './application';

/** The figure of an application line that passes its scheduled value. */
export type OverbilledFigure = 'work' | 'materials' | 'certifiedWork' | 'certifiedMaterials';

export interface Overbilling {
  line: string;
  figure: OverbilledFigure;
  /** By how much the line passes, as a positive amount. */
  by: Cents;
  /** The most (for a negative line: the least) that may be stated to date. */
  limit: Cents;
}

/**
 * Where |to date| passes |scheduled value| or has the other sign, applied and certified alike (docs/rules.md §6).
 * The fault stands on the work where work alone passes, else on the materials.
 */
export function overbillings(line: BilledLine, scheduledValue: Cents): Overbilling[] {
  const found: Overbilling[] = [];
  const applied = excess(line.work + line.materials, scheduledValue);
  if (applied > 0) {
    const figure = excess(line.work, scheduledValue) > 0 ? 'work' : 'materials';
    found.push({ line: line.line, figure, by: applied, limit: scheduledValue });
  }
  if (line.certifiedWork === null && line.certifiedMaterials === null) return found;
  const work = line.certifiedWork ?? line.work;
  const certified = excess(work + (line.certifiedMaterials ?? line.materials), scheduledValue);
  if (certified > 0) {
    const byWork = line.certifiedWork !== null && (excess(work, scheduledValue) > 0 || line.certifiedMaterials === null);
    found.push({
      line: line.line,
      figure: byWork ? 'certifiedWork' : 'certifiedMaterials',
      by: certified,
      limit: scheduledValue,
    });
  }
  return found;
}

/** By how much an application passes the scheduled values of its lines, over all of them: what is to be allowed for it. */
export function overbilledBy(lines: readonly BilledLine[], scheduled: ReadonlyMap<string, Cents>): Cents {
  const most = (line: BilledLine) => Math.max(0, ...overbillings(line, scheduled.get(line.line) ?? 0).map((it) => it.by));
  return lines.reduce((sum, line) => sum + most(line), 0);
}

/** What is said where a line is overbilled by an amount `to date`: by how much, and the most that may be billed. */
export function overbillingText({ line, by, limit }: Overbilling, toDate: Cents, digits: number): string {
  const exact = (cents: Cents) => displayExact(cents, digits);
  const [amount, most, zero] = [exact(by), exact(limit), exact(0)];
  if (limit > 0 && toDate < 0)
    return `Line ${line} would be billed ${amount} below zero. Bill between ${zero} and ${most} to date`;
  if (limit < 0 && toDate > 0)
    return `Line ${line} is a credit and would be billed ${amount} above zero. Bill between ${most} and ${zero} to date`;
  return `Line ${line} would pass its scheduled value by ${amount}. Bill ${most} ${limit < 0 ? 'or less of a credit' : 'or less'} to date`;
}

/** How far `amount` lies outside the span from 0 to `limit`. */
function excess(amount: Cents, limit: Cents): Cents {
  const low = Math.min(0, limit);
  const high = Math.max(0, limit);
  return Math.max(0, low - amount, amount - high);
}
