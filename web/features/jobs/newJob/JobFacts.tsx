import { DayInput } from '../../../kit/form/DayInput';
import { amount, tidyOf } from '../../../kit/typed/codecs';
import { describeRetention } from '../../../../core/billing/describeRetention';
import { REVENUE_METHODS } from '../../../../core/progress/workInProgress';
import type { Lists } from '../../../../wire/company';
import { useAsOf } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { Field } from '../../../kit/Field';
import { Choice } from '../../../kit/choice/Choice';
import type { Option } from '../../../kit/choice/options';
import { NewClient } from './NewClient';

interface FactsProps {
  facts: Record<string, string>;
  setFact: (key: string, value: string) => void;
  faults: ReadonlyMap<string, string>;
  lists: Lists;
}

/** What is known of the job: its parties and days, and how it is billed. */
export function Facts(props: FactsProps) {
  return (
    <div className="sheet grid grid-cols-6 gap-x-4 gap-y-3 px-4 py-3">
      <WhoAndWhen {...props} />
      <HowBilled {...props} />
      <p className="note col-span-6 m-0">{describeTyped(props.facts)}</p>
    </div>
  );
}

/** The fields of the form: a text, a date with its calendar, or one of a list. */
function fieldsOf({ facts, setFact, faults }: FactsProps, month: string) {
  const input = (key: string, label: string, props: Record<string, unknown> = {}) => (
    <Field label={label} fault={faults.get(key)}>
      <input value={facts[key] ?? ''} autoComplete="off" onChange={(event) => setFact(key, event.target.value)} {...props} />
    </Field>
  );
  const date = (key: string, label: string) => (
    <Field label={label} fault={faults.get(key)}>
      <DayInput value={facts[key] ?? ''} month={month} placeholder="30 Apr 2031" onText={(typed) => setFact(key, typed)} />
    </Field>
  );
  const choice = (key: string, label: string, options: readonly Option[], className = '') => (
    <Field label={label} fault={faults.get(key)} className={className}>
      <Choice value={facts[key] ?? ''} options={options} onChange={(chosen) => setFact(key, chosen)} />
    </Field>
  );
  return { input, date, choice };
}

function WhoAndWhen(props: FactsProps) {
  const { facts, setFact, lists } = props;
  const { month } = useAsOf();
  const { digits } = useCurrency();
  const { input, date, choice } = fieldsOf(props, month);
  const tidySum = () => setFact('contractSum', tidyOf(amount(digits))(facts.contractSum ?? ''));
  const clients = lists.clients.map((it): Option => [it.code, `${it.code} · ${it.name}`]);
  return (
    <>
      {input('number', 'Job number')}
      <div className="col-span-2">{input('name', 'Name', { autoFocus: true })}</div>
      <div className="col-span-2 flex items-end gap-2">
        {choice('client', 'Client', [['', 'Choose a client'], ...clients], 'grow')}
        <NewClient onAdded={(code) => setFact('client', code)} />
      </div>
      {choice('status', 'Status', [
        ['awarded', 'awarded'],
        ['on-site', 'on-site'],
        ['tender', 'tender'],
      ])}
      {input('contractSum', 'Contract sum', { className: 'figure', inputMode: 'decimal', onBlur: tidySum })}
      {input('contractReference', 'Contract reference')}
      {date('awardedOn', 'Awarded on')}
      {date('startsOn', 'Start')}
      {date('finishesOn', 'Planned finish')}
      {input('manager', 'Manager', { list: 'managers' })}
      <datalist id="managers">
        {lists.managers.map((it) => (
          <option key={it} value={it} />
        ))}
      </datalist>
    </>
  );
}

function HowBilled(props: FactsProps) {
  const { month } = useAsOf();
  const { input, choice } = fieldsOf(props, month);
  const figure = (key: string, label: string, placeholder?: string) => input(key, label, { className: 'figure', placeholder });
  return (
    <>
      {figure('retention', 'Retention %')}
      {figure('materials', 'On materials %', 'as on work')}
      {figure('stepAt', 'Reduces at % of contract', 'no step')}
      {figure('stepTo', 'Reduces to %', 'no step')}
      {choice('stepApplies', 'Reduction applies to', [
        ['all', 'the rate on all work'],
        ['further', 'the rate on further work'],
      ])}
      {figure('cap', 'Cap % of contract', 'no cap')}
      {figure('tax', 'Tax %')}
      {figure('terms', 'Terms, days', "the client's")}
      {choice(
        'revenueMethod',
        'Revenue recognition',
        REVENUE_METHODS.map((it): Option => [it, it]),
      )}
      <div className="col-span-3">{input('site', 'Site')}</div>
    </>
  );
}

function describeTyped(facts: Record<string, string>): string {
  const rate = (key: string) =>
    facts[key]?.trim() && Number.isFinite(Number(facts[key])) ? Math.round(Number(facts[key]) * 10_000) : null;
  const [at, to] = [rate('stepAt'), rate('stepTo')];
  return `Retention in words: ${describeRetention({ rate: rate('retention') ?? 0, materialsRate: rate('materials'), step: at !== null && to !== null ? { at, to, applies: facts.stepApplies === 'further' ? 'further' : 'all' } : null, cap: rate('cap') })}`;
}
