import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { describeRetention } from '../../../core/billing/describeRetention';
import { COST_TYPES } from '../../../core/cost/costType';
import { formatPercentShortest } from '../../../core/money/rate';
import { REVENUE_METHODS } from '../../../core/progress/workInProgress';
import type { Lists } from '../../../wire/setup';
import { useAsOf, useKeepMonth } from '../../app/asOf';
import { useCurrency } from '../../app/company';
import { faultOf, type ShownFault } from '../../app/faults';
import { useListsQuery, useSessionQuery } from '../../app/sessionApi';
import { EntryGrid, type GridColumn } from '../../ui/EntryGrid';
import { Field } from '../../ui/Field';
import { Refused, Waiting } from '../../ui/States';
import { tidyAmount } from '../../ui/tidyAmount';
import { useAddCostCodesMutation, useCreateJobMutation, useJobListQuery, useSaveDraftMutation } from './api';
import { NewCustomer } from './NewCustomer';
import { readJob, type JobForm } from './readJob';

const EMPTY: JobForm = { facts: {}, sov: [], budget: [] };

/** Sets up a job: its facts, its schedule of values, its budget. Half-made, it is kept. */
export function NewJobPage() {
  const { month } = useAsOf();
  const [params] = useSearchParams();
  const draft = params.get('draft');
  const { data: session } = useSessionQuery();
  const { data: lists } = useListsQuery({ asOf: month });
  const { data: jobs } = useJobListQuery({ asOf: month });
  if (!session || !lists || !jobs) return <Waiting what="what a job is made of" />;
  const kept = jobs.drafts.find((it) => String(it.id) === draft)?.content as unknown as JobForm | undefined;
  const proposed: JobForm = {
    ...EMPTY,
    facts: {
      number: nextNumber(lists.jobs),
      status: 'awarded',
      retention: '5',
      tax: formatPercentShortest(session.company!.taxRate),
      stepApplies: 'all',
      revenueMethod: 'cost-to-cost',
    },
  };
  return <JobForms key="form" start={kept ?? proposed} draftId={kept ? Number(draft) : null} lists={lists} />;
}

/** One more than the highest number in use, in the same number of digits. */
function nextNumber(jobs: Lists['jobs']): string {
  const numbers = jobs.map((job) => job.number).filter((it) => /^\d{1,12}$/.test(it));
  const highest = Math.max(1000, ...numbers.map(Number));
  return String(highest + 1).padStart(Math.max(0, ...numbers.map((it) => it.length)), '0');
}

const DRAFT_PAUSE = 900;

/** Keeps the form as a draft a moment after each change. */
function useDraft(form: JobForm, start: JobForm, startId: number | null) {
  const id = useRef(startId);
  const finished = useRef(false);
  const saving = useRef<Promise<unknown>>(Promise.resolve());
  const [savedAt, setSavedAt] = useState<string | null>(null);
  const [save] = useSaveDraftMutation();
  useEffect(() => {
    if (form === start) return;
    const timer = setTimeout(() => {
      saving.current = saving.current.then(async () => {
        if (finished.current) return;
        const saved = await save({ id: id.current, content: form as unknown as Record<string, unknown> })
          .unwrap()
          .catch(() => null);
        if (saved) id.current = saved.id;
        setSavedAt(saved ? new Date().toLocaleTimeString('en-GB', { timeStyle: 'short' }) : null);
      });
    }, DRAFT_PAUSE);
    return () => clearTimeout(timer);
  }, [form, start, save]);
  return {
    id,
    savedAt,
    settle: async () => {
      finished.current = true;
      await saving.current;
    },
  };
}

function JobForms({ start, draftId, lists }: { start: JobForm; draftId: number | null; lists: Lists }) {
  const { month } = useAsOf();
  const currency = useCurrency();
  const { digits, exact, code } = currency;
  const navigate = useNavigate();
  const keep = useKeepMonth();
  const [form, setForm] = useState(start);
  const [asked, setAsked] = useState(false);
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const { id, savedAt, settle } = useDraft(form, start, draftId);
  const [createJob, { isLoading }] = useCreateJobMutation();
  const context = useMemo(
    () => ({
      digits,
      month,
      customers: new Set(lists.customers.map((it) => it.code)),
      costCodes: new Set(lists.costCodes.map((it) => it.code)),
    }),
    [digits, month, lists],
  );
  const read = useMemo(() => readJob(form, context), [form, context]);
  const setFact = (key: string, value: string) => setForm((before) => ({ ...before, facts: { ...before.facts, [key]: value } }));
  // A cell that is filled and wrong says so at once; what is still missing waits until the job is to be set up.
  const shown = useMemo(() => new Map([...read.faults].filter(([at]) => asked || typedAt(form, at) !== '')), [read, asked, form]);
  const part = (prefix: string) =>
    new Map([...shown].filter(([at]) => at.startsWith(prefix)).map(([at, message]) => [at.slice(prefix.length), message]));
  const target = read.contractSum ?? read.sovTotal;
  const difference = target - read.sovTotal;
  const create = async () => {
    setAsked(true);
    setRefused(null);
    if (!read.input)
      return setRefused({
        message:
          difference !== 0 && read.faults.size === 0
            ? `The schedule of values is ${exact(Math.abs(difference))} ${difference > 0 ? 'short of' : 'over'} the contract sum. Change a line, or the sum.`
            : `${read.faults.size} ${read.faults.size === 1 ? 'thing is' : 'things are'} missing or wrong; each says what, where it stands.`,
        faults: [],
      });
    try {
      await settle();
      const { number } = await createJob({ ...read.input, draftId: id.current }).unwrap();
      toast(`Job ${number} is set up`);
      void navigate(keep(`/jobs/${encodeURIComponent(number)}`));
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  return (
    <div className="page">
      <div className="mb-3 flex items-end justify-between gap-6">
        <h1>New job</h1>
        <span className="note text-[12.5px]" role="status">
          {savedAt ? `Kept as a draft at ${savedAt}` : 'Kept as a draft as you type'}
        </span>
      </div>
      <Facts facts={form.facts} setFact={setFact} faults={part('facts.')} lists={lists} />
      <div className="mt-5 flex items-end justify-between">
        <h2>Schedule of values</h2>
        <p className="m-0" role="status">
          {exact(read.sovTotal)} of {exact(target)} {code}; difference{' '}
          <b style={{ color: difference === 0 ? 'var(--good)' : 'var(--loss)' }}>{exact(difference)}</b>
        </p>
      </div>
      <SovGrid form={form} setForm={setForm} faults={part('sov.')} lists={lists} />
      <div className="mt-5 flex items-end justify-between">
        <h2>Budget</h2>
        <p className="m-0" role="status">
          {exact(read.budgetTotal)} {code}; expected profit{' '}
          <b style={{ color: target < read.budgetTotal ? 'var(--loss)' : 'inherit' }}>{exact(target - read.budgetTotal)}</b>
        </p>
      </div>
      <BudgetGrid form={form} setForm={setForm} faults={part('budget.')} lists={lists} />
      <NewCodes codes={read.unknownCodes} />
      {refused && <Refused message={refused.message} />}
      <div className="mt-4 flex items-center gap-3">
        <button type="button" className="press main" disabled={isLoading} onClick={() => void create()}>
          Set up job {form.facts.number}
          {target !== 0 && `, ${exact(target)}`}
        </button>
        <span className="note">
          Both grids take a block pasted from a spreadsheet. The schedule must come to the contract sum; the budget may follow by
          import.
        </span>
      </div>
    </div>
  );
}

/** What stands in the cell or field a fault is about. */
function typedAt(form: JobForm, at: string): string {
  const [where, ...rest] = at.split('.');
  const text = where === 'facts' ? form.facts[rest[0]!] : form[where as 'sov' | 'budget'][Number(rest[0])]?.[rest[1]!];
  return (text ?? '').trim();
}

function Facts({
  facts,
  setFact,
  faults,
  lists,
}: {
  facts: Record<string, string>;
  setFact: (key: string, value: string) => void;
  faults: ReadonlyMap<string, string>;
  lists: Lists;
}) {
  const { digits } = useCurrency();
  const rule = describeTyped(facts);
  const input = (key: string, label: string, props: Record<string, unknown> = {}) => (
    <Field label={label} fault={faults.get(key)}>
      <input value={facts[key] ?? ''} autoComplete="off" onChange={(event) => setFact(key, event.target.value)} {...props} />
    </Field>
  );
  const select = (key: string, label: string, options: readonly (readonly [string, string])[]) => (
    <Field label={label} fault={faults.get(key)}>
      <select value={facts[key] ?? ''} onChange={(event) => setFact(key, event.target.value)}>
        {options.map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
    </Field>
  );
  const tidySum = () => setFact('contractSum', tidyAmount(digits)(facts.contractSum ?? ''));
  return (
    <div className="sheet grid grid-cols-6 gap-x-4 gap-y-3 px-4 py-3">
      {input('number', 'Job number')}
      <div className="col-span-2">{input('name', 'Name', { autoFocus: true })}</div>
      <div className="col-span-2 flex items-end gap-2">
        <Field label="Client" fault={faults.get('customer')} className="grow">
          <select value={facts.customer ?? ''} onChange={(event) => setFact('customer', event.target.value)}>
            <option value="">Choose a client</option>
            {lists.customers.map((it) => (
              <option key={it.code} value={it.code}>
                {it.code} · {it.name}
              </option>
            ))}
          </select>
        </Field>
        <NewCustomer onAdded={(code) => setFact('customer', code)} />
      </div>
      {select('status', 'Status', [
        ['awarded', 'awarded'],
        ['on-site', 'on-site'],
        ['tender', 'tender'],
      ])}
      {input('contractSum', 'Contract sum', { className: 'sum', inputMode: 'decimal', onBlur: tidySum })}
      {input('contractReference', 'Contract reference')}
      {input('awardedOn', 'Awarded on', { placeholder: '30 Apr 2031' })}
      {input('startsOn', 'Start', { placeholder: '30 Apr 2031' })}
      {input('finishesOn', 'Planned finish', { placeholder: '30 Apr 2031' })}
      {input('manager', 'Manager', { list: 'managers' })}
      {input('retention', 'Retention %', { className: 'sum' })}
      {input('materials', 'On materials %', { className: 'sum', placeholder: 'as on work' })}
      {input('stepAt', 'Step at % of contract', { className: 'sum', placeholder: 'no step' })}
      {input('stepTo', 'Step to %', { className: 'sum', placeholder: 'no step' })}
      {select('stepApplies', 'The step changes', [
        ['all', 'the rate on all work'],
        ['further', 'the rate on further work'],
      ])}
      {input('cap', 'Cap % of contract', { className: 'sum', placeholder: 'no cap' })}
      {input('tax', 'Tax %', { className: 'sum' })}
      {input('terms', 'Terms, days', { className: 'sum', placeholder: "the client's" })}
      {select(
        'revenueMethod',
        'Revenue by',
        REVENUE_METHODS.map((it) => [it, it]),
      )}
      <div className="col-span-3">{input('site', 'Site')}</div>
      <p className="note col-span-6 m-0">{rule}</p>
      <datalist id="managers">
        {lists.managers.map((it) => (
          <option key={it} value={it} />
        ))}
      </datalist>
    </div>
  );
}

function describeTyped(facts: Record<string, string>): string {
  const rate = (key: string) =>
    facts[key]?.trim() && Number.isFinite(Number(facts[key])) ? Math.round(Number(facts[key]) * 10_000) : null;
  const [at, to] = [rate('stepAt'), rate('stepTo')];
  return `Retention in words: ${describeRetention({ rate: rate('retention') ?? 0, materialsRate: rate('materials'), step: at !== null && to !== null ? { at, to, applies: facts.stepApplies === 'further' ? 'further' : 'all' } : null, cap: rate('cap') })}`;
}

interface GridProps {
  form: JobForm;
  setForm: React.Dispatch<React.SetStateAction<JobForm>>;
  faults: ReadonlyMap<string, string>;
  lists: Lists;
}

function SovGrid({ form, setForm, faults }: GridProps) {
  const { digits } = useCurrency();
  const columns = useMemo(
    (): GridColumn[] => [
      { key: 'line', title: 'Line', width: 80 },
      { key: 'section', title: 'Section', width: 150 },
      { key: 'description', title: 'Description', width: 'auto' },
      { key: 'value', title: 'Scheduled value', width: 140, numeric: true, tidy: tidyAmount(digits) },
      { key: 'quantity', title: 'Quantity', width: 90, numeric: true },
      { key: 'unit', title: 'Unit', width: 70 },
      { key: 'retention', title: 'Own retention %', width: 100, numeric: true },
    ],
    [digits],
  );
  return (
    <EntryGrid
      label="Schedule of values"
      columns={columns}
      rows={form.sov}
      faults={faults}
      onRows={(sov) => setForm((before) => ({ ...before, sov }))}
      height={300}
      blank={4}
    />
  );
}

function BudgetGrid({ form, setForm, faults, lists }: GridProps) {
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
        offers: () => form.sov.filter((row) => row.line).map((row) => ({ value: row.line!, label: row.description ?? '' })),
      },
      { key: 'description', title: 'Description', width: 'auto' },
      { key: 'quantity', title: 'Quantity', width: 90, numeric: true },
      { key: 'unit', title: 'Unit', width: 60 },
      { key: 'hours', title: 'Hours', width: 80, numeric: true },
      { key: 'amount', title: 'Amount', width: 140, numeric: true, tidy: tidyAmount(digits) },
    ],
    [digits, form.sov, lists],
  );
  return (
    <EntryGrid
      label="Budget"
      columns={columns}
      rows={form.budget}
      faults={faults}
      onRows={(budget) => setForm((before) => ({ ...before, budget }))}
      height={340}
      blank={5}
    />
  );
}

/** Cost codes the budget names and the company does not have yet. */
function NewCodes({ codes }: { codes: readonly string[] }) {
  const [names, setNames] = useState<Record<string, string>>({});
  const [addCodes, { isLoading }] = useAddCostCodesMutation();
  const [fault, setFault] = useState<string>();
  if (codes.length === 0) return null;
  const add = async (event: React.FormEvent) => {
    event.preventDefault();
    try {
      await addCodes({ codes: codes.map((code) => ({ code, description: names[code] ?? '', unit: '' })) }).unwrap();
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <form className="sheet mt-3 flex flex-wrap items-end gap-3 px-3 py-2" onSubmit={add}>
      <b className="self-center">New cost codes</b>
      {codes.slice(0, 40).map((code) => (
        <Field key={code} label={`What ${code} is for`}>
          <input required value={names[code] ?? ''} onChange={(event) => setNames({ ...names, [code]: event.target.value })} />
        </Field>
      ))}
      <button className="press" disabled={isLoading}>
        Add {codes.length === 1 ? codes[0] : `${codes.length} codes`} to the cost codes
      </button>
      {fault && (
        <span role="alert" className="fault">
          {fault}
        </span>
      )}
    </form>
  );
}
