import { at } from '../../../core/errors/known';
import { Pop } from '../../kit/Pop';
import { useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { COST_TYPES, type CostType } from '../../../core/costs/costType';
import type { Instalment } from '../../../core/instalments/instalment';
import {
  atIntervals,
  byPayments,
  byStages,
  daysAtIntervals,
  MAX_INSTALMENTS,
} from '../../../core/instalments/proposedInstalments';
import { sum } from '../../../core/money/cents';
import type { BillingScheduleView } from '../../../wire/instalments';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { DayInput } from '../../kit/form/DayInput';
import { Field } from '../../kit/Field';
import { Choice } from '../../kit/choice/Choice';
import { readDate } from '../../kit/typed/readDate';

const WAYS = [
  ['stages', 'By stages'],
  ['intervals', 'At intervals'],
  ['agreed', 'As the client agreed'],
] as const;
type Way = (typeof WAYS)[number][0];

/** Ways to lay a schedule out. What comes of it goes into the grid, to be looked at and changed before it is saved. */
export function LayOut({ view, onLaidOut }: { view: BillingScheduleView; onLaidOut: (list: Instalment[]) => void }) {
  const [open, setOpen] = useState(false);
  const stages = view.stages.filter((it) => view.lines.some((line) => line.section === it.name));
  const ways = WAYS.filter(([way]) =>
    way === 'stages' ? stages.length > 0 : way === 'agreed' ? view.payments.length > 0 : true,
  );
  const [way, setWay] = useState<Way>(at(ways, 0)[0]);
  const done = (list: Instalment[]) => {
    onLaidOut(list);
    setOpen(false);
  };
  return (
    <Pop button="Lay out …" align="end" className="w-[440px] p-4" open={open} onOpen={setOpen}>
      <fieldset className="m-0 mb-3 flex gap-4 border-0 p-0">
        <legend className="sr-only">Way</legend>
        {ways.map(([key, label]) => (
          <label key={key} className="flex items-center gap-1">
            <input type="radio" name="way" checked={way === key} onChange={() => setWay(key)} /> {label}
          </label>
        ))}
      </fieldset>
      {way === 'stages' && <ByStages view={view} stages={stages} onDone={done} />}
      {way === 'intervals' && <AtIntervals view={view} onDone={done} />}
      {way === 'agreed' && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            done(
              byPayments(
                view.payments,
                view.stages.map((it) => it.name),
              ),
            );
          }}
        >
          <p className="mt-0">
            The {view.payments.length} payments of the accepted quotation. One that names a section falls due when that is
            finished.
          </p>
          <button className="button main">Lay out {view.payments.length} instalments</button>
        </form>
      )}
    </Pop>
  );
}

interface WayProps {
  view: BillingScheduleView;
  onDone: (list: Instalment[]) => void;
}

const whole = (text: string, most: number) => (/^\d{1,4}$/.test(text.trim()) && Number(text) <= most ? Number(text) : null);

function ByStages({ view, stages, onDone }: WayProps & { stages: BillingScheduleView['stages'] }) {
  const { show } = useCurrency();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set(stages.map((it) => it.name)));
  const [atStart, setAtStart] = useState<ReadonlySet<CostType>>(new Set(['material']));
  const [form, setForm] = useState({ bundle: '1', days: '0' });
  const [fault, setFault] = useState<string>();
  const toggle = <T,>(set: ReadonlySet<T>, it: T) => new Set(set.has(it) ? [...set].filter((x) => x !== it) : [...set, it]);
  const value = (name: string) => sum(view.lines.filter((it) => it.section === name).map((it) => it.scheduled));
  const submit = (event: React.FormEvent) => {
    event.preventDefault();
    const [bundle, days] = [whole(form.bundle, 500), whole(form.days, 3650)];
    const of = stages.filter((it) => chosen.has(it.name));
    if (!bundle || days === null) return setFault('Expected whole numbers: 1 stage or more on a bill, and days');
    if (of.length === 0) return setFault('Expected one stage or more');
    const list = byStages({ stages: of, atStart: [...atStart], bundle, days });
    const rest = sum(view.lines.filter((it) => !chosen.has(it.section)).map((it) => it.scheduled));
    const end = { stages: [], due: 'finish' as const, day: null, days, from: 'job' as const, rate: null, amount: rest };
    onDone(rest === 0 ? list : [...list, { name: 'Not in these stages', ...end }]);
  };
  return (
    <form onSubmit={submit}>
      <div className="scroll mb-3 pr-3 max-h-[180px]" tabIndex={0} role="group" aria-label="Stages">
        {stages.map((it) => (
          <label key={it.name} className="flex items-center gap-2">
            <input type="checkbox" checked={chosen.has(it.name)} onChange={() => setChosen(toggle(chosen, it.name))} />
            <span className="truncate grow">{it.name}</span>
            <span className="figure">{show(value(it.name))}</span>
          </label>
        ))}
      </div>
      <fieldset className="m-0 mb-3 border-0 p-0">
        <legend className="note mb-1 p-0">Billed at the start of a stage: the share of its price that is</legend>
        <div className="flex flex-wrap gap-x-4">
          {COST_TYPES.map((type) => (
            <label key={type} className="flex items-center gap-1">
              <input type="checkbox" checked={atStart.has(type)} onChange={() => setAtStart(toggle(atStart, type))} /> {type}
            </label>
          ))}
        </div>
        <p className="note m-0 mt-1 text-[12.5px]">By its budget; the rest at its finish.</p>
      </fieldset>
      <div className="mb-3 grid grid-cols-2 gap-3">
        <Field label="Stages on one bill">
          <input value={form.bundle} onChange={(event) => setForm({ ...form, bundle: event.target.value })} />
        </Field>
        <Field label="Days after">
          <input value={form.days} onChange={(event) => setForm({ ...form, days: event.target.value })} />
        </Field>
      </div>
      <Go fault={fault}>Lay out by stages</Go>
    </form>
  );
}

function AtIntervals({ view, onDone }: WayProps) {
  const { month } = useAsOf();
  const { exact } = useCurrency();
  const contractSum = sum(view.lines.map((it) => it.scheduled));
  const [form, setForm] = useState({
    from: displayDate(view.job.startsOn),
    until: displayDate(view.job.finishesOn),
    every: '1',
    unit: 'months' as 'months' | 'weeks',
  });
  const [fault, setFault] = useState<string>();
  const set = (key: keyof typeof form) => (event: { target: { value: string } }) =>
    setForm({ ...form, [key]: event.target.value });
  const submit = (event: React.FormEvent) => {
    event.preventDefault();
    const [from, until, every] = [readDate(form.from, month), readDate(form.until, month), whole(form.every, 120)];
    if (!from || !until) return setFault('Expected days such as 30 Apr 2031');
    if (!every) return setFault('Expected a whole number of months or weeks, 1 or more');
    const days = daysAtIntervals({ from, until, every, unit: form.unit });
    if (days.length === 0) return setFault('It would end before it begins');
    if (days.length > MAX_INSTALMENTS) return setFault(`That is more than ${MAX_INSTALMENTS} instalments`);
    onDone(atIntervals(days, contractSum));
  };
  return (
    <form onSubmit={submit}>
      <p className="note mt-0">The contract sum of {exact(contractSum)} in equal instalments.</p>
      <div className="mb-3 grid grid-cols-2 gap-3">
        <Field label="First on">
          <DayInput value={form.from} month={month} placeholder="30 Apr 2031" onText={(from) => setForm({ ...form, from })} />
        </Field>
        <Field label="Not after">
          <DayInput value={form.until} month={month} placeholder="31 Dec 2031" onText={(until) => setForm({ ...form, until })} />
        </Field>
        <Field label="Every">
          <input value={form.every} onChange={set('every')} />
        </Field>
        <Field label="Unit">
          <Choice value={form.unit} options={['months', 'weeks']} onChange={(value) => set('unit')({ target: { value } })} />
        </Field>
      </div>
      <Go fault={fault}>Lay out at intervals</Go>
    </form>
  );
}

/** What is wrong with a way, and the button that goes it. */
function Go({ fault, children }: { fault: string | undefined; children: string }) {
  return (
    <>
      {fault && (
        <p role="alert" className="fault">
          {fault}
        </p>
      )}
      <button className="button main">{children}</button>
    </>
  );
}
