import { useMemo } from 'react';
import type { EstimateView } from '../../../wire/jobs';
import { useCurrency } from '../../ground/company';
import { useColumnKinds } from '../../ground/columnKinds';
import { Table } from '../../kit/table/Table';
import { Sign } from '../../kit/Signs';

/** Figures of an SOV line with the name of the workings that explain each. */
const COLUMNS = [
  ['scheduled', 'Scheduled value', 'sovLineScheduled'],
  ['billed', 'Billed to date', 'sovLineBilled'],
  ['revised', 'Revised budget', 'sovLineRevised'],
  ['actual', 'Actual', 'sovLineActual'],
  ['estimate', 'Estimate at completion', 'sovLineEstimate'],
] as const;

type Row = EstimateView['revenue'][number];

const NO_LINE = { line: '', description: 'No SOV line', scheduled: 0, billed: 0 };

/** Revenue by SOV line beside the cost of the budget lines that serve it. */
export function RevenueBesideCost({ view, job }: { view: EstimateView; job: string }) {
  const { show } = useCurrency();
  const columns = useRevenueColumns(job);
  const unserved = Object.values(view.unserved).some((it) => it !== 0);
  const rows: Row[] = unserved ? [...view.revenue, { ...NO_LINE, ...view.unserved }] : view.revenue;
  const sum = (key: (typeof COLUMNS)[number][0]) => rows.reduce((total, row) => total + row[key], 0);
  if (view.revenue.length === 0) return null;
  const totals = Object.fromEntries(COLUMNS.map(([key]) => [key, show(sum(key))]));
  return (
    <>
      <h2 className="mb-1 mt-6">Revenue by SOV line, beside its cost</h2>
      <Table
        label="Revenue by SOV line, beside its cost"
        columns={columns}
        rows={rows}
        rowKey={(row) => row.line}
        foot={{ label: 'All lines', cells: { ...totals, profit: show(sum('scheduled') - sum('estimate')) } }}
      />
      <p className="note text-[12.5px]">
        A cost line that serves several SOV lines is shared by the budgets and change orders that name each. Cost that names none
        stands last.
      </p>
    </>
  );
}

function useRevenueColumns(job: string) {
  const kinds = useColumnKinds();
  return useMemo(() => {
    const profit = kinds.amount<Row>('profit', 'Expected profit', (row) => row.scheduled - row.estimate);
    return [
      kinds.text<Row>('line', 'Line', (row) => row.line),
      kinds.text<Row>('description', 'Description', (row) => row.description),
      ...COLUMNS.map(([key, title, figure]) =>
        kinds.amount<Row>(key, title, (row) => row[key], { of: (row) => ({ figure, job, sovLine: row.line }) }),
      ),
      {
        ...profit,
        cell: (row: Row) => (
          <>
            {row.scheduled < row.estimate && <Sign name="loss" bare />} {profit.cell(row)}
          </>
        ),
      },
    ];
  }, [kinds, job]);
}
