import { at, known } from '../errors/known';
import type { CostLineKey } from '../costs/costType';
import { allocate } from '../money/allocate';
import { sum, type Cents } from '../money/cents';
import type { Hours, Quantity } from '../money/rate';
import type { EstimateLine, PricedEstimate } from './estimate';

/** One SOV line to be made of estimate lines. */
export interface AwardGroup {
  line: string;
  section: string;
  description: string;
  /** Numbers of the estimate lines that go into it. */
  members: readonly string[];
  /** The user's own weight for the spread; null everywhere: pro rata to cost and markup. */
  weight: number | null;
}

/** An SOV line with how its scheduled value comes about. */
export interface AwardedSovLine {
  line: string;
  section: string;
  description: string;
  quantity: Quantity | null;
  unit: string;
  members: readonly string[];
  /** Cost and markup of its estimate lines. */
  net: Cents;
  /** Its share of overhead, profit and rounding. */
  spread: Cents;
  /** Its share of what was agreed beyond (or below) the price quoted. */
  difference: Cents;
  scheduledValue: Cents;
}

/** A budget line with the SOV line it serves and the estimate line it comes from. */
export interface AwardedBudgetLine extends CostLineKey {
  sovLine: string;
  estimateLine: string;
  description: string;
  quantity: Quantity;
  unit: string;
  hours: Hours | null;
  amount: Cents;
}

export interface AwardPlan {
  sov: readonly AwardedSovLine[];
  budget: readonly AwardedBudgetLine[];
}

/**
 * Turns a priced estimate into a schedule of values that comes to the agreed price, and a budget that comes to its cost.
 * Overhead, profit and rounding, and then the difference between agreed and quoted price, are each spread by largest
 * remainders (docs/rules.md), pro rata to cost and markup or by the weights given. Every estimate line must be in one group.
 */
export function planAward(
  lines: readonly EstimateLine[],
  priced: PricedEstimate,
  groups: readonly AwardGroup[],
  agreed: Cents,
): AwardPlan {
  const byNumber = new Map(lines.map((line, i) => [line.line, { line, priced: at(priced.lines, i) }]));
  const nets = groups.map((group) => sum(group.members.map((it) => known(byNumber, it).priced.net)));
  const own = groups.some((it) => it.weight !== null);
  const weights = groups.map((group, i) => BigInt(own ? (group.weight ?? 0) : at(nets, i)));
  const { net, price } = priced.totals;
  const spreads = allocate(price - net, weights);
  const differences = allocate(agreed - price, weights);
  const sov = groups.map((group, i): AwardedSovLine => {
    const only = group.members.length === 1 ? known(byNumber, at(group.members, 0)).line : null;
    return {
      line: group.line,
      section: group.section,
      description: group.description,
      quantity: only ? only.quantity : null,
      unit: only ? only.unit : '',
      members: group.members,
      net: at(nets, i),
      spread: at(spreads, i),
      difference: at(differences, i),
      scheduledValue: at(nets, i) + at(spreads, i) + at(differences, i),
    };
  });
  const served = new Map(groups.flatMap((group) => group.members.map((it) => [it, group.line] as const)));
  const budget = lines.flatMap((line) =>
    known(byNumber, line.line).priced.costs.map((it): AwardedBudgetLine => ({
      section: line.section,
      costCode: it.costCode,
      costType: it.costType,
      sovLine: known(served, line.line),
      estimateLine: line.line,
      description: line.description,
      quantity: line.quantity,
      unit: line.unit,
      hours: it.hours === 0 ? null : it.hours,
      amount: it.cost,
    })),
  );
  return { sov, budget };
}

export const AWARD_GROUPINGS = ['line', 'section', 'own'] as const;
export type AwardGrouping = (typeof AWARD_GROUPINGS)[number];

/** The groups to begin with: one SOV line for each estimate line, or for each section in the order they come. */
export function groupsBy(by: 'line' | 'section', lines: readonly EstimateLine[]): AwardGroup[] {
  if (by === 'line')
    return lines.map((it) => ({
      line: it.line,
      section: it.section,
      description: it.description,
      members: [it.line],
      weight: null,
    }));
  return [...new Set(lines.map((it) => it.section))].map((section, i) => ({
    line: String(i + 1),
    section,
    description: section || 'The works',
    members: lines.filter((it) => it.section === section).map((it) => it.line),
    weight: null,
  }));
}
