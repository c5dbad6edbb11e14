import type { PlainDate } from '../calendar/plainDate';
import type { UnitCost } from '../prices/unitCost';

/** What a charge rate is for; an empty text is a cell left out. */
export interface ChargeRateFor {
  /** Of a job or of a client; both empty: of every job. */
  job: string;
  client: string;
  /** Exactly one of these is filled. */
  workKind: string;
  employee: string;
  wageClass: string;
}

export interface ChargeRate extends ChargeRateFor {
  from: PlainDate;
  /** Ten-thousandths of a major unit an hour, whatever the pay class. */
  rate: UnitCost;
}

const WHO = ['workKind', 'employee', 'wageClass'] as const;
const WHERE = ['job', 'client', 'every'] as const;

/** The rungs of charge rates, the first that has one wins (docs/rules.md §14), with their words. */
export const CHARGE_RUNGS = {
  'job-kind': 'job and kind of work',
  'job-employee': 'job and employee',
  'job-class': 'job and wage class',
  'client-kind': 'client and kind of work',
  'client-employee': 'client and employee',
  'client-class': 'client and wage class',
  kind: 'kind of work',
  employee: 'employee',
  class: 'wage class',
} as const;
export type ChargeRung = keyof typeof CHARGE_RUNGS;
export const CHARGE_RUNG_NAMES = Object.keys(CHARGE_RUNGS) as ChargeRung[];

/** The rung of the cells that are filled; null where they make none. */
export function chargeRungOf(of: ChargeRateFor): ChargeRung | null {
  const who = WHO.filter((it) => of[it] !== '');
  if (who.length !== 1 || (of.job !== '' && of.client !== '')) return null;
  const place = of.job !== '' ? 0 : of.client !== '' ? 1 : 2;
  return CHARGE_RUNG_NAMES[place * WHO.length + WHO.findIndex((it) => of[it] !== '')] ?? null;
}

/** Hours as far as their charge rate goes. */
export interface HoursToCharge extends ChargeRateFor {
  dated: PlainDate;
}

/** Charge rates, ready to be asked for a hundred thousand entries. */
export class ChargeRates {
  /** Those on a rung for something, the newest first. */
  private readonly byKey = new Map<string, ChargeRate[]>();

  constructor(rates: readonly ChargeRate[]) {
    for (const it of rates) {
      const rung = chargeRungOf(it);
      if (rung === null) continue;
      const key = keyOf(rung, it);
      const there = this.byKey.get(key);
      if (there) there.push(it);
      else this.byKey.set(key, [it]);
    }
    for (const of of this.byKey.values()) of.sort((a, b) => (a.from < b.from ? 1 : -1));
  }

  /** The rate in force on the day: of the first rung that has one, the newest; null for none. */
  on(line: HoursToCharge): (ChargeRate & { rung: ChargeRung }) | null {
    if (this.byKey.size === 0) return null;
    for (const rung of CHARGE_RUNG_NAMES) {
      const found = this.byKey.get(keyOf(rung, line))?.find((it) => it.from <= line.dated);
      if (found) return { ...found, rung };
    }
    return null;
  }
}

function keyOf(rung: ChargeRung, of: ChargeRateFor): string {
  const at = CHARGE_RUNG_NAMES.indexOf(rung);
  const where = WHERE[Math.floor(at / WHO.length)] ?? 'every';
  const who = WHO[at % WHO.length] ?? 'workKind';
  // Nothing is charged by a cell that is empty.
  return of[who] === '' ? '' : `${rung} ${where === 'every' ? '' : of[where]}\u001f${of[who]}`;
}
