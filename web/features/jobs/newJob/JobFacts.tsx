import { describeRetention } from '../../../../core/billing/describeRetention';
import { REVENUE_METHODS } from '../../../../core/progress/workInProgress';
import type { Lists } from '../../../../wire/company';
import type { Option } from '../../../kit/choice/options';
import { strangerHint } from '../../../ground/strangers';
import { NewClient } from './NewClient';
import type { JobFactsForm } from './useJobForm';

interface FactsProps {
  form: JobFactsForm;
  lists: Lists;
}

/** What is known of the job: its parties and days, and how it is billed. */
export function Facts({ form, lists }: FactsProps) {
  return (
    <div className="sheet grid grid-cols-6 items-start gap-x-4 gap-y-3 px-4 py-3">
      <WhoAndWhen form={form} lists={lists} />
      <HowBilled form={form} />
      <p className="note col-span-6 m-0">{describeTyped(form.text)}</p>
    </div>
  );
}

function WhoAndWhen({ form: { input, choice, set, text }, lists }: FactsProps) {
  const clients = lists.clients.map((it): Option => [it.code, `${it.code} · ${it.name}`]);
  const date = (name: 'awardedOn' | 'startsOn' | 'finishesOn', label: string) =>
    input(name, label, { placeholder: '30 Apr 2031' });
  return (
    <>
      {input('number', 'Job number')}
      {input('name', 'Name', { autoFocus: true, className: 'col-span-2' })}
      <div className="col-span-2 flex items-start gap-2">
        {choice('client', 'Client', [['', 'Choose a client'], ...clients], { className: 'grow' })}
        {/* Beside the field, whatever fault stands below it. */}
        <div className="mt-[20px]">
          <NewClient onAdded={(code) => set('client', code)} />
        </div>
      </div>
      {choice('status', 'Status', [
        ['awarded', 'awarded'],
        ['on-site', 'on-site'],
        ['tender', 'tender'],
      ])}
      {input('contractSum', 'Contract sum', { inputMode: 'decimal' })}
      {input('contractReference', 'Contract reference')}
      {date('awardedOn', 'Awarded on')}
      {date('startsOn', 'Start')}
      {date('finishesOn', 'Planned finish')}
      {input('manager', 'Manager', { list: 'people', hint: strangerHint(text.manager, lists.people) })}
      <datalist id="people">
        {lists.people.map((it) => (
          <option key={it} value={it} />
        ))}
      </datalist>
    </>
  );
}

function HowBilled({ form: { input, choice } }: Pick<FactsProps, 'form'>) {
  return (
    <>
      {input('retention', 'Retention %')}
      {input('materials', 'On materials %', { placeholder: 'as on work' })}
      {input('stepAt', 'Reduces at % of contract', { placeholder: 'no step' })}
      {input('stepTo', 'Reduces to %', { placeholder: 'no step' })}
      {choice('stepApplies', 'Reduction applies to', [
        ['all', 'the rate on all work'],
        ['further', 'the rate on further work'],
      ])}
      {input('cap', 'Cap % of contract', { placeholder: 'no cap' })}
      {input('tax', 'Tax %')}
      {input('terms', 'Terms, days', { placeholder: "the client's" })}
      {choice(
        'revenueMethod',
        'Revenue recognition',
        REVENUE_METHODS.map((it): Option => [it, it]),
      )}
      {input('site', 'Site', { className: 'col-span-3' })}
    </>
  );
}

function describeTyped(facts: Record<string, string>): string {
  const rate = (key: string) =>
    facts[key]?.trim() && Number.isFinite(Number(facts[key])) ? Math.round(Number(facts[key]) * 10_000) : null;
  const [at, to] = [rate('stepAt'), rate('stepTo')];
  return `Retention in words: ${describeRetention({ rate: rate('retention') ?? 0, materialsRate: rate('materials'), step: at !== null && to !== null ? { at, to, applies: facts.stepApplies === 'further' ? 'further' : 'all' } : null, cap: rate('cap') })}`;
}
