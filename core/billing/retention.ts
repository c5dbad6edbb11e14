import { allocate } from '../money/allocate';
import { sum, type Cents } from '../money/cents';
import { WHOLE, type Rate } from '../money/rate';
import { divideRounded } from '../money/round';

/** A job's rule for what the client holds back. All rates in millionths. */
export interface RetentionRule {
  rate: Rate;
  /** Rate on materials on site; null takes the rate that applies to work on the same line. */
  materialsRate: Rate | null;
  step: { at: Rate; to: Rate; applies: 'all' | 'further' } | null;
  /** Most that may be held, as a share of the contract sum; null for no cap. */
  cap: Rate | null;
}

/** What one SOV line has to date; `rate` is its own, null for the job's. */
export interface RetainedLine {
  work: Cents;
  materials: Cents;
  rate: Rate | null;
}

/** Retention to date, in total and by line, with which parts of the rule bit. */
export interface Retention {
  total: Cents;
  byLine: Cents[];
  stepApplied: boolean;
  capApplied: boolean;
}

/**
 * Retention to date of one application (docs/rules.md §6). Judged anew each time, with the contract sum of the
 * application's own date. Lines are rounded one by one; where a further step or the cap bites, the total is
 * computed and rounded once and then spread over the lines.
 */
export function retentionToDate(rule: RetentionRule, contractSum: Cents, lines: readonly RetainedLine[]): Retention {
  const gross = sum(lines.map((line) => line.work + line.materials));
  const stepAll = rule.step?.applies === 'all' && reaches(gross, rule.step.at, contractSum);
  const base = lines.map((line) => baseRetention(rule, line, stepAll ? rule.step!.to : null));
  const further = furtherTotal(rule, contractSum, lines);
  const rounded = base.map((amount) => divideRounded(amount, MILLION));
  const uncapped = further ?? BigInt(sum(rounded)) * MILLION * MILLION;
  const limit = rule.cap === null ? null : BigInt(rule.cap) * BigInt(contractSum) * MILLION;
  const capApplied = limit !== null && uncapped > limit;
  if (further === null && !capApplied) return { total: sum(rounded), byLine: rounded, stepApplied: stepAll, capApplied };
  const total = divideRounded(capApplied ? limit : uncapped, MILLION * MILLION);
  return { total, byLine: allocate(total, spreadWeights(base, lines)), stepApplied: stepAll || further !== null, capApplied };
}

const MILLION = BigInt(WHOLE);

/** True once `amount` is at least `share` of the contract sum. */
function reaches(amount: Cents, share: Rate, contractSum: Cents): boolean {
  return BigInt(amount) * MILLION >= BigInt(share) * BigInt(contractSum);
}

/** A line's retention before rounding, in millionths of a minor unit. The step replaces the rate on work only. */
function baseRetention(rule: RetentionRule, line: RetainedLine, steppedRate: Rate | null): bigint {
  const own = line.rate ?? rule.rate;
  return BigInt(steppedRate ?? own) * BigInt(line.work) + BigInt(rule.materialsRate ?? own) * BigInt(line.materials);
}

/**
 * The stepped total where a further step bites, null where it does not. Rate × (rate × money) carries two
 * scales of a million; both are kept until the one rounding.
 */
function furtherTotal(rule: RetentionRule, contractSum: Cents, lines: readonly RetainedLine[]): bigint | null {
  if (rule.step?.applies !== 'further') return null;
  const work = BigInt(sum(lines.map((line) => line.work))) * MILLION;
  const threshold = BigInt(rule.step.at) * BigInt(contractSum);
  if (work <= threshold) return null;
  const onWork = BigInt(rule.rate) * threshold + BigInt(rule.step.to) * (work - threshold);
  const onMaterials = lines.reduce(
    (total, line) => total + BigInt(rule.materialsRate ?? line.rate ?? rule.rate) * BigInt(line.materials),
    0n,
  );
  return onWork + onMaterials * MILLION;
}

function spreadWeights(base: readonly bigint[], lines: readonly RetainedLine[]): bigint[] {
  const hasBase = base.reduce((a, b) => a + b, 0n) !== 0n;
  return hasBase ? [...base] : lines.map((line) => BigInt(line.work));
}
