import type { PlainDate } from '../calendar/plainDate';
import type { UnitCost } from '../prices/unitCost';
import { ruleOn } from './overtime';

/** The rungs of pay rates, the first that has one wins; a rate is on one of them by the cells it fills. */
export const RUNGS = {
  'job-section': ['job', 'section', 'wageClass'],
  job: ['job', 'wageClass'],
  'kind-employee': ['workKind', 'employee'],
  'kind-class': ['workKind', 'wageClass'],
  employee: ['employee'],
  class: ['wageClass'],
} as const;
export type Rung = keyof typeof RUNGS;
const RUNG_NAMES = Object.keys(RUNGS) as Rung[];

/** What a rate is for; an empty text is a cell left out. */
export interface RateFor {
  job: string;
  section: string;
  workKind: string;
  wageClass: string;
  employee: string;
}
const CELLS = ['job', 'section', 'workKind', 'wageClass', 'employee'] as const satisfies readonly (keyof RateFor)[];

export interface PayRate extends RateFor {
  from: PlainDate;
  /** Ten-thousandths of a major unit an hour. */
  rate: UnitCost;
  /** Gives the higher of itself and what the later rungs give. */
  atLeast: boolean;
}

/** The rung of the cells that are filled; null where they make none. */
export function rungOf(of: RateFor): Rung | null {
  const filled = CELLS.filter((it) => of[it] !== '').join(' ');
  return (
    RUNG_NAMES.find((rung) => CELLS.filter((it) => (RUNGS[rung] as readonly string[]).includes(it)).join(' ') === filled) ?? null
  );
}

/** A rung that was looked at for a line, and what stands on it that day; null where nothing does. */
export interface Looked {
  rung: Rung;
  found: PayRate | null;
}

/** The rate of an hour: the rung it comes from, and all rungs as they were looked at, in order. */
export interface RateFound {
  rate: UnitCost;
  rung: Rung;
  looked: readonly Looked[];
}

/**
 * The rate of an hour of work on a day (docs/rules.md §10); null where no rung has one. `ownClass`: the line states a wage class of
 * its own, which then comes before what the employee alone has.
 */
export function rateOn(rates: readonly PayRate[], work: RateFor, ownClass: boolean, day: PlainDate): RateFound | null {
  const order = ownClass ? RUNG_NAMES.toSorted((a, b) => Number(a === 'employee') - Number(b === 'employee')) : RUNG_NAMES;
  const looked = order.map((rung): Looked => ({ rung, found: onRung(rates, rung, work, day) }));
  let best: { rate: UnitCost; rung: Rung } | null = null;
  for (const { rung, found } of looked) {
    if (!found) continue;
    // Each before it was a least: it stays where it is not below.
    if (!best || found.rate > best.rate) best = { rate: found.rate, rung };
    if (!found.atLeast) break;
  }
  return best && { ...best, looked };
}

function onRung(rates: readonly PayRate[], rung: Rung, work: RateFor, day: PlainDate): PayRate | null {
  const cells = RUNGS[rung];
  if (cells.some((it) => work[it] === '')) return null;
  return ruleOn(
    rates.filter((it) => rungOf(it) === rung && cells.every((cell) => it[cell] === work[cell])),
    day,
  );
}
