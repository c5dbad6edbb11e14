import { PRICING_WORDS, PRICINGS } from '../../../../core/charging/pricing';
import { describeRetention } from '../../../../core/billing/describeRetention';
import { LIST_FACTS } from '../../../../core/jobs/listFacts';
import { REVENUE_METHODS } from '../../../../core/progress/workInProgress';
import type { Lists } from '../../../../wire/company';
import type { JobBeginning } from '../../../../wire/jobs';
import type { Option } from '../../../kit/choice/options';
import { strangerHint } from '../../../ground/strangers';
import { NewClient } from './NewClient';
import type { JobFactsForm } from './useJobForm';

interface FactsProps {
  form: JobFactsForm;
  lists: Lists;
  /** A tender is not awarded yet. */
  tender: boolean;
}

const listed = (rows: readonly { code: string; name: string }[]): Option[] =>
  rows.map((it) => [it.code, `${it.code} · ${it.name}`]);
const AWARDED_ON = { placeholder: '30 Apr 2031' };

/** What a job cannot be without; the kind where the company has kinds of job, since the rest is filled from it. */
export function FirstFacts({ form: { input, choice, set }, lists, tender }: FactsProps) {
  return (
    <div className="sheet grid grid-cols-6 items-start gap-x-4 gap-y-3 px-4 py-3">
      {input('number', tender ? 'Tender number' : 'Job number')}
      {input('name', 'Name', { autoFocus: true, className: 'col-span-2' })}
      <div className="col-span-2 flex items-start gap-2">
        {choice('client', 'Client', [['', 'Choose a client'], ...listed(lists.clients)], { className: 'grow' })}
        {/* Beside the field, whatever fault stands below it. */}
        <div className="mt-[20px]">
          <NewClient onAdded={(code) => set('client', code)} />
        </div>
      </div>
      {lists.kinds.length > 0 && choice('kind', LIST_FACTS.kind.title, [['', 'none'], ...listed(lists.kinds)])}
      {lists.kinds.length === 0 && !tender && input('awardedOn', 'Awarded on', AWARDED_ON)}
    </div>
  );
}

/** Everything else that is known of a job: its days and people, and how it is billed. */
export function MoreFacts({ form, lists, tender }: FactsProps) {
  return (
    <div className="sheet grid grid-cols-6 items-start gap-x-4 gap-y-3 px-4 py-3">
      <WhoAndWhen form={form} lists={lists} tender={tender} />
      <HowBilled form={form} />
      <p className="note col-span-6 m-0">Retention in words: {retentionInWords(form.text)}</p>
    </div>
  );
}

function WhoAndWhen({ form: { input, choice, text }, lists, tender }: FactsProps) {
  const date = (name: 'awardedOn' | 'startsOn' | 'finishesOn', label: string) => input(name, label, AWARDED_ON);
  return (
    <>
      {!tender && lists.kinds.length > 0 && date('awardedOn', 'Awarded on')}
      {!tender &&
        choice('status', 'Status', [
          ['awarded', 'awarded'],
          ['on-site', 'on-site'],
        ])}
      {date('startsOn', 'Start')}
      {date('finishesOn', 'Planned finish')}
      {!tender &&
        choice(
          'pricing',
          'Priced by',
          PRICINGS.map((it): Option => [it, PRICING_WORDS[it]]),
        )}
      {text.pricing === 'charged'
        ? input('ceiling', 'Ceiling, before tax', { inputMode: 'decimal', placeholder: 'none' })
        : input('contractSum', 'Contract sum', { inputMode: 'decimal' })}
      {input('contractReference', 'Contract reference')}
      {input('manager', 'Manager', { list: 'people', hint: strangerHint(text.manager, lists.people) })}
      <datalist id="people">
        {lists.people.map((it) => (
          <option key={it} value={it} />
        ))}
      </datalist>
      {input('site', 'Site', { className: 'col-span-2' })}
      {lists.departments.length > 0 &&
        choice('department', LIST_FACTS.department.title, [['', 'none'], ...listed(lists.departments)])}
      {lists.workKinds.length > 0 && choice('workKind', LIST_FACTS.workKind.title, [['', 'none'], ...listed(lists.workKinds)])}
      {(lists.workKinds.length > 0 || text.payCode !== '') && input('payCode', 'Pay code of regular hours')}
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
        { className: 'col-span-2' },
      )}
    </>
  );
}

function retentionInWords(facts: Record<string, string>): string {
  const rate = (key: string) =>
    facts[key]?.trim() && Number.isFinite(Number(facts[key])) ? Math.round(Number(facts[key]) * 10_000) : null;
  const [at, to] = [rate('stepAt'), rate('stepTo')];
  return describeRetention({
    rate: rate('retention') ?? 0,
    materialsRate: rate('materials'),
    step: at !== null && to !== null ? { at, to, applies: facts.stepApplies === 'further' ? 'further' : 'all' } : null,
    cap: rate('cap'),
  });
}

/** What stands in the folded facts, and where it comes from, in a line. */
export function factsInWords(facts: Record<string, string>, tender: boolean, beginning: JobBeginning | undefined): string {
  const said = [
    !tender && (facts.awardedOn ? `awarded ${facts.awardedOn}` : 'no day of award yet'),
    `${facts.retention || '0'} % retention`,
    `${facts.tax || '0'} % tax`,
    facts.terms ? `${facts.terms} days` : "the client's terms",
    facts.revenueMethod,
  ].filter(Boolean);
  const { last = null, kind = null } = beginning ?? {};
  const from = [kind && `the kind ${kind}`, last && `the client's last job, ${last.number} ${last.name}`].filter(Boolean);
  return `${said.join(', ')}${from.length > 0 ? `; from ${from.join(' and ')}` : ''}.`;
}
