import * as v from 'valibot';
import type { ListChange } from '../core/prices/listChanges';
import { costType, filled, list, markup, needed, optionalDate, plainDate, rate, seen, text, unitCost } from './fields';
import { command, download, preview, query, upload } from './call';

const priceItemInput = v.strictObject({
  code: filled(40),
  description: filled(),
  unit: text(20),
  costType,
  costCode: filled(40),
  /** Of labour: the class of wage it is the hourly cost of. */
  wageClass: text(80),
  unitCost,
  markup: v.nullable(markup),
  vendor: text(40),
  checkedOn: optionalDate,
});
export type PriceItemInput = v.InferOutput<typeof priceItemInput>;

/** Items to be added or saved again, by code, and codes of those to be removed; a unit cost that moved is noted in the item's history from `on`. */
export const priceItemsInput = v.strictObject({
  items: list(priceItemInput, 5000, 'items at once'),
  removed: list(filled(40), 5000, 'items at once'),
  on: plainDate,
  reason: text(),
});
export type PriceItemsInput = v.InferOutput<typeof priceItemsInput>;

/** Prices of many items moved by a percent: those of a vendor, a cost type, a cost code, or all. */
export const priceMoveInput = v.strictObject({
  by: markup,
  vendor: text(40),
  costType: v.nullable(costType),
  costCode: text(40),
  on: plainDate,
  reason: text(),
});
export type PriceMoveInput = v.InferOutput<typeof priceMoveInput>;
/** A move as it was previewed. */
export const priceMoveSeen = v.strictObject({ ...priceMoveInput.entries, seen });

export const buildUpInput = v.strictObject({
  code: filled(40),
  description: filled(),
  unit: text(20),
  components: list(v.strictObject({ item: text(40), buildUp: text(40), quantity: needed, waste: rate }), 500, 'components'),
});
export type BuildUpInput = v.InferOutput<typeof buildUpInput>;

/** What was priced on a line of an estimate, to be saved to the price list: items by code, and a build-up that may be made of them. */
const pricedPart = v.strictObject({
  code: filled(40),
  description: filled(),
  unit: text(20),
  costType,
  costCode: filled(40),
  unitCost,
  markup: v.nullable(markup),
});
export const pricedPartsInput = v.strictObject({
  items: list(pricedPart, 500, 'items at once'),
  buildUp: v.nullable(buildUpInput),
  on: plainDate,
  reason: text(),
});
export type PricedPartsInput = v.InferOutput<typeof pricedPartsInput>;
/** The same as it was previewed. */
export const pricedPartsSeen = v.strictObject({ ...pricedPartsInput.entries, seen });

/** The price list as screens and estimates read it. */
export interface PriceListView {
  items: PriceItemInput[];
  buildUps: BuildUpInput[];
}

/** A price that held from a day on. */
export interface PriceChange {
  dated: string;
  unitCost: number;
  reason: string;
  actor: string;
}

/** What an act would do to the price list, before it is done. Build-ups: what one unit of each comes to. */
export interface PriceMoves {
  seen: string;
  items: ListChange[];
  buildUps: ListChange[];
}

/** How a build-up did on a finished job: what one unit of it was to take, and took. */
export interface Achieved {
  buildUp: string;
  job: string;
  jobName: string;
  quantity: number;
  unit: string;
  assumedCost: number;
  achievedCost: number;
  assumedHours: number;
  achievedHours: number;
}

export const priceCalls = {
  priceList: query<PriceListView>('read-jobs')('/prices'),
  achieved: query<Achieved[]>('read-tenders')('/prices/achieved'),
  priceItemsCsv: download('read-tenders')('/prices.csv'),
  priceHistory: query<PriceChange[]>('read-tenders')('/prices/items/:code/history'),
  savePriceItems: command('estimate')('/prices/items', { method: 'PUT', input: priceItemsInput }),
  importPrices: upload<{ count: number }>('estimate')('/prices/import'),
  previewPriceMove: preview<PriceMoves>('estimate')('/prices/move/preview', { input: priceMoveInput }),
  movePrices: command<{ count: number }>('estimate')('/prices/move', { input: priceMoveSeen }),
  previewPricedParts: preview<PriceMoves>('estimate')('/prices/parts/preview', { input: pricedPartsInput }),
  savePricedParts: command('estimate')('/prices/parts', { input: pricedPartsSeen }),
  saveBuildUp: command('estimate')('/build-ups', { method: 'PUT', input: buildUpInput }),
  removeBuildUp: command('estimate')('/build-ups/:code', { method: 'DELETE' }),
};
