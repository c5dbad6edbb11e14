import { amount, tidyOf } from '../../kit/typed/codecs';
import { present } from '../../../core/errors/known';
import { COST_TYPES } from '../../../core/costs/costType';
import type { Lists } from '../../../wire/company';
import type { EstimateView } from '../../../wire/jobs';
import { useCurrency } from '../../ground/company';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn } from '../../kit/grid/gridTypes';
import type { ChangeForm } from './changeForm';

export const sectionsOf = (spent: EstimateView) => [...new Set(spent.lines.map((it) => it.section))].filter(Boolean);

interface GridProps {
  form: ChangeForm;
  setForm: React.Dispatch<React.SetStateAction<ChangeForm>>;
  faults: ReadonlyMap<string, string>;
  spent: EstimateView;
}

/** The price side of a change: lines of the schedule of values, and new ones. */
export function PriceGrid({ form, setForm, faults, spent }: GridProps) {
  const { digits } = useCurrency();
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
    { key: 'quantity', title: 'Quantity', width: 78, numeric: true },
    { key: 'unit', title: 'Unit', width: 50 },
    { key: 'amount', title: 'Change, +/−', width: 110, numeric: true, tidy: tidyOf(amount(digits)) },
  ];
  return (
    <EntryGrid
      label="Price side"
      columns={columns}
      rows={form.price}
      onRows={(price) => setForm((before) => ({ ...before, price }))}
      faults={faults}
      height={170}
      blank={Math.max(3, form.price.length + 1)}
    />
  );
}

/** The cost side of a change: budget lines. */
export function CostGrid({ form, setForm, faults, spent, lists }: GridProps & { lists: Lists }) {
  const { digits } = useCurrency();
  const columns: GridColumn[] = [
    { key: 'section', title: 'Section', width: 104, offers: () => sectionsOf(spent).map((value) => ({ value, label: '' })) },
    {
      key: 'code',
      title: 'Cost code',
      width: 68,
      offers: () => lists.costCodes.map((it) => ({ value: it.code, label: it.description })),
    },
    { key: 'type', title: 'Type', width: 92, offers: () => COST_TYPES.map((value) => ({ value, label: '' })) },
    {
      key: 'sovLine',
      title: 'SOV line',
      width: 64,
      offers: () => [
        ...form.price.filter((row) => row.line).map((row) => ({ value: present(row.line), label: row.description ?? '' })),
        ...spent.revenue.map((it) => ({ value: it.line, label: it.description })),
      ],
    },
    { key: 'description', title: 'Description', width: 'auto' },
    { key: 'quantity', title: 'Quantity', width: 74, numeric: true },
    { key: 'unit', title: 'Unit', width: 46 },
    { key: 'hours', title: 'Hours', width: 66, numeric: true },
    { key: 'amount', title: 'Amount', width: 100, numeric: true, tidy: tidyOf(amount(digits)) },
  ];
  return (
    <EntryGrid
      label="Cost side"
      columns={columns}
      rows={form.cost}
      onRows={(cost) => setForm((before) => ({ ...before, cost }))}
      faults={faults}
      height={200}
      blank={Math.max(4, form.cost.length + 1)}
    />
  );
}
