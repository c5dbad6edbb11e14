import { decimal, exact, minus, NOUGHT, over, plus, rounded, share, sum, times, written, type Exact } from './exact';
import type { Rows } from './secondCalculation';

/*
 * A second reckoning of docs/rules.md §3a, written apart from the product: estimates and awards straight from the rows of a
 * book, with exact fractions. It shares nothing with core.
 */

type Row = Record<string, string>;
const ONE = exact(1n);

/** What one unit costs on a code and type, at a markup of its own. */
interface Share {
  code: string;
  type: string;
  own: string;
  cost: Exact;
  hours: Exact;
}

export interface ReckonedLine {
  row: Row;
  costs: Map<string, { cost: Exact; hours: Exact }>;
  cost: Exact;
  net: Exact;
}

export class TenderReckoner {
  constructor(private readonly rows: Rows) {}

  private of(file: string, more: (row: Row) => boolean = () => true): Row[] {
    return (this.rows[file] ?? []).filter(more);
  }

  /** Unit costs of a build-up: every component rounded to four decimals, then added by code, type and own markup. */
  shares(buildUp: string): Share[] {
    const joined = new Map<string, Share>();
    for (const component of this.of('build_up_components', (it) => it.build_up === buildUp)) {
      const needed = times(decimal(component.quantity), plus(ONE, share(component.waste_percent)));
      for (const it of this.sharesOf(component)) {
        const key = [it.code, it.type, it.own].join('|');
        const there = joined.get(key) ?? { ...it, cost: NOUGHT, hours: NOUGHT };
        joined.set(key, {
          ...there,
          cost: plus(there.cost, rounded(times(needed, it.cost), 4)),
          hours: plus(there.hours, rounded(times(needed, it.hours), 4)),
        });
      }
    }
    return [...joined.values()];
  }

  private sharesOf(component: Row): Share[] {
    if (component.component) return this.shares(component.component);
    const [item] = this.of('price_items', (it) => it.price_item === component.price_item);
    const hours = item!.cost_type === 'labour' ? ONE : NOUGHT;
    return [
      { code: item!.cost_code!, type: item!.cost_type!, own: item!.markup_percent ?? '', cost: decimal(item!.unit_cost), hours },
    ];
  }

  lines(estimate: string): ReckonedLine[] {
    const markups = this.of('estimate_markups', (it) => it.estimate === estimate);
    const ofType = (type: string) => markups.find((it) => it.cost_type === type)?.markup_percent;
    return this.of('estimate_lines', (it) => it.estimate === estimate).map((row) => {
      const quantity = decimal(row.quantity);
      const costs: ReckonedLine['costs'] = new Map();
      let byType = NOUGHT;
      const add = (code: string, type: string, own: string, cost: Exact, hours: Exact) => {
        const there = costs.get(`${code}|${type}`) ?? { cost: NOUGHT, hours: NOUGHT };
        costs.set(`${code}|${type}`, { cost: plus(there.cost, cost), hours: plus(there.hours, hours) });
        byType = plus(byType, rounded(times(cost, share(own || ofType(type)))));
      };
      for (const it of row.build_up ? this.shares(row.build_up) : [])
        add(it.code, it.type, it.own, rounded(times(quantity, it.cost)), rounded(times(quantity, it.hours), 4));
      for (const part of this.of('estimate_parts', (it) => it.estimate === estimate && it.estimate_line === row.estimate_line)) {
        const needed = part.basis === 'in-all' ? decimal(part.quantity) : times(quantity, decimal(part.quantity));
        const hours = part.cost_type === 'labour' ? rounded(needed, 4) : NOUGHT;
        add(part.cost_code!, part.cost_type!, part.markup_percent ?? '', rounded(times(needed, decimal(part.unit_cost))), hours);
      }
      const cost = sum([...costs.values()].map((it) => it.cost));
      const own = row.markup_percent || (row.section ? markups.find((it) => it.section === row.section)?.markup_percent : '');
      return { row, costs, cost, net: plus(cost, own ? rounded(times(cost, share(own))) : byType) };
    });
  }

  /** Cost, price, and what lies between cost with markup and the price. */
  totals(estimate: string): { cost: Exact; net: Exact; price: Exact } {
    const [row] = this.of('estimates', (it) => it.estimate === estimate);
    const lines = this.lines(estimate);
    const net = sum(lines.map((it) => it.net));
    const overhead = rounded(times(net, share(row!.overhead_percent)));
    const profit = rounded(times(plus(net, overhead), share(row!.profit_percent)));
    return { cost: sum(lines.map((it) => it.cost)), net, price: sum([net, overhead, profit, decimal(row!.rounding)]) };
  }

  /** Scheduled values of an award by line, pro rata: each spread by largest remainders, the earlier line first. */
  award(estimate: string, agreed: string): string[] {
    const lines = this.lines(estimate);
    const { net, price } = this.totals(estimate);
    const weights = lines.map((it) => it.net);
    const spread = remainders(minus(price, net), weights);
    const difference = remainders(minus(decimal(agreed), price), weights);
    return lines.map((it, i) => written(sum([it.net, spread[i]!, difference[i]!])));
  }

  /** Budget of an award: section|code|type → amount and hours. */
  budget(estimate: string): Map<string, { cost: Exact; hours: Exact }> {
    const budget = new Map<string, { cost: Exact; hours: Exact }>();
    for (const { row, costs } of this.lines(estimate))
      for (const [key, it] of costs) {
        const there = budget.get(`${row.section ?? ''}|${key}`) ?? { cost: NOUGHT, hours: NOUGHT };
        budget.set(`${row.section ?? ''}|${key}`, { cost: plus(there.cost, it.cost), hours: plus(there.hours, it.hours) });
      }
    return budget;
  }
}

/** A total over weights in pence: whole pence down, then a penny each to the largest rests. */
function remainders(total: Exact, weights: readonly Exact[]): Exact[] {
  const negative = total.n < 0n;
  const pence = times(negative ? minus(NOUGHT, total) : total, exact(100n));
  const all = sum([...weights]);
  if (all.n === 0n) return weights.map((_, i) => (i === 0 ? total : NOUGHT));
  const shares = weights.map((weight, i) => {
    const whole = times(pence, over(weight, all));
    const floor = whole.n / whole.d;
    return { i, floor, rest: minus(whole, exact(floor)) };
  });
  let left = pence.n / pence.d - shares.reduce((count, it) => count + it.floor, 0n);
  const ranked = [...shares].sort((a, b) => {
    const order = minus(b.rest, a.rest).n;
    return order < 0n ? -1 : order > 0n ? 1 : a.i - b.i;
  });
  for (const it of ranked) {
    if (left <= 0n) break;
    shares[it.i]!.floor += 1n;
    left -= 1n;
  }
  return shares.map((it) => exact(negative ? -it.floor : it.floor, 100n));
}
