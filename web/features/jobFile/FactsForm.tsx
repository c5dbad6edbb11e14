import { strangerHint } from '../../ground/strangers';
import { useMemo } from 'react';
import { toast } from '../../kit/toast';
import { describeRetention } from '../../../core/billing/describeRetention';
import { PRICING_WORDS, PRICINGS } from '../../../core/charging/pricing';
import { DAY_FACTS, TEXT_FACTS, type DayFact, type TextFact } from '../../../core/jobs/jobFacts';
import { LIST_FACTS, type ListFact } from '../../../core/jobs/listFacts';
import { REVENUE_METHODS } from '../../../core/progress/workInProgress';
import type { JobFacts, JobFileView } from '../../../wire/jobFile';
import type { Lists } from '../../../wire/company';
import type { Option } from '../../kit/choice/options';
import { useListsQuery, useSaveJobFactsMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import type { Values } from '../../kit/form/codecSchema';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { useTyped, type OnTyped } from '../../kit/StableForm';
import { amount, day, oneOf, optional, percent, whole, words } from '../../kit/typed/codecs';
import { RetentionCurve } from './RetentionCurve';

const STEPS = ['all', 'further'] as const;

function eachOf<Facts extends object, Value>(facts: Facts, make: (name: keyof Facts) => Value) {
  return Object.fromEntries(Object.keys(facts).map((name) => [name, make(name as keyof Facts)])) as Record<keyof Facts, Value>;
}

const fieldsOf = (month: string, digits: number) => ({
  name: words('Expected a name'),
  client: words('Choose the client'),
  ...eachOf(TEXT_FACTS, () => words()),
  ...eachOf(DAY_FACTS, () => optional(day(month), null)),
  ...eachOf(LIST_FACTS, () => words()),
  revenueMethod: oneOf(REVENUE_METHODS),
  pricing: oneOf(PRICINGS),
  ceiling: optional(amount(digits), null),
  rate: optional(percent, 0),
  materialsRate: optional(percent, null),
  stepAt: optional(percent, null),
  stepTo: optional(percent, null),
  stepApplies: oneOf(STEPS),
  cap: optional(percent, null),
  noRetention: optional(oneOf(['yes']), null),
  taxRate: optional(percent, 0),
  termsDays: optional(whole('days'), null),
});
type Fields = ReturnType<typeof fieldsOf>;

function startOf(it: JobFacts, fields: Fields) {
  const { retention: r, ...facts } = it;
  const write = <Value,>(codec: { format: (value: Value) => string }, value: Value) => codec.format(value);
  return {
    name: facts.name,
    client: facts.client,
    revenueMethod: facts.revenueMethod,
    pricing: facts.pricing,
    ceiling: write(fields.ceiling, facts.ceiling),
    stepApplies: r.stepApplies,
    ...eachOf(TEXT_FACTS, (name) => facts[name]),
    ...eachOf(DAY_FACTS, (name) => write(fields[name], facts[name])),
    ...eachOf(LIST_FACTS, (name) => facts[name]),
    rate: percent.format(r.rate),
    materialsRate: write(fields.materialsRate, r.materialsRate),
    stepAt: write(fields.stepAt, r.stepAt),
    stepTo: write(fields.stepTo, r.stepTo),
    cap: write(fields.cap, r.cap),
    noRetention: facts.noRetention ? 'yes' : '',
    taxRate: percent.format(facts.taxRate),
    termsDays: write(fields.termsDays, facts.termsDays),
  };
}

function factsOf(it: Values<Fields>): JobFacts {
  const { rate, materialsRate, stepAt, stepTo, stepApplies, cap, noRetention, ...facts } = it;
  return {
    ...facts,
    retention: { rate, materialsRate, stepAt, stepTo, stepApplies, cap },
    noRetention: noRetention === 'yes',
  };
}

/** The facts of a job, to be changed; beside the retention rule stand its words and what it will hold. */
export function FactsForm({ job, view, onTyped }: { job: string; view: JobFileView; onTyped: OnTyped }) {
  const { month } = useAsOf();
  const { digits } = useCurrency();
  const fields = useMemo(() => fieldsOf(month, digits), [month, digits]);
  const form = useCodecForm(fields, startOf(view.facts, fields), {
    partOfPage: true,
    fieldOf: (field) => field.replace(/^retention\./, '').replace(/^retention$/, 'rate'),
  });
  const [save, { isLoading }] = useSaveJobFactsMutation();
  useTyped(form.changed, onTyped);
  const onSubmit = form.submit(async (values) => {
    await save({ job, body: { ...factsOf(values), seen: view.seen.facts } }).unwrap();
    onTyped(false);
    toast('Job details saved');
  }, faultOf);
  return (
    <form aria-label="Facts" onSubmit={onSubmit} noValidate>
      <div className="mb-2 flex items-end justify-between">
        <h2>Job details</h2>
        <button className={`button ${form.changed ? 'main' : ''}`} disabled={!form.changed || isLoading}>
          {form.changed ? 'Save job details' : 'Saved'}
        </button>
      </div>
      <div className="sheet facts-beside px-4 py-3">
        <div className="grid grid-cols-6 content-start gap-x-4 gap-y-3">
          <Names form={form} fixed={view.fixed} billed={view.billed} />
          <Money form={form} fixed={view.fixed} />
        </div>
        <Curve form={form} view={view} />
      </div>
      {form.refused && (
        <p role="alert" className="fault">
          {form.refused}
        </p>
      )}
    </form>
  );
}

/** Facts that name one of our people. */
const PEOPLE_FACTS: ReadonlySet<string> = new Set(['manager', 'estimator'] satisfies TextFact[]);

/** What a fact can be chosen from; what stands there already stays, though it is closed to new use. */
function listed(lists: Lists | undefined, fact: ListFact, now: string): Option[] {
  const rows = { kind: lists?.kinds, department: lists?.departments, workKind: lists?.workKinds }[fact] ?? [];
  const gone = now !== '' && !rows.some((it) => it.code === now);
  return [['', 'none'], ...rows.map((it): Option => [it.code, `${it.code} ${it.name}`]), ...(gone ? [[now, now] as const] : [])];
}

type Form = ReturnType<typeof useCodecForm<Fields>>;

function Names({ form, fixed, billed }: { form: Form; fixed: boolean; billed: boolean }) {
  const { input, choice, text } = form;
  const { asOf } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const clients = (lists?.clients ?? []).map((it) => [it.code, `${it.code} ${it.name}`] as const);
  return (
    <>
      <div className="col-span-2">{input('name', 'Name')}</div>
      {choice('client', 'Client', clients, { disabled: billed, className: 'col-span-2' })}
      {Object.entries(TEXT_FACTS).map(([name, { title }]) => (
        <div key={name} className="col-span-2">
          {input(
            name as TextFact,
            title,
            PEOPLE_FACTS.has(name) ? { list: 'people', hint: strangerHint(text[name as TextFact], lists?.people ?? []) } : {},
          )}
        </div>
      ))}
      <datalist id="people">
        {lists?.people.map((it) => (
          <option key={it} value={it} />
        ))}
      </datalist>
      {Object.entries(LIST_FACTS).map(([name, { title }]) => (
        <div key={name} className="col-span-2">
          {choice(name as ListFact, title, listed(lists, name as ListFact, text[name as ListFact] ?? ''))}
        </div>
      ))}
      {choice(
        'pricing',
        'Priced by',
        PRICINGS.map((it): Option => [it, PRICING_WORDS[it]]),
        { className: 'col-span-2' },
      )}
      {text.pricing === 'charged' ? (
        <div className="col-span-2">{input('ceiling', 'Ceiling, before tax', { placeholder: 'none' })}</div>
      ) : (
        choice('revenueMethod', 'Revenue recognition', REVENUE_METHODS, { disabled: fixed, className: 'col-span-2' })
      )}
      {Object.entries(DAY_FACTS).map(([name, { title }]) => (
        <div key={name} className="col-span-2">
          {input(name as DayFact, title)}
        </div>
      ))}
    </>
  );
}

/** What the job is billed with: it stays once something is billed or posted. */
function Money({ form, fixed }: { form: Form; fixed: boolean }) {
  const figure = (name: keyof Fields, label: string, placeholder?: string) =>
    form.input(name, label, { disabled: fixed, placeholder });
  return (
    <>
      {figure('taxRate', 'Tax %')}
      {figure('termsDays', 'Terms, days', "the client's")}
      {figure('rate', 'Retention %')}
      {figure('materialsRate', 'On materials %', 'as on work')}
      {figure('stepAt', 'Reduces at % complete', 'no step')}
      {figure('stepTo', 'Reduces to %', 'no step')}
      {form.choice(
        'stepApplies',
        'Reduction applies to',
        [
          ['all', 'all work'],
          ['further', 'further work'],
        ],
        { disabled: fixed },
      )}
      {figure('cap', 'Cap %', 'no cap')}
      {form.valueOf('rate') === 0 && (
        <label className="col-span-6 flex items-center gap-2">
          <input
            type="checkbox"
            checked={form.text.noRetention === 'yes'}
            onChange={(event) => form.set('noRetention', event.target.checked ? 'yes' : '')}
          />
          It was agreed that nothing is retained
        </label>
      )}
      {fixed && (
        <p className="note col-span-6 m-0 text-[12.5px]">
          Retention, tax, terms and revenue method are what this job was billed or posted with: they stay.
        </p>
      )}
    </>
  );
}

/** What the rule as typed will hold over the life of the job. */
function Curve({ form, view }: { form: Form; view: JobFileView }) {
  const [stepAt, stepTo] = [form.valueOf('stepAt'), form.valueOf('stepTo')];
  const rule = {
    rate: form.valueOf('rate') ?? 0,
    materialsRate: form.valueOf('materialsRate'),
    cap: form.valueOf('cap'),
    step: stepAt !== null && stepTo !== null ? { at: stepAt, to: stepTo, applies: form.valueOf('stepApplies') ?? 'all' } : null,
  };
  return <RetentionCurve rule={rule} lines={view.lines} words={describeRetention(rule)} />;
}
