import { present } from '../../../core/errors/known';
import { COST_TYPES } from '../../../core/costs/costType';
import type { Lists } from '../../../wire/company';
import type { EstimateView } from '../../../wire/jobs';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn } from '../../kit/grid/gridTypes';
import { columnsOf } from '../../kit/grid/rowCodecs';
import type { ChangeDraftState } from './useChangeDraft';

export const sectionsOf = (spent: EstimateView) => [...new Set(spent.lines.map((it) => it.section))].filter(Boolean);

interface GridProps {
  draft: ChangeDraftState;
  spent: EstimateView;
}

/** The price side of a change: lines of the schedule of values, and new ones. */
export function PriceGrid({ draft: { sides, setSide, codecs, faultsIn }, spent }: GridProps) {
  const columns: GridColumn[] = [
    {
      key: 'line',
      title: 'SOV line',
      width: 78,
      offers: () => spent.revenue.map((it) => ({ value: it.line, label: it.description })),
    },
    {
      key: 'what',
      title: 'Current line',
      width: 150,
      show: (row) => {
        const line = spent.revenue.find((it) => it.line === (row.line ?? '').trim());
        return <span className="block truncate note">{line ? line.description : row.line ? 'new line' : ''}</span>;
      },
    },
    { key: 'section', title: 'Section', width: 110, offers: () => sectionsOf(spent).map((value) => ({ value, label: '' })) },
    { key: 'description', title: 'Description', width: 'auto' },
    { key: 'quantity', title: 'Quantity', width: 78 },
    { key: 'unit', title: 'Unit', width: 50 },
    { key: 'amount', title: 'Change, +/−', width: 110 },
  ];
  return (
    <EntryGrid
      label="Price side"
      columns={columnsOf(codecs.price, columns)}
      rows={sides.price}
      onRows={(price) => setSide({ price })}
      faults={faultsIn('price.')}
      height={170}
      blank={Math.max(3, sides.price.length + 1)}
    />
  );
}

/** The cost side of a change: budget lines. */
export function CostGrid({ draft: { sides, setSide, codecs, faultsIn }, spent, lists }: GridProps & { lists: Lists }) {
  const columns: GridColumn[] = [
    { key: 'section', title: 'Section', width: 104, offers: () => sectionsOf(spent).map((value) => ({ value, label: '' })) },
    {
      key: 'costCode',
      title: 'Cost code',
      width: 68,
      offers: () => lists.costCodes.map((it) => ({ value: it.code, label: it.description })),
    },
    { key: 'costType', title: 'Type', width: 92, offers: () => COST_TYPES.map((value) => ({ value, label: '' })) },
    {
      key: 'sovLine',
      title: 'SOV line',
      width: 64,
      offers: () => [
        ...sides.price.filter((row) => row.line).map((row) => ({ value: present(row.line), label: row.description ?? '' })),
        ...spent.revenue.map((it) => ({ value: it.line, label: it.description })),
      ],
    },
    { key: 'description', title: 'Description', width: 'auto' },
    { key: 'quantity', title: 'Quantity', width: 74 },
    { key: 'unit', title: 'Unit', width: 46 },
    { key: 'hours', title: 'Hours', width: 66 },
    { key: 'amount', title: 'Amount', width: 100 },
  ];
  return (
    <EntryGrid
      label="Cost side"
      columns={columnsOf(codecs.cost, columns)}
      rows={sides.cost}
      onRows={(cost) => setSide({ cost })}
      faults={faultsIn('cost.')}
      height={200}
      blank={Math.max(4, sides.cost.length + 1)}
    />
  );
}
