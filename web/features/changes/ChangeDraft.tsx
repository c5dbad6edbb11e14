import {
  useAddChangeMutation,
  useDeleteChangeMutation,
  useIssueChangeMutation,
  useSaveChangeMutation,
} from '../../ground/api/api';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import { COST_TYPES } from '../../../core/costs/costType';
import type { ChangeView } from '../../../wire/changes';
import type { EstimateView } from '../../../wire/jobs';
import type { PriceBookView } from '../../../wire/prices';
import type { Lists } from '../../../wire/company';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { Field } from '../../kit/Field';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { readDate } from '../../kit/typed/readDate';
import { Refused } from '../../kit/States';
import { useTyped, type OnTyped } from '../../kit/StableForm';
import { tidyAmount } from '../../kit/typed/tidyAmount';
import { ChangeEffects } from './ChangeEffects';
import { formOf, readChange, type ChangeForm } from './changeForm';
import { FromCost, FromPriceBook } from './ChangeSources';

interface DraftProps {
  view: ChangeView;
  book: PriceBookView;
  lists: Lists;
  /** The job's SOV lines and cost lines. */
  spent: EstimateView;
  onTyped: OnTyped;
}

/** A draft change: its price side, its cost side, and what it would do to the job. */
export function ChangeDraft({ view, book, lists, spent, onTyped }: DraftProps) {
  const { digits, exact, code } = useCurrency();
  const { month, lastDay } = useAsOf();
  const keep = useKeepMonth();
  const navigate = useNavigate();
  const [form, setForm] = useState<ChangeForm>(() => formOf(view, digits));
  const [asked, setAsked] = useState(false);
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const [issuedOn, setIssuedOn] = useState(displayDate(lastDay));
  const [create, creating] = useAddChangeMutation();
  const [save, saving] = useSaveChangeMutation();
  const [discard] = useDeleteChangeMutation();
  const [issue] = useIssueChangeMutation();
  const context = useMemo(
    () => ({
      digits,
      month,
      costCodes: new Set(lists.costCodes.map((it) => it.code)),
      sovLines: new Set(spent.revenue.map((it) => it.line)),
    }),
    [digits, month, lists, spent],
  );
  const read = useMemo(() => readChange(form, view.version, context), [form, view.version, context]);
  const shown = new Map(
    [...read.faults, ...(refused?.faults ?? []).map((it) => [it.field, it.message] as const)].filter(
      ([at]) => asked || !at.startsWith('facts.'),
    ),
  );
  const part = (prefix: string) =>
    new Map([...shown].filter(([at]) => at.startsWith(prefix)).map(([at, text]) => [at.slice(prefix.length), text]));
  const fact = (key: keyof ChangeForm['facts']) => ({
    value: form.facts[key],
    onChange: (event: { target: { value: string } }) => {
      const { value } = event.target;
      setForm((before) => ({ ...before, facts: { ...before.facts, [key]: value } }));
    },
  });
  const add = (rows: { price?: GridRow[]; cost: GridRow[] }) =>
    setForm((before) => ({
      ...before,
      price: [...before.price.filter(hasText), ...(rows.price ?? [])],
      cost: [...before.cost.filter(hasText), ...rows.cost],
    }));
  const base = `/jobs/${encodeURIComponent(view.job)}/changes`;
  const saveDraft = async (): Promise<boolean> => {
    setAsked(true);
    setRefused(null);
    if (read.faults.size > 0) {
      setRefused({
        message: `${read.faults.size} ${read.faults.size === 1 ? 'field needs' : 'fields need'} attention; see the notes beside them.`,
        faults: [],
      });
      return false;
    }
    try {
      if (view.version === 0) await create({ job: view.job, body: read.input }).unwrap();
      else await save({ job: view.job, change: view.number, body: read.input }).unwrap();
      onTyped(false);
      toast(`${read.input.number} saved`);
      void navigate(keep(`${base}/${encodeURIComponent(read.input.number)}`), { replace: true });
      return true;
    } catch (error) {
      setRefused(faultOf(error));
      return false;
    }
  };
  const attempt = async (work: () => Promise<unknown>) => {
    try {
      await work();
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  const send = () =>
    attempt(async () => {
      const on = readDate(issuedOn, month);
      if (!on) return setRefused({ message: 'Issued on: enter a date, e.g. 30 Apr 2031', faults: [] });
      if (changed && !(await saveDraft())) return;
      await issue({ job: view.job, change: read.input.number, body: { on } }).unwrap();
      toast(`${read.input.number} is issued: ${exact(read.price)} asked for`);
    });
  const typed = JSON.stringify(form) !== JSON.stringify(formOf(view, digits));
  const changed = view.version === 0 || typed;
  useTyped(typed, onTyped);
  return (
    <div className="grid gap-6" style={{ gridTemplateColumns: 'minmax(0, 1fr) 290px' }}>
      <div>
        <div className="mb-2 grid items-end gap-3" style={{ gridTemplateColumns: '90px minmax(0, 1fr) 120px 150px 90px' }}>
          <Field label="Change" fault={part('facts.').get('number')}>
            <input {...fact('number')} />
          </Field>
          <Field label="Title" fault={part('facts.').get('title')}>
            <input {...fact('title')} autoFocus={view.version === 0} />
          </Field>
          <Field label="Raised on" fault={part('facts.').get('raisedOn')}>
            <input {...fact('raisedOn')} />
          </Field>
          <Field label="Requested by">
            <input {...fact('askedBy')} />
          </Field>
          <Field label="Extension requested, days" fault={part('facts.').get('daysAsked')}>
            <input {...fact('daysAsked')} style={{ textAlign: 'right' }} />
          </Field>
        </div>
        <div className="mb-3 grid gap-3" style={{ gridTemplateColumns: 'minmax(0, 1fr) 200px' }}>
          <Field label="Reason">
            <input {...fact('reason')} />
          </Field>
          <Field label="Reference">
            <input {...fact('reference')} />
          </Field>
        </div>
        <div className="mb-1 flex items-end justify-between">
          <h2>Price: what the client pays</h2>
          <span role="status">
            {exact(read.price)} {code}
          </span>
        </div>
        <PriceGrid form={form} setForm={setForm} faults={part('price.')} spent={spent} />
        <div className="mb-1 mt-4 flex items-end justify-between">
          <h2>Cost: what it takes</h2>
          <span role="status">
            {exact(read.cost)} {code}
          </span>
        </div>
        <CostGrid form={form} setForm={setForm} faults={part('cost.')} spent={spent} lists={lists} />
        <div className="mt-2 flex flex-wrap gap-2">
          <FromPriceBook book={book} sections={sectionsOf(spent)} onRows={add} />
          <FromCost spent={spent} onRows={add} />
        </div>
        {refused && <Refused message={refused.message} />}
      </div>
      <aside aria-label="What it would do">
        <div className="mb-4 flex flex-col items-start gap-2">
          <button
            type="button"
            className={`button ${changed ? 'main' : ''}`}
            disabled={!changed || saving.isLoading || creating.isLoading}
            onClick={() => void saveDraft()}
          >
            {changed ? `Save ${form.facts.number}` : 'Saved'}
          </button>
          {view.version > 0 && (
            <button
              type="button"
              className="button bare"
              onClick={() =>
                void attempt(async () => {
                  await discard({ job: view.job, change: view.number }).unwrap();
                  void navigate(keep(base));
                })
              }
            >
              Delete draft
            </button>
          )}
        </div>
        {view.effect && !changed ? (
          <ChangeEffects effect={view.effect} />
        ) : (
          <p className="note">Save to see the effect on contract sum, estimate, margin and finish.</p>
        )}
        {view.version > 0 && (
          <form
            className="mt-4 flex items-end gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              void send();
            }}
          >
            <Field label="Issued on">
              <input value={issuedOn} style={{ width: 120 }} onChange={(event) => setIssuedOn(event.target.value)} />
            </Field>
            <button className={`button ${changed ? '' : 'main'}`}>Issue, {exact(read.price)}</button>
          </form>
        )}
      </aside>
    </div>
  );
}

const hasText = (row: GridRow) => Object.values(row).some((text) => text.trim() !== '');
const sectionsOf = (spent: EstimateView) => [...new Set(spent.lines.map((it) => it.section))].filter(Boolean);

interface GridProps {
  form: ChangeForm;
  setForm: React.Dispatch<React.SetStateAction<ChangeForm>>;
  faults: ReadonlyMap<string, string>;
  spent: EstimateView;
}

function PriceGrid({ form, setForm, faults, spent }: GridProps) {
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
    { key: 'amount', title: 'Change, +/−', width: 110, numeric: true, tidy: tidyAmount(digits) },
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

function CostGrid({ form, setForm, faults, spent, lists }: GridProps & { lists: Lists }) {
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
        ...form.price.filter((row) => row.line).map((row) => ({ value: row.line!, label: row.description ?? '' })),
        ...spent.revenue.map((it) => ({ value: it.line, label: it.description })),
      ],
    },
    { key: 'description', title: 'Description', width: 'auto' },
    { key: 'quantity', title: 'Quantity', width: 74, numeric: true },
    { key: 'unit', title: 'Unit', width: 46 },
    { key: 'hours', title: 'Hours', width: 66, numeric: true },
    { key: 'amount', title: 'Amount', width: 100, numeric: true, tidy: tidyAmount(digits) },
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
