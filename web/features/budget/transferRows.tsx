import { COST_TYPES } from '../../../core/costs/costType';
import type { TransferInput } from '../../../wire/changes';
import type { Lists } from '../../../wire/company';
import type { EstimateLine } from '../../../wire/jobs';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { columnsOf, readRows } from '../../kit/grid/rowCodecs';
import { amount, oneOf, optional, quantity, words, type Faults } from '../../kit/typed/codecs';

type TransferLine = TransferInput['lines'][number];

const text = (row: GridRow, key: string) => (row[key] ?? '').trim();

const lineOf = (lines: readonly EstimateLine[], section: string, code: string, type: string) =>
  lines.find((it) => it.section === section && it.costCode === code && it.costType === type);

interface ReadTransfer {
  lines: TransferLine[];
  faults: Faults;
  /** Lines whose revised budget would be below zero. */
  below: TransferLine[];
  /** What is not allocated yet; zero when the transfer nets out. */
  rest: number;
  /** What arrives. */
  moved: number;
}

/** How the columns of a transfer are read. */
const transferCodecs = (digits: number) => ({
  section: words(),
  costCode: words('Expected a cost code'),
  costType: oneOf(COST_TYPES),
  hours: optional(quantity, null),
  amount: amount(digits),
});

/** Reads the rows of a transfer, blank ones passed over; faults by `row.column`. */
export function readTransfer(rows: readonly GridRow[], budget: readonly EstimateLine[], digits: number): ReadTransfer {
  const faults: Faults = new Map();
  const lines = readRows(transferCodecs(digits), rows, faults).map((it): TransferLine => it.value);
  return {
    lines,
    faults,
    below: lines.filter((it) => (lineOf(budget, it.section, it.costCode, it.costType)?.revised ?? 0) + it.amount < 0),
    rest: lines.reduce((sum, it) => sum + it.amount, 0),
    moved: lines.reduce((sum, it) => sum + Math.max(0, it.amount), 0),
  };
}

/** The columns of a transfer: what is typed, and beside it where the line stands now and then. */
export function transferColumns(
  budget: readonly EstimateLine[],
  codes: Lists['costCodes'],
  digits: number,
  show: (cents: number) => string,
): GridColumn[] {
  const money = amount(digits);
  const found = (row: GridRow) => lineOf(budget, text(row, 'section'), text(row, 'costCode'), text(row, 'costType'));
  const then = (row: GridRow) => {
    const moved = money.parse(row.amount ?? '');
    return (found(row)?.revised ?? 0) + (moved.ok ? moved.value : 0);
  };
  const sections = [...new Set(budget.map((it) => it.section))].filter(Boolean);
  return columnsOf(transferCodecs(digits), [
    { key: 'section', title: 'Section', width: 150, offers: () => sections.map((value) => ({ value, label: '' })) },
    {
      key: 'costCode',
      title: 'Cost code',
      width: 90,
      offers: () => codes.map((it) => ({ value: it.code, label: it.description })),
    },
    { key: 'costType', title: 'Type', width: 110, offers: () => COST_TYPES.map((value) => ({ value, label: '' })) },
    { key: 'left', title: 'Revised now', width: 120, numeric: true, show: (row) => show(found(row)?.revised ?? 0) },
    { key: 'spent', title: 'Actual', width: 120, numeric: true, show: (row) => show(found(row)?.actual ?? 0) },
    {
      key: 'after',
      title: 'Revised then',
      width: 120,
      numeric: true,
      show: (row) => <span className={then(row) < 0 ? 'loss' : ''}>{show(then(row))}</span>,
    },
    { key: 'hours', title: 'Hours', width: 80 },
    { key: 'amount', title: 'In (+) / out (−)', width: 130 },
  ]);
}
