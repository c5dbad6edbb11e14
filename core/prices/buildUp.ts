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
export class PriceList {
  readonly items: ReadonlyMap<string, PriceItem>;
  readonly buildUps: ReadonlyMap<string, BuildUp>;
  private readonly shares = new Map<string, readonly UnitShare[]>();

  /** `buildUps` must not run in a circle: see buildUpFault. */
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

/** Build-ups within build-ups: more levels than anybody builds in. */
const MOST_LEVELS = 40;
/** How much of price items one unit may take in all, through every level. */
const MOST_IN_ONE = 1_000_000_000;

/**
 * Why build-ups cannot be: one is made of itself, is too deep, or takes more for one unit than can be counted. Says of which, with the
 * component it comes by; null where all is well.
 */
export function buildUpFault(buildUps: readonly BuildUp[]): { code: string; component: string; message: string } | null {
  const byCode = new Map(buildUps.map((it) => [it.code, it]));
  const depths = new Map<string, { levels: number; inOne: number }>();
  for (const { code } of buildUps) {
    // Innermost first, without recursion: a chain may be longer than the stack is deep.
    const open = [code];
    const onPath = new Set<string>();
    while (open.length > 0) {
      const at = open[open.length - 1] ?? '';
      const inner = (byCode.get(at)?.components ?? []).filter((it) => it.buildUp !== '' && byCode.has(it.buildUp));
      onPath.add(at);
      const next = inner.find((it) => !depths.has(it.buildUp));
      if (next && onPath.has(next.buildUp)) {
        const way = [...open.slice(open.indexOf(next.buildUp)), next.buildUp];
        return {
          code: way[0] ?? at,
          component: way[1] ?? '',
          message: `A build-up cannot be made of itself: ${shortened(way).join(' → ')}`,
        };
      }
      if (next) {
        open.push(next.buildUp);
        continue;
      }
      const levels = 1 + Math.max(0, ...inner.map((it) => depths.get(it.buildUp)?.levels ?? 0));
      const inOne = (byCode.get(at)?.components ?? []).reduce(
        (sum, it) => sum + takenBy(it, depths.get(it.buildUp)?.inOne ?? 1),
        0,
      );
      const component = inner[0]?.buildUp ?? '';
      if (levels > MOST_LEVELS)
        return {
          code: at,
          component,
          message: `A build-up more than ${MOST_LEVELS} levels deep, ${at}: make it of price items, or of fewer levels`,
        };
      if (inOne > MOST_IN_ONE)
        return {
          code: at,
          component,
          message: `A build-up taking more than ${MOST_IN_ONE.toLocaleString('en')} units of price items for one, ${at}: check its quantities`,
        };
      depths.set(at, { levels, inOne });
      onPath.delete(at);
      open.pop();
    }
  }
  return null;
}

function takenBy({ quantity, waste }: Component, inOne: number): number {
  return (quantity / 10 ** QUANTITY_DECIMALS) * (1 + waste / 1_000_000) * inOne;
}

/** A way that people can read: its first and last steps. */
function shortened(way: readonly string[]): readonly string[] {
  return way.length <= 8 ? way : [...way.slice(0, 4), '…', ...way.slice(-3)];
}

/** The build-ups that name an item or a build-up as a component of theirs. */
export function whereUsed(buildUps: readonly BuildUp[], of: { item: string } | { buildUp: string }): BuildUp[] {
  return buildUps.filter((it) =>
    it.components.some((component) => ('item' in of ? component.item === of.item : component.buildUp === of.buildUp)),
  );
}
