import { CostCodeTable, VendorTable } from '../company/models';
import { UNIT_COSTS } from './queries';
import { assertNoFaults, fieldError } from '../acts/refused';
import { BuildUpComponentTable, BuildUpTable, PriceChangeTable, PriceItemTable } from './models';
import { known } from '../../core/errors/known';
import type { Command } from '../acts/command';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { buildUpFault, whereUsed, type BuildUp } from '../../core/prices/buildUp';
import { listChanges } from '../../core/prices/listChanges';
import { changedBy, LARGEST_UNIT_COST } from '../../core/prices/unitCost';
import type { BuildUpInput, PriceItemInput, PriceItemsInput, PriceMoveInput, PriceMoves } from '../../wire/prices';
import type { Database } from '../db/database';
import { nextId, type Reader, type Sql } from '../db/sql';
import { digestOf } from '../versions/digest';
import { assertAsPreviewed } from '../versions/staleness';
import { priceListView } from './priceList';

/** The unit of every labour item: its unit cost is an hour's. */
export const LABOUR_UNIT = 'h';

/**
 * Adds price items, or saves those of the same code again, and removes others, all or none; a unit cost that moved goes into the
 * item's history. Refused where a build-up is made of an item that goes: the message names it.
 */
export async function savePriceItems(command: Command, { items, removed, on, reason }: PriceItemsInput): Promise<void> {
  const { sql, actor } = command;
  if (items.length + removed.length === 0) throw fieldError('items', 'expected at least one item');
  await removeItems(sql, removed);
  const { codes, vendors } = await assertItems(sql, items);
  const there = new Map((await sql.all(UNIT_COSTS)).map((row) => [row.code, row]));
  let id = await nextId(sql, PriceItemTable);
  const rows = items.map((it) => ({
    id: there.get(it.code)?.id ?? id++,
    code: it.code,
    description: it.description,
    unit: it.costType === 'labour' ? LABOUR_UNIT : it.unit,
    cost_type: it.costType,
    cost_code_id: known(codes, it.costCode),
    wage_class: it.wageClass,
    unit_cost: it.unitCost,
    markup_rate: it.markup,
    vendor_id: vendors.get(it.vendor) ?? null,
    checked_on: it.checkedOn,
  }));
  await sql.save(PriceItemTable, rows, ['id']);
  const moved = rows.filter((row) => there.get(row.code)?.unit_cost !== row.unit_cost);
  await sql.insertAll(
    PriceChangeTable,
    moved.map((row) => ({ price_item_id: row.id, dated: on, unit_cost: row.unit_cost, reason, actor: actor.name })),
  );
  const codesOf = [...items.map((it) => it.code), ...removed];
  command.note(codesOf.join(' ').slice(0, 200), { items, removed, on, reason });
}

/** Throws bad input by field where items cannot be saved as they are; gives back the ids of what they name, by code. */
export async function assertItems(sql: Reader, items: readonly PriceItemInput[]) {
  const [codes, vendors] = [await idsByCode(sql, CostCodeTable), await idsByCode(sql, VendorTable)];
  assertNoFaults(itemFaults(items, codes, vendors));
  return { codes, vendors };
}

function itemFaults(items: readonly PriceItemInput[], codes: Map<string, number>, vendors: Map<string, number>): Fault[] {
  const faults: Fault[] = [];
  const seen = new Set<string>();
  items.forEach((it, i) => {
    const at = (field: string, message: string) => faults.push({ field: `items.${i}.${field}`, message });
    if (seen.has(it.code)) at('code', `${it.code} appears twice; each item has a code of its own`);
    seen.add(it.code);
    if (!codes.has(it.costCode)) at('costCode', `There is no cost code ${it.costCode}; add it in Set-up, or choose another`);
    if (it.vendor !== '' && !vendors.has(it.vendor))
      at('vendor', `There is no vendor ${it.vendor}; leave it empty, or choose another`);
    if (it.costType === 'labour' && it.unit !== '' && it.unit !== LABOUR_UNIT)
      at('unit', `The unit of labour is the hour, ${LABOUR_UNIT}; "${it.unit}" is another`);
  });
  return faults;
}

export async function idsByCode(
  sql: Reader,
  table: typeof CostCodeTable | typeof VendorTable | typeof PriceItemTable | typeof BuildUpTable,
): Promise<Map<string, number>> {
  const rows: readonly { id: number; code: string }[] = await sql.find(table, {});
  return new Map(rows.map((row) => [row.code, row.id]));
}

async function removeItems(sql: Sql, codes: readonly string[]): Promise<void> {
  if (codes.length === 0) return;
  const { items, buildUps } = await priceListView(sql);
  const there = new Set(items.map((it) => it.code));
  for (const code of new Set(codes)) {
    if (!there.has(code)) throw new LedrinError('not-found', `There is no price item ${code}`);
    refuseUsed(`Price item ${code}`, whereUsed(buildUps, { item: code }));
    await sql.remove(PriceItemTable, { code });
  }
}

/** Takes a build-up out of the price list. Estimates priced with it keep what they were priced at. */
export async function removeBuildUp(command: Command, code: string): Promise<void> {
  const { sql } = command;
  const { buildUps } = await priceListView(sql);
  if (!buildUps.some((it) => it.code === code)) throw new LedrinError('not-found', `There is no build-up ${code}`);
  refuseUsed(`Build-up ${code}`, whereUsed(buildUps, { buildUp: code }));
  await sql.remove(BuildUpTable, { code });
  command.note(code, {});
}

function refuseUsed(what: string, used: readonly BuildUp[]): void {
  if (used.length > 0)
    throw new LedrinError('refused', `${what} is part of ${used.map((it) => it.code).join(', ')}; take it out there first`);
}

/** What moving prices would do to items and build-ups; nothing is saved. */
export async function previewPriceMove(database: Database, input: PriceMoveInput): Promise<PriceMoves> {
  return database.read(async (sql) => {
    const { items, buildUps } = await priceListView(sql);
    const moved = movedItems(items, input);
    const after = items.map((it) => moved.get(it.code) ?? it);
    return { seen: digestOf([...moved.values()]), ...listChanges({ items, buildUps }, { items: after, buildUps }) };
  });
}

/** Moves the prices of many items by a percent, as previewed. Gives back how many moved. */
export async function movePrices(command: Command, { seen, ...input }: PriceMoveInput & { seen: string }): Promise<number> {
  const { sql } = command;
  const moved = [...movedItems((await priceListView(sql)).items, input).values()];
  if (moved.length === 0) throw fieldError('by', 'No price would move by this; choose other items or another percentage');
  assertAsPreviewed(command, 'What the adjustment would change', moved, seen);
  await savePriceItems(command, { removed: [], items: moved, on: input.on, reason: input.reason });
  return moved.length;
}

function movedItems(items: readonly PriceItemInput[], input: PriceMoveInput): Map<string, PriceItemInput> {
  const moved = items
    .filter(
      (it) =>
        (input.vendor === '' || it.vendor === input.vendor) &&
        (input.costType === null || it.costType === input.costType) &&
        (input.costCode === '' || it.costCode === input.costCode),
    )
    .map((it) => ({ ...it, unitCost: changedBy(it.unitCost, input.by), checkedOn: input.on, before: it.unitCost }))
    .filter((it) => it.unitCost !== it.before);
  const tooLarge = moved.find((it) => it.unitCost > LARGEST_UNIT_COST);
  if (tooLarge) throw fieldError('by', `The unit cost of ${tooLarge.code} would become too large`);
  return new Map(moved.map(({ before: _, ...it }) => [it.code, it]));
}

/** Saves a build-up, new or changed. Refused where it would be made of itself: the message gives the way round. */
export async function saveBuildUp(command: Command, input: BuildUpInput): Promise<void> {
  const { sql } = command;
  const [items, known] = [await idsByCode(sql, PriceItemTable), await idsByCode(sql, BuildUpTable)];
  const listed = await priceListView(sql);
  assertBuildUp(input, listed.items, listed.buildUps);
  const id = known.get(input.code) ?? (await nextId(sql, BuildUpTable));
  await sql.save(BuildUpTable, [{ id, code: input.code, description: input.description, unit: input.unit }], ['id']);
  await sql.remove(BuildUpComponentTable, { build_up_id: id });
  await sql.insertAll(
    BuildUpComponentTable,
    input.components.map((it) => ({
      build_up_id: id,
      price_item_id: items.get(it.item) ?? null,
      component_id: known.get(it.buildUp) ?? null,
      quantity: it.quantity,
      waste_rate: it.waste,
    })),
  );
  command.note(input.code, input);
}

/** Throws bad input by field where a build-up cannot be saved beside these items and build-ups: one of the same code is replaced. */
export function assertBuildUp(input: BuildUpInput, items: readonly { code: string }[], buildUps: readonly BuildUp[]): void {
  const codesOf = (of: readonly { code: string }[]) => new Set(of.map((it) => it.code));
  const [itemCodes, buildUpCodes] = [codesOf(items), codesOf(buildUps)];
  assertNoFaults(input.components.flatMap((it, i) => componentFaults(it, i, input.code, itemCodes, buildUpCodes)));
  const fault = buildUpFault([input, ...buildUps.filter((it) => it.code !== input.code)]);
  if (fault) throw fieldError('components', fault.message);
}

function componentFaults(
  it: BuildUpInput['components'][number],
  i: number,
  code: string,
  items: ReadonlySet<string>,
  buildUps: ReadonlySet<string>,
): Fault[] {
  const at = (field: string, message: string) => [{ field: `components.${i}.${field}`, message }];
  if ((it.item === '') === (it.buildUp === '')) return at('item', 'Expected a price item or a build-up: one of the two');
  if (it.item !== '' && !items.has(it.item)) return at('item', `There is no price item ${it.item}`);
  if (it.buildUp === code) return at('buildUp', `A build-up cannot be made of itself: ${code} → ${code}`);
  if (it.buildUp !== '' && !buildUps.has(it.buildUp)) return at('buildUp', `There is no build-up ${it.buildUp}`);
  return [];
}
