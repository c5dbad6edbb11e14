import { compareCostLines, type CostType } from '../costs/costType';
import { QUANTITY_DECIMALS, type Hours, type Quantity, type Rate } from '../money/rate';
import { perUnitWithWaste, type UnitCost } from './unitCost';

/** What the company pays for one unit of something. Of labour the unit is an hour. */
export interface PriceItem {
  code: string;
  description: string;
  unit: string;
  costType: CostType;
  costCode: string;
  unitCost: UnitCost;
  /** Markup of its own; null takes the estimate's. */
  markup: Rate | null;
}

/** So much of a price item, or of another build-up, for one unit. Exactly one of `item` and `buildUp` is named. */
export interface Component {
  item: string;
  buildUp: string;
  quantity: Quantity;
  /** What is lost on top of `quantity`. */
  waste: Rate;
}

/** A priced recipe: what goes into one unit of work. */
export interface BuildUp {
  code: string;
  description: string;
  unit: string;
  components: readonly Component[];
}

/** What one unit costs on one cost code and type, at one markup of its own. */
export interface UnitShare {
  costCode: string;
  costType: CostType;
  markup: Rate | null;
  cost: UnitCost;
  hours: Hours;
}

/** A component with what it comes to for one unit of the build-up it stands in. */
export interface PricedComponent extends Component {
  description: string;
  unit: string;
  /** What one of it costs. */
  each: UnitCost;
  cost: UnitCost;
  hours: Hours;
}

const ONE_HOUR = 10 ** QUANTITY_DECIMALS;

/** The price list: items, and the build-ups made of them. */
export class PriceBook {
  readonly items: ReadonlyMap<string, PriceItem>;
  readonly buildUps: ReadonlyMap<string, BuildUp>;
  private readonly shares = new Map<string, readonly UnitShare[]>();

  /** `buildUps` must not run in a circle: see findCycle. */
  constructor(items: readonly PriceItem[], buildUps: readonly BuildUp[]) {
    this.items = new Map(items.map((it) => [it.code, it]));
    this.buildUps = new Map(buildUps.map((it) => [it.code, it]));
  }

  /**
   * What one unit of a build-up costs, by cost code, type and own markup, in the order of reports. Each component is
   * rounded to the four decimals of a unit cost, and the total is the sum of them (docs/rules.md). Unknown: nothing.
   */
  unitShares(code: string): readonly UnitShare[] {
    const known = this.shares.get(code);
    if (known) return known;
    const worked = joinShares((this.buildUps.get(code)?.components ?? []).flatMap((it) => this.sharesOf(it)));
    this.shares.set(code, worked);
    return worked;
  }

  /** The components of a build-up, each with what it comes to for one unit. */
  pricedComponents(code: string): PricedComponent[] {
    return (this.buildUps.get(code)?.components ?? []).map((component) => {
      const of = component.item ? this.items.get(component.item) : this.buildUps.get(component.buildUp);
      const shares = this.sharesOf(component);
      const each = component.item
        ? (this.items.get(component.item)?.unitCost ?? 0)
        : unitCostOfShares(this.unitShares(component.buildUp));
      return {
        ...component,
        description: of?.description ?? '',
        unit: of?.unit ?? '',
        each,
        cost: unitCostOfShares(shares),
        hours: shares.reduce((sum, it) => sum + it.hours, 0),
      };
    });
  }

  private sharesOf(component: Component): UnitShare[] {
    const raised = (each: number) => perUnitWithWaste(component.quantity, component.waste, each);
    const item = this.items.get(component.item);
    const shares = component.buildUp ? this.unitShares(component.buildUp) : item ? [itemShare(item)] : [];
    return shares.map((it) => ({ ...it, cost: raised(it.cost), hours: raised(it.hours) }));
  }
}

/** What one unit of a price item costs; of labour, an hour. */
export function itemShare({ costCode, costType, markup, unitCost }: PriceItem): UnitShare {
  return { costCode, costType, markup, cost: unitCost, hours: costType === 'labour' ? ONE_HOUR : 0 };
}

export function unitCostOfShares(shares: readonly UnitShare[]): UnitCost {
  return shares.reduce((sum, it) => sum + it.cost, 0);
}

/** Shares of the same code, type and markup as one; sorted as reports list them. */
function joinShares(shares: readonly UnitShare[]): UnitShare[] {
  const joined = new Map<string, UnitShare>();
  for (const share of shares) {
    const key = `${share.costCode}\u001f${share.costType}\u001f${share.markup ?? ''}`;
    const there = joined.get(key);
    joined.set(key, there ? { ...there, cost: there.cost + share.cost, hours: there.hours + share.hours } : share);
  }
  return [...joined.values()].sort(
    (a, b) => compareCostLines({ section: '', ...a }, { section: '', ...b }) || (a.markup ?? -1) - (b.markup ?? -1),
  );
}

/** A way from a build-up through its components back to itself, first and last the same; null where there is none. */
export function findCycle(buildUps: readonly BuildUp[]): string[] | null {
  const byCode = new Map(buildUps.map((it) => [it.code, it]));
  const done = new Set<string>();
  const walk = (code: string, path: readonly string[]): string[] | null => {
    if (path.includes(code)) return [...path.slice(path.indexOf(code)), code];
    if (done.has(code)) return null;
    for (const { buildUp } of byCode.get(code)?.components ?? []) {
      const cycle = buildUp ? walk(buildUp, [...path, code]) : null;
      if (cycle) return cycle;
    }
    done.add(code);
    return null;
  };
  for (const { code } of buildUps) {
    const cycle = walk(code, []);
    if (cycle) return cycle;
  }
  return null;
}

/** The build-ups that name an item or a build-up as a component of theirs. */
export function whereUsed(buildUps: readonly BuildUp[], of: { item: string } | { buildUp: string }): BuildUp[] {
  return buildUps.filter((it) =>
    it.components.some((component) => ('item' in of ? component.item === of.item : component.buildUp === of.buildUp)),
  );
}
