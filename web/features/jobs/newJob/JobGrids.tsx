import { isFilled } from '../../../kit/grid/filledRow';
import { columnsOf } from '../../../kit/grid/rowCodecs';
import { present } from '../../../../core/errors/known';
import { useMemo, type ReactNode } from 'react';
import { COST_TYPES } from '../../../../core/costs/costType';
import type { Lists } from '../../../../wire/company';
import { EntryGrid } from '../../../kit/grid/EntryGrid';
import { SheetImport } from '../../../ground/sheets/SheetImport';
import type { GridColumn } from '../../../kit/grid/gridTypes';
import { GridHeading } from './GridHeading';
import type { JobCodecs, JobForm } from './readJob';

interface GridProps {
  form: JobForm;
  setForm: (change: (before: JobForm) => JobForm) => void;
  codecs: JobCodecs;
  faults: ReadonlyMap<string, string>;
  /** What the rows come to, beside the heading. */
  children: ReactNode;
}

export function SovGrid({ form, setForm, codecs, faults, children }: GridProps) {
  const columns = useMemo(
    (): GridColumn[] =>
      columnsOf(codecs.sov, [
        { key: 'line', title: 'Line', width: 80 },
        { key: 'section', title: 'Section', width: 150 },
        { key: 'description', title: 'Description', width: 'auto' },
        { key: 'value', title: 'Scheduled value', width: 140 },
        { key: 'quantity', title: 'Quantity', width: 90 },
        { key: 'unit', title: 'Unit', width: 70 },
        { key: 'retention', title: 'Line retention %', width: 100 },
      ]),
    [codecs],
  );
  return (
    <>
      <GridHeading
        title="Schedule of values"
        tools={
          <SheetImport
            of="sov"
            columns={columns}
            onRows={(rows) => setForm((before) => ({ ...before, sov: [...before.sov.filter(isFilled), ...rows] }))}
          />
        }
      >
        {children}
      </GridHeading>
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

export function BudgetGrid({ form, setForm, codecs, faults, lists, children }: GridProps & { lists: Lists }) {
  const columns = useMemo(
    (): GridColumn[] =>
      columnsOf(codecs.budget, [
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
        { key: 'quantity', title: 'Quantity', width: 90 },
        { key: 'unit', title: 'Unit', width: 60 },
        { key: 'hours', title: 'Hours', width: 80 },
        { key: 'amount', title: 'Amount', width: 140 },
      ]),
    [codecs, form.sov, lists],
  );
  return (
    <>
      <GridHeading
        title="Budget"
        tools={
          <SheetImport
            of="budget"
            columns={columns}
            onRows={(rows) => setForm((before) => ({ ...before, budget: [...before.budget.filter(isFilled), ...rows] }))}
          />
        }
      >
        {children}
      </GridHeading>
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
