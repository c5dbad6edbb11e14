import { at, present } from '../errors/known';
import type { Cents } from '../money/cents';
import type { Estimate, EstimateLine } from './estimate';
import { priceEstimate } from './estimate';

/** One line of a comparison: what each of two estimates has under the same number. Null where one has none. */
export interface ComparedLine {
  line: string;
  description: string;
  section: string;
  left: ComparedSide | null;
  right: ComparedSide | null;
  /** What differs in words: quantity, build-up, parts, markup, unit cost. Empty where both are the same. */
  differs: readonly string[];
}
export interface ComparedSide {
  quantity: number;
  unit: string;
  cost: Cents;
  net: Cents;
}

/** Two estimates beside each other, in the order of the left one; lines only the right one has come last. */
export function compareEstimates(left: Estimate, right: Estimate, digits: number): ComparedLine[] {
  const [before, after] = [sides(left, digits), sides(right, digits)];
  const numbers = [...before.keys(), ...[...after.keys()].filter((it) => !before.has(it))];
  return numbers.map((number) => {
    const [l, r] = [before.get(number), after.get(number)];
    const line = present(l ?? r).line;
    return {
      line: number,
      description: line.description,
      section: line.section,
      left: l?.side ?? null,
      right: r?.side ?? null,
      differs: l && r ? differences(l, r) : [],
    };
  });
}

interface Side {
  line: EstimateLine;
  side: ComparedSide;
}

function sides(estimate: Estimate, digits: number): Map<string, Side> {
  const priced = priceEstimate(estimate, digits);
  return new Map(
    estimate.lines.map((line, i) => {
      const { cost, net } = at(priced.lines, i);
      return [line.line, { line, side: { quantity: line.quantity, unit: line.unit, cost, net } }];
    }),
  );
}

function differences(left: Side, right: Side): string[] {
  const [a, b] = [left.line, right.line];
  const found: string[] = [];
  if (a.description !== b.description) found.push('description');
  if (a.section !== b.section) found.push('section');
  if (a.quantity !== b.quantity || a.unit !== b.unit) found.push('quantity');
  if (a.buildUp !== b.buildUp) found.push('build-up');
  if (JSON.stringify(a.parts) !== JSON.stringify(b.parts)) found.push('parts');
  if (a.markup !== b.markup) found.push('markup');
  if (found.length === 0 && left.side.cost !== right.side.cost) found.push('unit cost');
  if (found.length === 0 && left.side.net !== right.side.net) found.push('markup');
  return found;
}
