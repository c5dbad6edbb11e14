import { termsRefusals, type JobTerms } from '../../../core/jobs/jobTerms';
import type { BookCheck } from './checkBook';
import type { AnyColumn, BookRow } from '../format/bookFiles';
import { readCell } from '../format/cells';
import { joinKey } from './keys';

/** Checks jobs, schedules of values, budgets, change orders, commitments and forecasts. */
export function checkContracts(check: BookCheck): void {
  check.rows.jobs.forEach((row) => checkJob(check, row));
  check.rows.schedule_of_values.forEach((row) => checkSovLine(check, row));
  check.rows.change_orders.forEach((row) => checkChangeOrder(check, row));
  check.rows.change_order_lines.forEach((row) => checkChangeOrderLine(check, row));
  check.rows.budget.forEach((row) => checkBudgetLine(check, row));
  checkTransfers(check);
  checkCommitments(check);
  check.rows.forecasts.forEach((row) => checkForecast(check, row));
}

function checkJob(check: BookCheck, row: BookRow<'jobs'>): void {
  const { faults } = check;
  check.declare('jobs', row.row, 'job', check.keys.jobs, row.job);
  check.refers('jobs', row.row, 'customer', check.keys.customers, 'customer', row.customer);
  const status = row.status ?? 'awarded';
  if (row.status !== undefined && status !== 'tender' && row.awarded_on === null)
    faults.add('jobs', row.row, 'awarded_on', `missing required cell: a job that is ${status} needs the day it was awarded`);
  if (before(row.finished_on, row.awarded_on))
    faults.add('jobs', row.row, 'finished_on', `${row.finished_on} is before awarded_on, ${row.awarded_on}`);
  const refusals = termsRefusals(termsOf(row));
  for (const refusal of refusals) check.refuse('jobs', row.row, refusal, 0, TERMS_COLUMNS);
  if (refusals.some((it) => it.rule === 'step-half')) check.markUnreliable(row.job);
  if (status === 'closed' && row.finished_on === null)
    faults.add('jobs', row.row, 'finished_on', 'a closed job needs the day it was finished');
  if (Object.values(row).includes(undefined)) check.markUnreliable(row.job);
}

const TERMS_COLUMNS = {
  finishesOn: 'finishes_on',
  defectsEnd: 'defects_end',
  stepAt: 'retention_step_at_percent',
  stepTo: 'retention_step_to_percent',
  noRetention: 'no_retention',
};

/** The terms a row states; what could not be read is as if it were not there, since it is a fault already. */
function termsOf(row: BookRow<'jobs'>): JobTerms {
  const [stepAt, stepTo] = [row.retention_step_at_percent, row.retention_step_to_percent];
  const readable = stepAt !== undefined && stepTo !== undefined;
  return {
    awardedOn: null,
    startsOn: row.starts_on ?? null,
    finishesOn: row.finishes_on ?? null,
    defectsEnd: row.defects_end ?? null,
    retention: { rate: row.retention_percent ?? 0, stepAt: readable ? stepAt : null, stepTo: readable ? stepTo : null },
    noRetention: row.no_retention === true,
  };
}

function checkSovLine(check: BookCheck, row: BookRow<'schedule_of_values'>): void {
  const known = check.refersToJob('schedule_of_values', row);
  check.declare('schedule_of_values', row.row, 'sov_line', check.keys.sovLines, row.job, row.sov_line);
  if (known && check.existing.jobs.get(row.job!)?.lastApplicationOn) {
    check.faults.add(
      'schedule_of_values',
      row.row,
      'job',
      `job ${row.job} is already in the database and has been billed; its schedule changes by change order only`,
    );
  }
  if (Object.values(row).includes(undefined)) check.markScheduleUnreliable(row.job, row.sov_line);
}

function checkChangeOrder(check: BookCheck, row: BookRow<'change_orders'>): void {
  const { faults } = check;
  const known = check.refersToJob('change_orders', row);
  check.declare('change_orders', row.row, 'change_order', check.keys.changeOrders, row.job, row.change_order);
  const decided = row.status === 'approved' || row.status === 'rejected' || row.status === 'withdrawn';
  if (decided && row.decided_on === null)
    faults.add(
      'change_orders',
      row.row,
      'decided_on',
      `missing required cell: a change order that is ${row.status} needs the day that was decided`,
    );
  if (before(row.decided_on, row.raised_on))
    faults.add('change_orders', row.row, 'decided_on', `${row.decided_on} is before raised_on, ${row.raised_on}`);
  const billedTo = known ? check.existing.jobs.get(row.job!)?.lastApplicationOn : null;
  if (billedTo && row.status === 'approved' && row.decided_on && row.decided_on <= billedTo) {
    faults.add(
      'change_orders',
      row.row,
      'decided_on',
      `job ${row.job} in the database has an application of ${billedTo}; a change approved by then would alter what it was valued with`,
    );
  }
  if (Object.values(row).includes(undefined) || (decided && row.decided_on === null)) check.markScheduleUnreliable(row.job);
}

function checkChangeOrderLine(check: BookCheck, row: BookRow<'change_order_lines'>): void {
  const file = 'change_order_lines';
  const known = check.refersToJob(file, row);
  if (known) {
    const found = check.refers(file, row.row, 'change_order', check.keys.changeOrders, 'change order', row.job, row.change_order);
    if (found && check.existing.changeOrders.has(joinKey(row.job!, row.change_order!))) {
      check.faults.add(
        file,
        row.row,
        'change_order',
        `change order ${row.change_order} is already in the database; an approved change is altered by another change only`,
      );
    }
  }
  check.refers(file, row.row, 'cost_code', check.keys.costCodes, 'cost code', row.cost_code);
  if (row.side === 'price') checkPriceLine(check, row, known);
  if (row.side === 'cost') checkCostLine(check, row);
  if (row.sov_line && row.side === 'cost' && known)
    check.refers(file, row.row, 'sov_line', check.keys.sovLines, 'SOV line', row.job, row.sov_line);
  if (Object.values(row).includes(undefined)) check.markScheduleUnreliable(row.job);
}

/** A price line names an SOV line; one that is new needs a description, and is there from then on. */
function checkPriceLine(check: BookCheck, row: BookRow<'change_order_lines'>, known: boolean): void {
  if (row.sov_line === null)
    check.faults.add('change_order_lines', row.row, 'sov_line', 'missing required cell: a price line names its SOV line');
  if (!known || !row.sov_line) return;
  const isNew = !check.keys.sovLines.has(joinKey(row.job!, row.sov_line));
  if (isNew && row.description === null)
    check.faults.add(
      'change_order_lines',
      row.row,
      'description',
      `missing required cell: ${row.sov_line} is a new SOV line and needs a description`,
    );
  if (isNew) check.keys.sovLines.declare(joinKey(row.job!, row.sov_line));
}

function checkCostLine(check: BookCheck, row: BookRow<'change_order_lines'>): void {
  if (row.cost_code === null)
    check.faults.add('change_order_lines', row.row, 'cost_code', 'missing required cell: a cost line names its cost code');
  if (row.cost_type === null)
    check.faults.add('change_order_lines', row.row, 'cost_type', 'missing required cell: a cost line names its cost type');
}

function checkBudgetLine(check: BookCheck, row: BookRow<'budget'>): void {
  const known = check.refersToJob('budget', row);
  check.refers('budget', row.row, 'cost_code', check.keys.costCodes, 'cost code', row.cost_code);
  if (known && row.sov_line) check.refers('budget', row.row, 'sov_line', check.keys.sovLines, 'SOV line', row.job, row.sov_line);
}

/** The rows of a transfer are of one day and reason, and net to zero. */
function checkTransfers(check: BookCheck): void {
  const file = 'budget_transfers';
  const transfers = new Map<string, BookRow<'budget_transfers'>[]>();
  for (const row of check.rows[file]) {
    const known = check.refersToJob(file, row);
    check.refers(file, row.row, 'cost_code', check.keys.costCodes, 'cost code', row.cost_code);
    if (!known || !row.transfer) continue;
    const key = joinKey(row.job!, row.transfer);
    if (check.existing.transfers.has(key))
      check.faults.add(file, row.row, 'transfer', `duplicate key: transfer ${row.transfer} is already in the database`);
    const rows = transfers.get(key);
    if (!rows) transfers.set(key, [row]);
    else {
      rows.push(row);
      for (const column of ['dated', 'reason'] as const)
        if (row[column] && rows[0]![column] && row[column] !== rows[0]![column])
          check.faults.add(file, row.row, column, `is the same in all rows of transfer ${row.transfer}; here it is another`);
    }
  }
  for (const rows of transfers.values()) {
    if (rows.some((row) => row.amount === undefined)) continue;
    if (rows.reduce((sum, row) => sum + row.amount!, 0) !== 0)
      check.faults.add(file, rows.at(-1)!.row, 'amount', `transfer ${rows[0]!.transfer} does not net to zero`);
  }
}

/** Kind, vendor, date and retention are one commitment's own: the same in all its rows. */
function checkCommitments(check: BookCheck): void {
  const firsts = new Map<string, Partial<BookRow<'commitments'>>>();
  for (const row of check.rows.commitments) {
    check.refers('commitments', row.row, 'vendor', check.keys.vendors, 'vendor', row.vendor);
    check.refersToJob('commitments', row);
    check.refers('commitments', row.row, 'cost_code', check.keys.costCodes, 'cost code', row.cost_code);
    if (typeof row.commitment === 'string') check.keys.commitments.declare(row.commitment);
    check.declare('commitments', row.row, 'line', check.keys.commitmentLines, row.commitment, row.line);
    if (row.commitment && row.line && row.job) check.commitmentLineJobs.set(joinKey(row.commitment, row.line), row.job);
    if (before(row.closed_on, row.dated))
      check.faults.add('commitments', row.row, 'closed_on', `${row.closed_on} is before dated, ${row.dated}`);
    if (!row.commitment) continue;
    const first = firsts.get(row.commitment) ?? existingCommitment(check, row.commitment);
    if (!first) firsts.set(row.commitment, row);
    else sameInAllRows(check, row, first);
  }
}

function existingCommitment(check: BookCheck, number: string): Partial<BookRow<'commitments'>> | undefined {
  const there = check.existing.commitments.get(number);
  return (
    there && {
      kind: there.kind as 'subcontract',
      vendor: there.vendor,
      dated: there.dated,
      retention_percent: there.retentionRate,
    }
  );
}

function sameInAllRows(check: BookCheck, row: BookRow<'commitments'>, first: Partial<BookRow<'commitments'>>): void {
  for (const column of ['kind', 'vendor', 'dated', 'retention_percent'] as const) {
    if (row[column] === undefined || first[column] === undefined || row[column] === first[column]) continue;
    check.faults.add(
      'commitments',
      row.row,
      column,
      `differs from the other rows of commitment ${row.commitment}; it must be the same in all of them`,
    );
  }
}

const FORECAST_VALUE_KINDS = { 'to-complete': 'amount', percent: 'percent', hours: 'quantity' } as const;

function checkForecast(check: BookCheck, row: BookRow<'forecasts'>): void {
  check.refersToJob('forecasts', row);
  check.refers('forecasts', row.row, 'cost_code', check.keys.costCodes, 'cost code', row.cost_code);
  if (row.method && row.value) {
    const column: AnyColumn = { kind: FORECAST_VALUE_KINDS[row.method], required: true };
    const cell = readCell(column, row.value, check.digits);
    if ('fault' in cell) check.faults.add('forecasts', row.row, 'value', cell.fault);
    else check.forecastValues.set(row.row, cell.value as number);
  }
  check.declare(
    'forecasts',
    row.row,
    'cost_type',
    check.keys.forecasts,
    row.job,
    row.as_of,
    row.section,
    row.cost_code,
    row.cost_type,
  );
}

/** True where both dates are there and the first is earlier. */
export function before(a: string | null | undefined, b: string | null | undefined): boolean {
  return typeof a === 'string' && typeof b === 'string' && a < b;
}
