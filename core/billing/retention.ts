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
 * Retention to date of one application (docs/rules.md §6). Judged afresh each time, with the contract sum of the
 * application's own date. Lines are rounded one by one. Where a further step bites, the total is worked out and rounded once:
 * each line keeps its own retention on materials, and the rest is spread by the lines' retention on work. Where the cap bites,
 * what it leaves is spread by what the lines would hold without it.
 */
export function retentionToDate(rule: RetentionRule, contractSum: Cents, lines: readonly RetainedLine[]): Retention {
  const gross = sum(lines.map((line) => line.work + line.materials));
  const all = rule.step?.applies === 'all' && reaches(gross, rule.step.at, contractSum) ? rule.step : null;
  const onWork = lines.map((line) => BigInt(all?.to ?? line.rate ?? rule.rate) * BigInt(line.work));
  const onMaterials = lines.map((line) => BigInt(materialsRate(rule, line)) * BigInt(line.materials));
  const further = furtherTotal(rule, contractSum, lines);
  const base = onWork.map((amount, i) => amount + (onMaterials[i] ?? 0n));
  const byLine =
    further === null ? base.map(rounded) : furtherByLine(divideRounded(further, MILLION * MILLION), onWork, onMaterials, lines);
  const stepApplied = all !== null || further !== null;
  const limit = rule.cap === null ? null : BigInt(rule.cap) * BigInt(contractSum) * MILLION;
  const uncapped = further ?? BigInt(sum(byLine)) * MILLION * MILLION;
  if (limit === null || uncapped <= limit) return { total: sum(byLine), byLine, stepApplied, capApplied: false };
  const total = divideRounded(limit, MILLION * MILLION);
  const held = further === null ? base : byLine.map(BigInt);
  return { total, byLine: allocate(total, orWork(held, lines)), stepApplied, capApplied: true };
}

/** A further step by line: materials keep their own retention, what is left of the total goes by retention on work. */
function furtherByLine(
  total: Cents,
  onWork: readonly bigint[],
  onMaterials: readonly bigint[],
  lines: readonly RetainedLine[],
): Cents[] {
  const materials = onMaterials.map(rounded);
  const work = allocate(total - sum(materials), orWork(onWork, lines));
  return materials.map((amount, i) => amount + (work[i] ?? 0));
}

function rounded(amount: bigint): Cents {
  return divideRounded(amount, MILLION);
}

/** The rate on a line's materials on site; the step leaves it as it was. */
function materialsRate(rule: RetentionRule, line: RetainedLine): Rate {
  return rule.materialsRate ?? line.rate ?? rule.rate;
}

/** Weights, or work done where they all come to zero. */
function orWork(weights: readonly bigint[], lines: readonly RetainedLine[]): bigint[] {
  const total = weights.reduce((a, b) => a + b, 0n);
  return total !== 0n ? [...weights] : lines.map((line) => BigInt(line.work));
}

const MILLION = BigInt(WHOLE);

/** True once `amount` is at least `share` of the contract sum. */
function reaches(amount: Cents, share: Rate, contractSum: Cents): boolean {
  return BigInt(amount) * MILLION >= BigInt(share) * BigInt(contractSum);
}

/**
 * The stepped total where a further step bites, null where it does not. Rate × (rate × money) carries two
 * scales of a million; both are saved until the one rounding.
 */
function furtherTotal(rule: RetentionRule, contractSum: Cents, lines: readonly RetainedLine[]): bigint | null {
  if (rule.step?.applies !== 'further') return null;
  const work = BigInt(sum(lines.map((line) => line.work))) * MILLION;
  const threshold = BigInt(rule.step.at) * BigInt(contractSum);
  if (work <= threshold) return null;
  const onWork = BigInt(rule.rate) * threshold + BigInt(rule.step.to) * (work - threshold);
  const onMaterials = lines.reduce((total, line) => total + BigInt(materialsRate(rule, line)) * BigInt(line.materials), 0n);
  return onWork + onMaterials * MILLION;
}
