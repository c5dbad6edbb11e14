import { known } from '../../core/errors/known';
import { listChanges } from '../../core/prices/listChanges';
import type { PricedPartsInput, PriceItemInput, PriceMoves } from '../../wire/prices';
import { fieldError } from '../acts/refused';
import type { Command } from '../acts/command';
import type { Database } from '../db/database';
import type { Reader } from '../db/sql';
import { digestOf } from '../versions/digest';
import { assertAsPreviewed } from '../versions/staleness';
import { assertBuildUp, assertItems, LABOUR_UNIT, saveBuildUp, savePriceItems } from './prices';
import { priceListView } from './priceList';

/** What saving would do to the price list; nothing is saved. */
export async function previewPricedParts(database: Database, input: PricedPartsInput): Promise<PriceMoves> {
  return database.read(async (sql) => {
    const { changes } = await plan(sql, input);
    return { seen: digestOf(changes), ...changes };
  });
}

/**
 * Saves what was priced on a line of an estimate to the price list, as previewed: price items, new or as they are priced there, and a
 * build-up of them. An item that was in the list keeps its vendor, its class of wage and its description: the line's words are the
 * line's own. The estimate stays as it is priced.
 */
export async function savePricedParts(command: Command, { seen, ...input }: PricedPartsInput & { seen: string }): Promise<void> {
  const { items, changes } = await plan(command.sql, input);
  if (changes.items.length + changes.buildUps.length === 0)
    throw fieldError('items', 'The price list has all of this as it is; nothing would change');
  assertAsPreviewed(command, 'What saving would change in the price list', changes, seen);
  if (items.length > 0) await savePriceItems(command, { items, removed: [], on: input.on, reason: input.reason });
  if (input.buildUp) await saveBuildUp(command, input.buildUp);
}

/** The items as they will be saved, those that differ alone, and what changes in the list. Throws bad input by field. */
async function plan(sql: Reader, { items: typed, buildUp, on }: PricedPartsInput) {
  const before = await priceListView(sql);
  const there = new Map(before.items.map((it) => [it.code, it]));
  const all = typed.map((it): PriceItemInput => ({
    wageClass: '',
    vendor: '',
    ...there.get(it.code),
    ...it,
    description: there.get(it.code)?.description ?? it.description,
    unit: it.costType === 'labour' && it.unit === '' ? LABOUR_UNIT : it.unit,
    checkedOn: on,
  }));
  await assertItems(sql, all);
  const items = [...before.items.filter((it) => !typed.some(({ code }) => code === it.code)), ...all];
  if (buildUp) assertBuildUp(buildUp, items, before.buildUps);
  const buildUps = buildUp ? [...before.buildUps.filter((it) => it.code !== buildUp.code), buildUp] : before.buildUps;
  const changes = listChanges(before, { items, buildUps });
  const byCode = new Map(all.map((it) => [it.code, it]));
  return { changes, items: changes.items.map(({ code }) => known(byCode, code)) };
}
