import { known } from '../errors/known';
import { COST_TYPES } from '../costs/costType';
import type { Estimate, EstimateLine } from './estimate';

/** The parts of an estimate that a person types. */
export type EstimateContent = Pick<Estimate, 'lines' | 'typeMarkups' | 'sectionMarkups' | 'overhead' | 'profit' | 'rounding'> & {
  name: string;
};

export interface MergedEstimate {
  content: EstimateContent;
  /** What the other one changed that I had not touched: taken over. */
  taken: string[];
  /** What both changed: mine is saved, and this names what theirs is laid aside. */
  clashes: string[];
}

/**
 * Lays what I changed since `base` over what somebody else saved since then. Nothing of mine is lost; where both
 * changed the same thing mine stands, and is named.
 */
export function mergeEstimates(base: EstimateContent, mine: EstimateContent, theirs: EstimateContent): MergedEstimate {
  const taken: string[] = [];
  const clashes: string[] = [];
  const choose = <T>(what: string, was: T, my: T, their: T): T => {
    if (same(their, was) || same(my, their)) return my;
    if (same(my, was)) {
      taken.push(what);
      return their;
    }
    clashes.push(what);
    return my;
  };
  const lines = mergeLines(base.lines, mine.lines, theirs.lines, choose);
  const rates = (which: 'typeMarkups' | 'sectionMarkups', names: readonly string[], what: string) =>
    Object.fromEntries(
      names
        .map((name) => {
          const of = (it: EstimateContent) => (it[which] as Record<string, number | undefined>)[name];
          return [name, choose(`${what} ${name}`, of(base), of(mine), of(theirs))] as const;
        })
        .filter(([, rate]) => rate !== undefined),
    ) as Record<string, number>;
  const sections = [...new Set([base, mine, theirs].flatMap((it) => Object.keys(it.sectionMarkups)))];
  const content: EstimateContent = {
    lines,
    name: choose('name', base.name, mine.name, theirs.name),
    typeMarkups: rates('typeMarkups', COST_TYPES, 'markup on'),
    sectionMarkups: rates('sectionMarkups', sections, 'markup of section'),
    overhead: choose('overhead', base.overhead, mine.overhead, theirs.overhead),
    profit: choose('profit', base.profit, mine.profit, theirs.profit),
    rounding: choose('rounding', base.rounding, mine.rounding, theirs.rounding),
  };
  return { content, taken, clashes };
}

type Choose = <T>(what: string, was: T, my: T, their: T) => T;

/** In my order, with the lines they added after the line these follow in theirs. */
function mergeLines(
  base: readonly EstimateLine[],
  mine: readonly EstimateLine[],
  theirs: readonly EstimateLine[],
  choose: Choose,
): EstimateLine[] {
  const of = (lines: readonly EstimateLine[]) => new Map(lines.map((it) => [it.line, it]));
  const [was, my, their] = [of(base), of(mine), of(theirs)];
  const merged = new Map<string, EstimateLine>();
  for (const number of new Set([...my.keys(), ...their.keys(), ...was.keys()])) {
    const line = choose(`line ${number}`, was.get(number), my.get(number), their.get(number));
    if (line) merged.set(number, line);
  }
  const order = mine.map((it) => it.line).filter((it) => merged.has(it));
  theirs.forEach(({ line }, i) => {
    if (!merged.has(line) || order.includes(line)) return;
    const after = theirs
      .slice(0, i)
      .reverse()
      .find((it) => order.includes(it.line));
    order.splice(after ? order.indexOf(after.line) + 1 : 0, 0, line);
  });
  return order.map((number) => known(merged, number));
}

function same(a: unknown, b: unknown): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
