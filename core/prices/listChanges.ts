import { PriceList, unitCostOfShares, type BuildUp, type PriceItem } from './buildUp';
import type { UnitCost } from './unitCost';

/** What becomes of an item or a build-up of the price list. */
export interface ListChange {
  code: string;
  description: string;
  unit: string;
  /** What one unit cost; null for what was not in the list. */
  before: UnitCost | null;
  after: UnitCost;
  /** What of it changes besides, in words; empty where nothing does. */
  also: string;
}

/** Items and build-ups as they are listed. `buildUps` do not run in a circle: see buildUpFault. */
interface Listed {
  items: readonly PriceItem[];
  buildUps: readonly BuildUp[];
}

/** What differs between a price list and the same list after something was saved to it: what is new, dearer, cheaper or otherwise another. */
export function listChanges(before: Listed, after: Listed): { items: ListChange[]; buildUps: ListChange[] } {
  const [was, is] = [new PriceList(before.items, before.buildUps), new PriceList(after.items, after.buildUps)];
  const each = (list: PriceList, code: string) => unitCostOfShares(list.unitShares(code));
  return {
    items: after.items.flatMap((now) => {
      const then = was.items.get(now.code);
      return changeOf(now, then ? then.unitCost : null, now.unitCost, then ? itemWords(then, now) : '');
    }),
    buildUps: after.buildUps.flatMap((now) => {
      const then = was.buildUps.get(now.code);
      return changeOf(now, then ? each(was, now.code) : null, each(is, now.code), then ? buildUpWords(then, now) : '');
    }),
  };
}

function changeOf(
  { code, description, unit }: Pick<PriceItem, 'code' | 'description' | 'unit'>,
  before: UnitCost | null,
  after: UnitCost,
  also: string,
): ListChange[] {
  return before === after && also === '' ? [] : [{ code, description, unit, before, after, also }];
}

function itemWords(then: PriceItem, now: PriceItem): string {
  return [
    then.unit !== now.unit && 'unit',
    then.costType !== now.costType && 'type',
    then.costCode !== now.costCode && 'cost code',
    then.markup !== now.markup && 'markup',
  ]
    .filter(Boolean)
    .join(', ');
}

function buildUpWords(then: BuildUp, now: BuildUp): string {
  const madeOf = (of: BuildUp) => JSON.stringify(of.components.map((it) => [it.item, it.buildUp, it.quantity, it.waste]));
  return [
    then.description !== now.description && 'description',
    then.unit !== now.unit && 'unit',
    madeOf(then) !== madeOf(now) && 'what it is made of',
  ]
    .filter(Boolean)
    .join(', ');
}
