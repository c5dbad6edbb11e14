import type { PriceBook, UnitShare } from '../../../core/prices/buildUp';
import type { BookCheck } from '../checks/checkBook';
import { joinKey } from '../checks/keys';
import type { Reader, Sql } from '../../db/sql';
import { loadPriceBook } from '../../prices/priceBook';
import type { Actor } from '../../ledger/audit';
import { bulkInsert, saveKeyed, type BookIds } from './saveKeyed';

/** The columns in which an estimate is written, by the draft's commands and by the import of a book alike. */
const ESTIMATE_COLUMNS = {
  estimate_markup: ['estimate_id', 'cost_type', 'section', 'rate'],
  estimate_line: ['estimate_id', 'line', 'section', 'description', 'quantity', 'unit', 'build_up', 'markup_rate'],
  estimate_part: [
    ...['estimate_line_id', 'price_item', 'description', 'cost_code_id', 'cost_type', 'basis', 'quantity', 'unit'],
    ...['unit_cost', 'markup_rate'],
  ],
  estimate_price: ['estimate_id', 'build_up', 'cost_code_id', 'cost_type', 'markup_rate', 'unit_cost', 'hours'],
};

/** Saves the price list of a checked book. */
export async function savePrices(sql: Sql, actor: Actor, { rows }: BookCheck, ids: BookIds): Promise<void> {
  await saveKeyed(
    sql,
    'price_item',
    [
      'code',
      'description',
      'unit',
      'cost_type',
      'cost_code_id',
      'wage_class',
      'unit_cost',
      'markup_rate',
      'vendor_id',
      'checked_on',
    ],
    rows.price_items,
    ids.priceItems,
    (row) => row.price_item!,
    (row) => [
      row.price_item,
      row.description,
      row.unit ?? (row.cost_type === 'labour' ? 'h' : ''),
      row.cost_type,
      ids.costCodes.get(row.cost_code!),
      row.wage_class ?? '',
      row.unit_cost,
      row.markup_percent ?? null,
      row.vendor ? ids.vendors.get(row.vendor) : null,
      row.checked_on ?? null,
    ],
  );
  await bulkInsert(
    sql,
    'price_change',
    ['price_item_id', 'dated', 'unit_cost', 'reason', 'actor'],
    rows.price_history.map((row) => [
      ids.priceItems.get(row.price_item!),
      row.dated,
      row.unit_cost,
      row.reason ?? '',
      actor.name,
    ]),
  );
  await saveKeyed(
    sql,
    'build_up',
    ['code', 'description', 'unit'],
    rows.build_ups,
    ids.buildUps,
    (row) => row.build_up!,
    (row) => [row.build_up, row.description, row.unit ?? ''],
  );
  await bulkInsert(
    sql,
    'build_up_component',
    ['build_up_id', 'price_item_id', 'component_id', 'quantity', 'waste_rate'],
    rows.build_up_components.map((row) => [
      ids.buildUps.get(row.build_up!),
      row.price_item ? ids.priceItems.get(row.price_item) : null,
      row.component ? ids.buildUps.get(row.component) : null,
      row.quantity,
      row.waste_percent ?? 0,
    ]),
  );
}

/** Saves the estimates of a checked book. A build-up the book gives no unit costs of takes the price list's. */
export async function saveEstimates(sql: Sql, actor: Actor, { rows }: BookCheck, ids: BookIds): Promise<void> {
  const of = (row: { job?: string | null; estimate?: number | null }) => ids.estimates.get(joinKey(row.job!, row.estimate!));
  await saveKeyed(
    sql,
    'estimate',
    [
      ...['job_id', 'number', 'name', 'status', 'chosen', 'overhead_rate', 'profit_rate', 'rounding', 'sent_on', 'reference'],
      ...['accepted_on', 'acceptance', 'saved_by', 'saved_at'],
    ],
    rows.estimates,
    ids.estimates,
    (row) => joinKey(row.job!, row.estimate!),
    (row) => [
      ids.jobs.get(row.job!),
      row.estimate,
      row.name,
      row.status ?? 'draft',
      row.chosen ? 1 : 0,
      row.overhead_percent ?? 0,
      row.profit_percent ?? 0,
      row.rounding ?? 0,
      row.sent_on ?? null,
      row.reference ?? '',
      row.accepted_on ?? null,
      row.acceptance ?? '',
      actor.name,
      actor.at,
    ],
  );
  await bulkInsert(
    sql,
    'estimate_markup',
    ESTIMATE_COLUMNS.estimate_markup,
    rows.estimate_markups.map((row) => [of(row), row.cost_type ?? null, row.section ?? null, row.markup_percent]),
  );
  await saveKeyed(
    sql,
    'estimate_line',
    ESTIMATE_COLUMNS.estimate_line,
    rows.estimate_lines,
    ids.estimateLines,
    (row) => joinKey(row.job!, row.estimate!, row.estimate_line!),
    (row) => [
      of(row),
      row.estimate_line,
      row.section ?? '',
      row.description,
      row.quantity,
      row.unit ?? '',
      row.build_up ?? '',
      row.markup_percent ?? null,
    ],
  );
  await bulkInsert(
    sql,
    'estimate_part',
    ESTIMATE_COLUMNS.estimate_part,
    rows.estimate_parts.map((row) => [
      ids.estimateLines.get(joinKey(row.job!, row.estimate!, row.estimate_line!)),
      row.price_item ?? '',
      row.description ?? '',
      ids.costCodes.get(row.cost_code!),
      row.cost_type,
      row.basis ?? 'per-unit',
      row.quantity,
      row.unit ?? '',
      row.unit_cost,
      row.markup_percent ?? null,
    ]),
  );
  await bulkInsert(sql, 'estimate_price', ESTIMATE_COLUMNS.estimate_price, [
    ...rows.estimate_prices.map((row) => [
      of(row),
      row.build_up,
      ids.costCodes.get(row.cost_code!),
      row.cost_type,
      row.markup_percent ?? null,
      row.unit_cost,
      row.hours ?? 0,
    ]),
    ...(await pricesOfToday(sql, rows, ids, of)),
  ]);
}

async function pricesOfToday(
  sql: Reader,
  rows: BookCheck['rows'],
  ids: BookIds,
  of: (row: { job?: string | null; estimate?: number | null }) => number | undefined,
): Promise<unknown[][]> {
  const given = new Set(rows.estimate_prices.map((row) => joinKey(of(row)!, row.build_up!)));
  const wanted = new Map(
    rows.estimate_lines
      .filter((row) => row.build_up && !given.has(joinKey(of(row)!, row.build_up)))
      .map((row) => [joinKey(of(row)!, row.build_up!), { estimate: of(row)!, buildUp: row.build_up! }]),
  );
  if (wanted.size === 0) return [];
  const book: PriceBook = await loadPriceBook(sql);
  const row = (estimate: number, buildUp: string, it: UnitShare) => [
    estimate,
    buildUp,
    ids.costCodes.get(it.costCode),
    it.costType,
    it.markup,
    it.cost,
    it.hours,
  ];
  return [...wanted.values()].flatMap(({ estimate, buildUp }) =>
    book.unitShares(buildUp).map((it) => row(estimate, buildUp, it)),
  );
}

/** Saves what the awarded schedules of a checked book come from. */
export async function saveAwards(sql: Sql, { rows, existing }: BookCheck, ids: BookIds): Promise<void> {
  const accepted = acceptedEstimates({ rows, existing });
  await bulkInsert(
    sql,
    'award',
    ['sov_line_id', 'estimate_id', 'net', 'spread', 'difference'],
    rows.awards.map((row) => [
      ids.sovLines.get(joinKey(row.job!, row.sov_line!)),
      ids.estimates.get(joinKey(row.job!, accepted.get(row.job!)!)),
      row.net,
      row.spread,
      row.difference,
    ]),
  );
  await bulkInsert(
    sql,
    'award_line',
    ['estimate_line_id', 'sov_line_id'],
    rows.award_lines.map((row) => [
      ids.estimateLines.get(joinKey(row.job!, accepted.get(row.job!)!, row.estimate_line!)),
      ids.sovLines.get(joinKey(row.job!, row.sov_line!)),
    ]),
  );
}

/** The number of each job's accepted estimate, the database's and the book's. */
export function acceptedEstimates({ rows, existing }: Pick<BookCheck, 'rows' | 'existing'>): Map<string, number> {
  return new Map([
    ...existing.acceptedEstimates,
    ...rows.estimates.filter((row) => row.status === 'accepted').map((row) => [row.job!, row.estimate!] as const),
  ]);
}
