import { grouped } from '../lists/grouped';
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

/** What a rate on each rung is for, in words. */
export const RUNG_WORDS: Readonly<Record<Rung, string>> = {
  'job-section': 'job, section and wage class',
  job: 'job and wage class',
  'kind-employee': 'kind of work and employee',
  'kind-class': 'kind of work and wage class',
  employee: 'employee',
  class: 'wage class',
};
export const RUNG_NAMES = Object.keys(RUNGS) as Rung[];

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

/** The newest rate that an employee has alone, whatever the work; null for none. */
export function plainRateOf(rates: readonly PayRate[], employee: string): PayRate | null {
  const own = rates.filter((it) => it.employee === employee && rungOf(it) === 'employee');
  return own.reduce<PayRate | null>((newest, it) => (newest && newest.from >= it.from ? newest : it), null);
}

/** Before anybody worked: a first rate of somebody whose first day is not known counts from here. */
export const EVER: PlainDate = '2000-01-01';

/**
 * The day from which a rate of an employee counts: a first one from the first day, a later one from `asked`; so does a first one where
 * hours are posted already, by another rung.
 */
export function plainRateFrom(
  { before, startsOn, hasPosted }: { before: PayRate | null; startsOn: PlainDate | null; hasPosted: boolean },
  asked: PlainDate,
): PlainDate {
  return before || hasPosted ? asked : (startsOn ?? EVER);
}

/** A rung that was looked at for a line, and what stands on it that day; null where nothing does. */
export interface Looked {
  rung: Rung;
  found: PayRate | null;
}

/** The rate of an hour, and the rung it comes from. */
export interface RateFound {
  rate: UnitCost;
  rung: Rung;
}

/** Stated, the class comes before what the employee alone has. */
const OWN_CLASS_FIRST = RUNG_NAMES.toSorted((a, b) => Number(a === 'employee') - Number(b === 'employee'));
const orderOf = (ownClass: boolean) => (ownClass ? OWN_CLASS_FIRST : RUNG_NAMES);

/**
 * The rate of an hour of work on a day (docs/rules.md §10); null where no rung has one. `ownClass`: the line states a wage class of
 * its own, which then comes before what the employee alone has.
 */
export function rateOn(rates: readonly PayRate[], work: RateFor, ownClass: boolean, day: PlainDate): RateFound | null {
  const byKey = byRung(rates);
  let best: RateFound | null = null;
  for (const rung of orderOf(ownClass)) {
    const found = onRung(byKey, rung, work, day);
    if (!found) continue;
    // Each before it was a least: it stays where it is not below.
    if (!best || found.rate > best.rate) best = { rate: found.rate, rung };
    if (!found.atLeast) break;
  }
  return best;
}

/** What became of a rung: nothing stands on it, it gives the rate, it was a least or a rate that another is above, or an earlier one decided. */
export type RungOutcome = 'nothing' | 'taken' | 'lower' | 'not-reached';
export type LookedAt = Looked & { outcome: RungOutcome };

/** Which rung won for a line, and what became of the others. */
export function explainRate(
  rates: readonly PayRate[],
  work: RateFor,
  ownClass: boolean,
  day: PlainDate,
): { found: RateFound | null; looked: LookedAt[] } {
  const found = rateOn(rates, work, ownClass, day);
  const byKey = byRung(rates);
  const looked = orderOf(ownClass).map((rung): Looked => ({ rung, found: onRung(byKey, rung, work, day) }));
  const decided = looked.findIndex((it) => it.found !== null && !it.found.atLeast);
  return {
    found,
    looked: looked.map((it, i): LookedAt => {
      const beyond = decided >= 0 && i > decided;
      const outcome = !it.found ? 'nothing' : beyond ? 'not-reached' : it.rung === found?.rung ? 'taken' : 'lower';
      return { ...it, outcome };
    }),
  };
}

/** Rates by rung and by what they are for, sorted out once for each list of them: a week of many people looks into it often. */
const SORTED_OUT = new WeakMap<readonly PayRate[], ReadonlyMap<string, readonly PayRate[]>>();

function byRung(rates: readonly PayRate[]): ReadonlyMap<string, readonly PayRate[]> {
  const there = SORTED_OUT.get(rates);
  if (there) return there;
  const sorted = grouped(rates, (it) => {
    const rung = rungOf(it);
    return rung === null ? '' : keyOn(rung, it);
  });
  SORTED_OUT.set(rates, sorted);
  return sorted;
}

/** Cells apart by a character no text of ours has. */
function keyOn(rung: Rung, of: RateFor): string {
  let key: string = rung;
  for (const cell of RUNGS[rung]) key += `\u001f${of[cell]}`;
  return key;
}

function onRung(rates: ReadonlyMap<string, readonly PayRate[]>, rung: Rung, work: RateFor, day: PlainDate): PayRate | null {
  if (RUNGS[rung].some((it) => work[it] === '')) return null;
  return ruleOn(rates.get(keyOn(rung, work)) ?? [], day);
}
