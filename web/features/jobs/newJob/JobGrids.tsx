import { isFilled } from '../../../kit/grid/filledRow';
import { amount, tidyOf } from '../../../kit/typed/codecs';
import { present } from '../../../../core/errors/known';
import { useMemo } from 'react';
import { COST_TYPES } from '../../../../core/costs/costType';
import type { Lists } from '../../../../wire/company';
import { useCurrency } from '../../../ground/company';
import { EntryGrid } from '../../../kit/grid/EntryGrid';
import { SheetImport } from '../../../ground/sheets/SheetImport';
import type { GridColumn } from '../../../kit/grid/gridTypes';
import { type JobForm } from './readJob';

interface GridProps {
  form: JobForm;
  setForm: React.Dispatch<React.SetStateAction<JobForm>>;
  faults: ReadonlyMap<string, string>;
  lists: Lists;
}

export function SovGrid({ form, setForm, faults }: GridProps) {
  const { digits } = useCurrency();
  const columns = useMemo(
    (): GridColumn[] => [
      { key: 'line', title: 'Line', width: 80 },
      { key: 'section', title: 'Section', width: 150 },
      { key: 'description', title: 'Description', width: 'auto' },
      { key: 'value', title: 'Scheduled value', width: 140, numeric: true, tidy: tidyOf(amount(digits)) },
      { key: 'quantity', title: 'Quantity', width: 90, numeric: true },
      { key: 'unit', title: 'Unit', width: 70 },
      { key: 'retention', title: 'Line retention %', width: 100, numeric: true },
    ],
    [digits],
  );
  return (
    <>
      <div className="mb-1 flex flex-wrap items-center gap-2">
        <SheetImport
          of="sov"
          columns={columns}
          onRows={(rows) => setForm((before) => ({ ...before, sov: [...before.sov.filter(isFilled), ...rows] }))}
        />
      </div>
      <EntryGrid
        label="Schedule of values"
        columns={columns}
        rows={form.sov}
        faults={faults}
        onRows={(sov) => setForm((before) => ({ ...before, sov }))}
        height={300}
        blank={4}
      />
    </>
  );
}

export function BudgetGrid({ form, setForm, faults, lists }: GridProps) {
  const { digits } = useCurrency();
  const columns = useMemo(
    (): GridColumn[] => [
      {
        key: 'section',
        title: 'Section',
        width: 150,
        offers: () =>
          [...new Set(form.sov.map((row) => row.section ?? '').filter(Boolean))].map((value) => ({ value, label: '' })),
      },
      {
        key: 'code',
        title: 'Cost code',
        width: 100,
        offers: () => lists.costCodes.map((it) => ({ value: it.code, label: it.description })),
      },
      { key: 'type', title: 'Type', width: 110, offers: () => COST_TYPES.map((value) => ({ value, label: '' })) },
      {
        key: 'sovLine',
        title: 'SOV line',
        width: 90,
        offers: () =>
          form.sov.filter((row) => row.line).map((row) => ({ value: present(row.line), label: row.description ?? '' })),
      },
      { key: 'description', title: 'Description', width: 'auto' },
      { key: 'quantity', title: 'Quantity', width: 90, numeric: true },
      { key: 'unit', title: 'Unit', width: 60 },
      { key: 'hours', title: 'Hours', width: 80, numeric: true },
      { key: 'amount', title: 'Amount', width: 140, numeric: true, tidy: tidyOf(amount(digits)) },
    ],
    [digits, form.sov, lists],
  );
  return (
    <>
      <div className="mb-1 flex flex-wrap items-center gap-2">
        <SheetImport
          of="budget"
          columns={columns}
          onRows={(rows) => setForm((before) => ({ ...before, budget: [...before.budget.filter(isFilled), ...rows] }))}
        />
      </div>
      <EntryGrid
        label="Budget"
        columns={columns}
        rows={form.budget}
        faults={faults}
        onRows={(budget) => setForm((before) => ({ ...before, budget }))}
        height={340}
        blank={5}
      />
    </>
  );
}
