import { useSaveJobFactsMutation } from '../../ground/api/api';
import { useState } from 'react';
import { toast } from 'sonner';
import { describeRetention } from '../../../core/billing/describeRetention';
import { displayDate } from '../../../core/calendar/displayDate';
import { formatPercentShortest, parsePercent } from '../../../core/money/rate';
import { REVENUE_METHODS } from '../../../core/progress/workInProgress';
import type { JobFacts, JobFileView } from '../../../wire/jobFile';
import { useAsOf } from '../../ground/asOf';
import { faultOf, type ShownFault } from '../../ground/faults';
import { Field } from '../../kit/Field';
import { readDate } from '../../kit/typed/readDate';
import { useTyped, type OnTyped } from '../../kit/StableForm';
import { RetentionCurve } from './RetentionCurve';

type Typed = Record<
  | ('name' | 'contractReference' | 'manager' | 'estimator' | 'site' | 'startsOn' | 'finishesOn' | 'defectsEnd')
  | (
      | 'revenueMethod'
      | 'rate'
      | 'materialsRate'
      | 'stepAt'
      | 'stepTo'
      | 'stepApplies'
      | 'cap'
      | 'noRetention'
      | 'taxRate'
      | 'termsDays'
    ),
  string
>;

const percentText = (rate: number | null) => (rate === null ? '' : formatPercentShortest(rate));

function typedOf(it: JobFacts): Typed {
  const { retention: r } = it;
  return {
    ...{ name: it.name, contractReference: it.contractReference, manager: it.manager, estimator: it.estimator, site: it.site },
    ...{ startsOn: displayDate(it.startsOn), finishesOn: displayDate(it.finishesOn), defectsEnd: displayDate(it.defectsEnd) },
    ...{
      revenueMethod: it.revenueMethod,
      rate: percentText(r.rate),
      materialsRate: percentText(r.materialsRate),
      stepAt: percentText(r.stepAt),
    },
    ...{
      stepTo: percentText(r.stepTo),
      stepApplies: r.stepApplies,
      cap: percentText(r.cap),
      noRetention: it.noRetention ? 'yes' : '',
    },
    ...{ taxRate: percentText(it.taxRate), termsDays: it.termsDays === null ? '' : String(it.termsDays) },
  };
}

function readFacts(typed: Typed, month: string): { faults: Map<string, string>; input: JobFacts } {
  const faults = new Map<string, string>();
  const date = (key: 'startsOn' | 'finishesOn' | 'defectsEnd') => {
    if (typed[key].trim() === '') return null;
    const day = readDate(typed[key], month);
    if (!day) faults.set(key, 'Enter a date, e.g. 30 Apr 2031');
    return day;
  };
  const percent = (key: 'rate' | 'materialsRate' | 'stepAt' | 'stepTo' | 'cap' | 'taxRate') => {
    const text = typed[key].trim().replace(/\s*%$/, '');
    if (text === '') return null;
    const rate = parsePercent(text);
    if (!rate.ok) faults.set(key, 'Enter a percentage from 0 to 100');
    return rate.ok ? rate.value : null;
  };
  if (typed.name.trim() === '') faults.set('name', 'Expected a name');
  if (typed.termsDays.trim() !== '' && !/^\d{1,4}$/.test(typed.termsDays.trim()))
    faults.set('termsDays', 'Expected a number of days');
  const { name, contractReference, manager, estimator, site } = typed;
  return {
    faults,
    input: {
      ...{ name, contractReference, manager, estimator, site },
      ...{ startsOn: date('startsOn'), finishesOn: date('finishesOn'), defectsEnd: date('defectsEnd') },
      revenueMethod: typed.revenueMethod as JobFacts['revenueMethod'],
      retention: {
        rate: percent('rate') ?? 0,
        materialsRate: percent('materialsRate'),
        stepAt: percent('stepAt'),
        stepTo: percent('stepTo'),
        stepApplies: typed.stepApplies as 'all',
        cap: percent('cap'),
      },
      noRetention: typed.noRetention === 'yes',
      taxRate: percent('taxRate') ?? 0,
      termsDays: typed.termsDays.trim() === '' ? null : Number(typed.termsDays) || 0,
    },
  };
}

/** The facts of a job, to be changed; beside the retention rule stand its words and what it will hold. */
export function FactsForm({ job, view, onTyped }: { job: string; view: JobFileView; onTyped: OnTyped }) {
  const { month } = useAsOf();
  const [typed, setTyped] = useState(() => typedOf(view.facts));
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const [save, { isLoading }] = useSaveJobFactsMutation();
  const { faults, input } = readFacts(typed, month);
  for (const it of refused?.faults ?? [])
    faults.set(it.field.replace(/^retention\./, '').replace(/^retention$/, 'rate'), it.message);
  const changed = JSON.stringify(typed) !== JSON.stringify(typedOf(view.facts));
  useTyped(changed, onTyped);
  const field = (key: keyof Typed, label: string, props: Record<string, unknown> = {}) => (
    <Field label={label} fault={faults.get(key)}>
      <input
        value={typed[key]}
        autoComplete="off"
        onChange={(event) => {
          setRefused(null);
          setTyped({ ...typed, [key]: event.target.value });
        }}
        {...props}
      />
    </Field>
  );
  const fixed = { disabled: view.fixed, className: 'figure' };
  const keep = async () => {
    try {
      await save({ job, body: { ...input, seen: view.seen.facts } }).unwrap();
      onTyped(false);
      toast('Job details saved');
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  const { stepAt, stepTo } = input.retention;
  const rule = {
    ...{ rate: input.retention.rate, materialsRate: input.retention.materialsRate, cap: input.retention.cap },
    step: stepAt !== null && stepTo !== null ? { at: stepAt, to: stepTo, applies: input.retention.stepApplies } : null,
  };
  return (
    <section aria-label="Facts">
      <div className="mb-2 flex items-end justify-between">
        <h2>Job details</h2>
        <button
          type="button"
          className={`button ${changed ? 'main' : ''}`}
          disabled={!changed || isLoading}
          onClick={() => void keep()}
        >
          {changed ? 'Save job details' : 'Saved'}
        </button>
      </div>
      <div className="sheet grid gap-8 px-4 py-3" style={{ gridTemplateColumns: 'minmax(0, 2.2fr) minmax(0, 1fr)' }}>
        <div className="grid grid-cols-6 content-start gap-x-4 gap-y-3">
          <div className="col-span-2">{field('name', 'Name')}</div>
          <div className="col-span-2">{field('contractReference', 'Contract reference')}</div>
          <div className="col-span-2">{field('site', 'Site')}</div>
          <div className="col-span-2">{field('manager', 'Manager')}</div>
          <div className="col-span-2">{field('estimator', 'Estimator')}</div>
          <Field label="Revenue recognition" fault={faults.get('revenueMethod')}>
            <select
              value={typed.revenueMethod}
              disabled={view.fixed}
              onChange={(event) => setTyped({ ...typed, revenueMethod: event.target.value })}
            >
              {REVENUE_METHODS.map((it) => (
                <option key={it}>{it}</option>
              ))}
            </select>
          </Field>
          <span />
          {field('startsOn', 'Start')}
          {field('finishesOn', 'Planned finish')}
          <div className="col-span-2">{field('defectsEnd', 'Defects liability ends')}</div>
          {field('taxRate', 'Tax %', fixed)}
          {field('termsDays', 'Terms, days', { ...fixed, placeholder: "the client's" })}
          {field('rate', 'Retention %', fixed)}
          {field('materialsRate', 'On materials %', { ...fixed, placeholder: 'as on work' })}
          {field('stepAt', 'Reduces at % complete', { ...fixed, placeholder: 'no step' })}
          {field('stepTo', 'Reduces to %', { ...fixed, placeholder: 'no step' })}
          <Field label="Reduction applies to">
            <select
              value={typed.stepApplies}
              disabled={view.fixed}
              onChange={(event) => setTyped({ ...typed, stepApplies: event.target.value })}
            >
              <option value="all">all work</option>
              <option value="further">further work</option>
            </select>
          </Field>
          {field('cap', 'Cap %', { ...fixed, placeholder: 'no cap' })}
          {input.retention.rate === 0 && (
            <label className="col-span-6 flex items-center gap-2">
              <input
                type="checkbox"
                checked={typed.noRetention === 'yes'}
                onChange={(event) => setTyped({ ...typed, noRetention: event.target.checked ? 'yes' : '' })}
              />
              It was agreed that nothing is retained
            </label>
          )}
          {view.fixed && (
            <p className="note col-span-6 m-0 text-[12.5px]">
              Retention, tax, terms and revenue method are what this job was billed or posted with: they stay.
            </p>
          )}
        </div>
        <RetentionCurve rule={rule} lines={view.lines} words={describeRetention(rule)} />
      </div>
      {refused && (
        <p role="alert" className="fault">
          {refused.message}
        </p>
      )}
    </section>
  );
}
