import type { BookCheck } from '../checks/checkBook';
import { joinKey } from '../checks/keys';
import { type Sql } from '../../db/sql';
import type { CostLines } from '../../costs/costEntries';
import type { Actor } from '../../ledger/audit';
import { bulkInsert, saveKeyed, type BookIds } from './saveKeyed';

/** Saves the change orders of a checked book. */
export async function saveChangeOrders(
  sql: Sql,
  actor: Actor,
  { rows }: BookCheck,
  ids: BookIds,
  costLines: CostLines,
): Promise<void> {
  await saveKeyed(
    sql,
    'change_order',
    [
      ...['job_id', 'number', 'title', 'status', 'raised_on', 'issued_on', 'decided_on', 'reference', 'reason', 'asked_by'],
      ...['days_asked', 'days_granted', 'decided_by', 'decision', 'saved_by', 'saved_at'],
    ],
    rows.change_orders,
    ids.changeOrders,
    (row) => joinKey(row.job!, row.change_order!),
    (row) => [
      ids.jobs.get(row.job!),
      row.change_order,
      row.title,
      row.status,
      row.raised_on,
      row.issued_on ?? null,
      row.decided_on ?? null,
      row.reference ?? '',
      row.reason ?? '',
      row.asked_by ?? '',
      row.days_asked ?? null,
      row.days_granted ?? null,
      row.decided_by ?? '',
      row.decision ?? '',
      actor.name,
      actor.at,
    ],
  );
  const lines = rows.change_order_lines.map((row) => [
    ids.changeOrders.get(joinKey(row.job!, row.change_order!)),
    row.side,
    row.sov_line ? ids.sovLines.get(joinKey(row.job!, row.sov_line)) : null,
    row.side === 'cost'
      ? costLines.idOf(ids.jobs.get(row.job!)!, row.section ?? '', ids.costCodes.get(row.cost_code!)!, row.cost_type!)
      : null,
    row.description ?? '',
    row.section ?? '',
    row.quantity ?? null,
    row.unit ?? '',
    row.hours ?? null,
    row.amount,
    row.asked ?? null,
  ]);
  await costLines.flush();
  await bulkInsert(
    sql,
    'change_order_line',
    [
      'change_order_id',
      'side',
      'sov_line_id',
      'cost_line_id',
      'description',
      'section',
      'quantity',
      'unit',
      'hours',
      'amount',
      'asked',
    ],
    lines,
  );
}

/** Saves the budget transfers of a checked book. */
export async function saveTransfers(
  sql: Sql,
  actor: Actor,
  { rows }: BookCheck,
  ids: BookIds,
  costLines: CostLines,
): Promise<void> {
  const transfers = new Map<string, number>();
  const firsts = new Map(rows.budget_transfers.toReversed().map((row) => [joinKey(row.job!, row.transfer!), row]));
  await saveKeyed(
    sql,
    'budget_transfer',
    ['job_id', 'number', 'dated', 'reason', 'actor', 'recorded_at'],
    [...firsts.values()].toReversed(),
    transfers,
    (row) => joinKey(row.job!, row.transfer!),
    (row) => [ids.jobs.get(row.job!), row.transfer, row.dated, row.reason, actor.name, actor.at],
  );
  const lines = rows.budget_transfers.map((row) => [
    transfers.get(joinKey(row.job!, row.transfer!)),
    costLines.idOf(ids.jobs.get(row.job!)!, row.section ?? '', ids.costCodes.get(row.cost_code!)!, row.cost_type!),
    row.amount,
    row.hours ?? null,
  ]);
  await costLines.flush();
  await bulkInsert(sql, 'budget_transfer_line', ['transfer_id', 'cost_line_id', 'amount', 'hours'], lines);
}
