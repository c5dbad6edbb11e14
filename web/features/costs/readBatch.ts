import { displayDate } from '../../../core/calendar/displayDate';
import { firstOpenDay } from '../../../core/ledger/openDay';
import { amount, among, day, markup, oneOf, optional, quantity, words, yes, type Faults } from '../../kit/typed/codecs';
import { readRows } from '../../kit/grid/rowCodecs';
import { CHARGE_MARKS } from '../../../core/charging/chargeMark';
import { COST_TYPES } from '../../../core/costs/costType';
import type { CostLineInput } from '../../../wire/costs';
import type { Lists } from '../../../wire/company';
import type { GridRow } from '../../kit/grid/gridTypes';

export interface ReadBatch {
  lines: CostLineInput[];
  /** Row of the grid each line came from. */
  rowOf: number[];
  faults: Faults;
  total: number;
  hours: number;
}

/** How the columns of a batch of costs are read. */
export function costCodecs(lists: Pick<Lists, 'jobs' | 'costCodes'>, month: string, digits: number) {
  return {
    dated: day(month),
    job: among(new Set(lists.jobs.map((it) => it.number)), 'job'),
    section: words(),
    costCode: among(new Set(lists.costCodes.map((it) => it.code)), 'cost code'),
    costType: oneOf(COST_TYPES),
    party: words(),
    reference: words('Enter a reference (delivery note, timesheet or invoice no.)'),
    commitment: words(),
    hours: optional(quantity, null),
    amount: amount(digits),
    description: words(),
    uninstalled: yes,
    postedOn: optional(day(month), null),
    quantity: optional(quantity, null),
    charge: optional(oneOf(CHARGE_MARKS), ''),
    chargeFrom: optional(day(month), null),
    markup: optional(markup, null),
  };
}

/** Reads the rows of the cost grid, and says of every wrong cell what is wrong with it. Empty rows are passed over. */
export function readBatch(rows: readonly GridRow[], codecs: ReturnType<typeof costCodecs>): ReadBatch {
  const faults: Faults = new Map();
  const read = readRows(codecs, rows, faults);
  return {
    lines: read.map((it) => it.value),
    rowOf: read.map((it) => it.row),
    faults,
    total: read.reduce((sum, { value }) => sum + value.amount, 0),
    hours: read.reduce((sum, { value }) => sum + (value.hours ?? 0), 0),
  };
}

/** Where a row is dated in closed books: the first day that is open, as it is typed; null where its day is open or cannot be read. */
export function lateDay(row: GridRow, codecs: ReturnType<typeof costCodecs>, closedTo: string | null): string | null {
  const read = codecs.dated.parse(row.dated ?? '');
  if (!read.ok) return null;
  const open = firstOpenDay(read.value, closedTo);
  return open === read.value ? null : displayDate(open);
}
