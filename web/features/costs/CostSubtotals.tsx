import { useMemo } from 'react';
import { displayPeriod } from '../../../core/calendar/displayDate';
import { lastDay } from '../../../core/calendar/plainDate';
import { present } from '../../../core/errors/known';
import { displayQuantity } from '../../../core/money/display';
import type { CostSubtotalRow, LedgerParams, SUBTOTALS } from '../../../wire/costs';
import { useCostSubtotalsQuery } from '../../ground/api/api';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { Table } from '../../kit/table/Table';
import { useSetParam } from './ledgerParams';

/** The filter each group narrows the ledger to. */
const NARROWED: Record<string, (key: string) => Record<string, string>> = {
  month: (key) => ({ from: `${key}-01`, to: lastDay(key) }),
  job: (key) => ({ job: key }),
  section: (key) => ({ section: key }),
  code: (key) => ({ code: key }),
  type: (key) => ({ type: key }),
  party: (key) => ({ party: key }),
};

/** The ledger added up by one of its columns; a group opens its entries. */
export function Subtotals({ filter, by }: { filter: LedgerParams; by: string }) {
  const subtotals = useCostSubtotalsQuery({ ...filter, by: by as (typeof SUBTOTALS)[number] });
  return (
    <Loaded of={subtotals} what="the subtotals">
      {(data) => <Groups rows={data} by={by} />}
    </Loaded>
  );
}

function Groups({ rows, by }: { rows: readonly CostSubtotalRow[]; by: string }) {
  const { exact } = useCurrency();
  const kinds = useColumnKinds();
  const set = useSetParam();
  const columns = useMemo(
    () => [
      {
        ...kinds.text<CostSubtotalRow>('key', `By ${by}`, (row) => row.key),
        cell: (row: CostSubtotalRow) => (
          <button
            type="button"
            className="fig text-[var(--accent)]"
            onClick={() => set({ by: '', ...present(NARROWED[by])(row.key) })}
          >
            {by === 'month' ? displayPeriod(row.key) : row.key || `(no ${by})`}
          </button>
        ),
      },
      kinds.text<CostSubtotalRow>('name', 'Name', (row) => row.name),
      kinds.count<CostSubtotalRow>('count', 'Entries', (row) => row.count),
      kinds.quantity<CostSubtotalRow>('hours', 'Hours', (row) => row.hours),
      kinds.amount<CostSubtotalRow>('amount', 'Amount', (row) => row.amount),
    ],
    [kinds, by, set],
  );
  const sum = (key: 'count' | 'hours' | 'amount') => rows.reduce((total, row) => total + row[key], 0);
  return (
    <Table
      label={`Subtotals by ${by}`}
      columns={columns}
      rows={rows}
      rowKey={(row) => row.key}
      height="window"
      foot={{
        label: 'Total',
        cells: {
          count: sum('count').toLocaleString('en-GB'),
          hours: displayQuantity(sum('hours')),
          amount: exact(sum('amount')),
        },
      }}
    />
  );
}
