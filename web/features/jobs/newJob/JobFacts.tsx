import { describeRetention } from '../../../../core/billing/describeRetention';
import { REVENUE_METHODS } from '../../../../core/progress/workInProgress';
import type { Lists } from '../../../../wire/company';
import { useCurrency } from '../../../ground/company';
import { Field } from '../../../kit/Field';
import { tidyAmount } from '../../../kit/typed/tidyAmount';
import { NewClient } from './NewClient';

export function Facts({
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
        <Field label="Client" fault={faults.get('client')} className="grow">
          <select value={facts.client ?? ''} onChange={(event) => setFact('client', event.target.value)}>
            <option value="">Choose a client</option>
            {lists.clients.map((it) => (
              <option key={it.code} value={it.code}>
                {it.code} · {it.name}
              </option>
            ))}
          </select>
        </Field>
        <NewClient onAdded={(code) => setFact('client', code)} />
      </div>
      {select('status', 'Status', [
        ['awarded', 'awarded'],
        ['on-site', 'on-site'],
        ['tender', 'tender'],
      ])}
      {input('contractSum', 'Contract sum', { className: 'figure', inputMode: 'decimal', onBlur: tidySum })}
      {input('contractReference', 'Contract reference')}
      {input('awardedOn', 'Awarded on', { placeholder: '30 Apr 2031' })}
      {input('startsOn', 'Start', { placeholder: '30 Apr 2031' })}
      {input('finishesOn', 'Planned finish', { placeholder: '30 Apr 2031' })}
      {input('manager', 'Manager', { list: 'managers' })}
      {input('retention', 'Retention %', { className: 'figure' })}
      {input('materials', 'On materials %', { className: 'figure', placeholder: 'as on work' })}
      {input('stepAt', 'Reduces at % of contract', { className: 'figure', placeholder: 'no step' })}
      {input('stepTo', 'Reduces to %', { className: 'figure', placeholder: 'no step' })}
      {select('stepApplies', 'Reduction applies to', [
        ['all', 'the rate on all work'],
        ['further', 'the rate on further work'],
      ])}
      {input('cap', 'Cap % of contract', { className: 'figure', placeholder: 'no cap' })}
      {input('tax', 'Tax %', { className: 'figure' })}
      {input('terms', 'Terms, days', { className: 'figure', placeholder: "the client's" })}
      {select(
        'revenueMethod',
        'Revenue recognition',
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
