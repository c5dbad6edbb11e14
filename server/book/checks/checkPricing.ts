import { findCycle, type BuildUp } from '../../../core/prices/buildUp';
import type { BookCheck } from './checkBook';
import type { BookRow } from '../format/bookFiles';
import { joinKey } from './keys';

/** Checks price items, their history, build-ups and what they are made of. */
export function checkPrices(check: BookCheck): void {
  const { rows, keys, faults } = check;
  for (const row of rows.price_items) {
    check.declare('price_items', row.row, 'price_item', keys.priceItems, row.price_item);
    check.refers('price_items', row.row, 'cost_code', keys.costCodes, 'cost code', row.cost_code);
    if (row.vendor) check.refers('price_items', row.row, 'vendor', keys.vendors, 'vendor', row.vendor);
    if (row.cost_type === 'labour' && row.unit && row.unit !== 'h')
      faults.add('price_items', row.row, 'unit', `the unit of labour is the hour, h; "${row.unit}" is another`);
  }
  for (const row of rows.price_history)
    check.refers('price_history', row.row, 'price_item', keys.priceItems, 'price item', row.price_item);
  for (const row of rows.build_ups) check.declare('build_ups', row.row, 'build_up', keys.buildUps, row.build_up);
  rows.build_up_components.forEach((row) => checkComponent(check, row));
  const cycle = findCycle(buildUpsOf(check));
  if (cycle)
    faults.add(
      'build_up_components',
      rows.build_up_components.find((row) => row.build_up === cycle[0] && row.component === cycle[1])?.row ?? 1,
      'component',
      `a build-up cannot be made of itself: ${cycle.join(' > ')}`,
    );
}

function checkComponent(check: BookCheck, row: BookRow<'build_up_components'>): void {
  const file = 'build_up_components';
  const known = check.refers(file, row.row, 'build_up', check.keys.buildUps, 'build-up', row.build_up);
  if (known && check.existing.buildUps.has(row.build_up!))
    check.faults.add(file, row.row, 'build_up', `build-up ${row.build_up} is already in the database; it is changed there`);
  if (row.price_item === undefined || row.component === undefined) return;
  if ((row.price_item === null) === (row.component === null))
    check.faults.add(file, row.row, 'price_item', 'expected a price item, or a build-up in component: one of the two');
  check.refers(file, row.row, 'price_item', check.keys.priceItems, 'price item', row.price_item);
  check.refers(file, row.row, 'component', check.keys.buildUps, 'build-up', row.component);
}

/** The book's build-ups by their build-up components alone: enough to see whether they run in a circle. */
function buildUpsOf({ rows }: BookCheck): BuildUp[] {
  return rows.build_ups.map((row) => ({
    code: row.build_up ?? '',
    description: '',
    unit: '',
    components: rows.build_up_components
      .filter((it) => it.build_up === row.build_up && it.component)
      .map((it) => ({ item: '', buildUp: it.component!, quantity: 0, waste: 0 })),
  }));
}

const PARTS_OF_ESTIMATE = ['estimate_markups', 'estimate_lines', 'estimate_parts', 'estimate_prices'] as const;

/** Checks estimates and what was awarded from them. To be called once jobs and SOV lines are declared. */
export function checkEstimates(check: BookCheck): void {
  const { rows, keys } = check;
  const accepted = new Map(check.existing.acceptedEstimates);
  const chosen = new Set<string>();
  for (const row of rows.estimates) checkEstimate(check, row, accepted, chosen);
  for (const file of PARTS_OF_ESTIMATE)
    for (const row of rows[file]) {
      const found =
        check.refersToJob(file, row) &&
        check.refers(file, row.row, 'estimate', keys.estimates, 'estimate', row.job, row.estimate);
      if (found && check.existing.estimates.has(joinKey(row.job!, row.estimate!)))
        check.faults.add(
          file,
          row.row,
          'estimate',
          `estimate ${row.estimate} is already in the database; an import brings estimates whole`,
        );
      if ('cost_code' in row) check.refers(file, row.row, 'cost_code', keys.costCodes, 'cost code', row.cost_code);
    }
  for (const row of rows.estimate_markups)
    if (row.cost_type !== undefined && (row.cost_type === null) === (row.section === null))
      check.faults.add('estimate_markups', row.row, 'cost_type', 'expected a cost type or a section: one of the two');
  for (const row of rows.estimate_lines)
    check.declare('estimate_lines', row.row, 'estimate_line', keys.estimateLines, row.job, row.estimate, row.estimate_line);
  const priced = new Set(rows.estimate_prices.map((row) => joinKey(row.job ?? '', row.estimate ?? 0, row.build_up ?? '')));
  for (const row of rows.estimate_lines)
    if (row.build_up && !priced.has(joinKey(row.job ?? '', row.estimate ?? 0, row.build_up)))
      check.refers('estimate_lines', row.row, 'build_up', keys.buildUps, 'build-up', row.build_up);
  for (const row of rows.estimate_parts)
    check.refers(
      'estimate_parts',
      row.row,
      'estimate_line',
      keys.estimateLines,
      'estimate line',
      row.job,
      row.estimate,
      row.estimate_line,
    );
  checkAwards(check, accepted);
  checkQuotations(check);
}

function checkEstimate(check: BookCheck, row: BookRow<'estimates'>, accepted: Map<string, number>, chosen: Set<string>): void {
  const { faults } = check;
  check.refersToJob('estimates', row);
  check.declare('estimates', row.row, 'estimate', check.keys.estimates, row.job, row.estimate);
  const at = (column: string, message: string) => faults.add('estimates', row.row, column, message);
  if ((row.status === 'sent' || row.status === 'accepted') && row.sent_on === null)
    at('sent_on', `missing required cell: an estimate that is ${row.status} needs the day it was sent`);
  if (row.status === 'accepted' && row.accepted_on === null)
    at('accepted_on', 'missing required cell: an estimate that is accepted needs the day of it');
  if (row.accepted_on && row.sent_on && row.accepted_on < row.sent_on)
    at('accepted_on', `${row.accepted_on} is before sent_on, ${row.sent_on}`);
  if (!row.job || !row.estimate) return;
  if (row.status === 'accepted' && accepted.has(row.job)) at('status', `job ${row.job} has an accepted estimate already`);
  else if (row.status === 'accepted') accepted.set(row.job, row.estimate);
  if (row.chosen && chosen.has(row.job)) at('chosen', `job ${row.job} has a chosen estimate already`);
  if (row.chosen) chosen.add(row.job);
}

/** Budget lines, awards and their lines name lines of the job's accepted estimate. */
function checkAwards(check: BookCheck, accepted: Map<string, number>): void {
  const { rows, keys, faults } = check;
  const line = (
    file: 'budget' | 'award_lines',
    row: { row: number; job: string | null | undefined; estimate_line: string | null | undefined },
  ) => {
    if (!row.job || !row.estimate_line) return;
    const estimate = accepted.get(row.job);
    if (estimate === undefined)
      faults.add(file, row.row, 'estimate_line', `unknown reference: job ${row.job} has no accepted estimate`);
    else check.refers(file, row.row, 'estimate_line', keys.estimateLines, 'estimate line', row.job, estimate, row.estimate_line);
  };
  const scheduled = new Map(
    rows.schedule_of_values.map((row) => [joinKey(row.job ?? '', row.sov_line ?? ''), row.scheduled_value]),
  );
  for (const row of rows.budget) line('budget', row);
  for (const row of rows.awards) {
    check.declare('awards', row.row, 'sov_line', keys.awards, row.job, row.sov_line);
    if (!check.refersToJob('awards', row) || !row.sov_line) continue;
    if (!accepted.has(row.job!)) faults.add('awards', row.row, 'job', `job ${row.job} has no accepted estimate`);
    const value = scheduled.get(joinKey(row.job!, row.sov_line));
    if (value === undefined && !scheduled.has(joinKey(row.job!, row.sov_line)))
      faults.add('awards', row.row, 'sov_line', `unknown reference: the book has no SOV line ${row.sov_line} on ${row.job}`);
    else if (
      typeof value === 'number' &&
      typeof row.net === 'number' &&
      typeof row.spread === 'number' &&
      typeof row.difference === 'number' &&
      row.net + row.spread + row.difference !== value
    )
      faults.add('awards', row.row, 'difference', 'net, spread and difference do not come to the scheduled value of the line');
  }
  for (const row of rows.award_lines) {
    if (!check.refersToJob('award_lines', row)) continue;
    line('award_lines', row);
    check.declare('award_lines', row.row, 'estimate_line', keys.awardLines, row.job, row.estimate_line);
    check.refers('award_lines', row.row, 'sov_line', keys.awards, 'award of SOV line', row.job, row.sov_line);
  }
}

/** Checks the library of terms and the quotations. */
function checkQuotations(check: BookCheck): void {
  const { rows, keys, faults } = check;
  for (const row of rows.terms) check.declare('terms', row.row, 'name', keys.terms, row.name);
  for (const row of rows.quotations) {
    check.declare('quotations', row.row, 'quotation', keys.quotations, row.job, row.quotation);
    if (check.refersToJob('quotations', row))
      check.refers('quotations', row.row, 'estimate', keys.estimates, 'estimate', row.job, row.estimate);
    if (row.status && row.status !== 'draft' && row.sent_on === null)
      faults.add(
        'quotations',
        row.row,
        'sent_on',
        `missing required cell: a quotation that is ${row.status} needs the day it was sent`,
      );
    if (row.answered_on && row.sent_on && row.answered_on < row.sent_on)
      faults.add('quotations', row.row, 'answered_on', `${row.answered_on} is before sent_on, ${row.sent_on}`);
  }
  for (const file of ['quotation_alternates', 'quotation_payments'] as const)
    for (const row of rows[file]) {
      const found =
        check.refersToJob(file, row) &&
        check.refers(file, row.row, 'quotation', keys.quotations, 'quotation', row.job, row.quotation);
      if (found && check.existing.quotations.has(joinKey(row.job!, row.quotation!)))
        faults.add(
          file,
          row.row,
          'quotation',
          `quotation ${row.quotation} is already in the database; an import brings quotations whole`,
        );
    }
  for (const row of rows.quotation_payments)
    if (row.percent !== undefined && row.amount !== undefined && (row.percent === null) === (row.amount === null))
      faults.add('quotation_payments', row.row, 'percent', 'enter a percentage or an amount, not both');
}
