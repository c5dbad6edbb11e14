import { useState } from 'react';
import type { NewEstimateInput } from '../../../wire/estimates';
import {
  useEstimateListQuery,
  useEstimatePatternsQuery,
  useListsQuery,
  useRemoveEstimatePatternMutation,
  useSaveEstimatePatternMutation,
} from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useAttempt } from '../../ground/useAttempt';
import { plural } from '../../../core/names/plural';
import { Choice } from '../../kit/choice/Choice';
import type { Option } from '../../kit/choice/options';
import { Field } from '../../kit/Field';
import { Pop } from '../../kit/Pop';
import { RemoveButton } from '../../kit/RemoveButton';
import { Refused } from '../../kit/States';

type From = Pick<NewEstimateInput, 'name' | 'copyOf' | 'pattern' | 'reprice'>;

/** Begins an estimate from one of any job, or from a pattern; with the prices it has, or those of today. */
export function BeginElsewhere({ onBegin }: { onBegin: (from: From) => Promise<unknown> }) {
  const [open, setOpen] = useState(false);
  return (
    <Pop button="From elsewhere …" align="end" className="w-[380px] p-4" open={open} onOpen={setOpen}>
      <Sources onBegin={(from) => onBegin(from).then(() => setOpen(false))} />
    </Pop>
  );
}

function Sources({ onBegin }: { onBegin: (from: From) => Promise<unknown> }) {
  const [reprice, setReprice] = useState(false);
  return (
    <div className="flex flex-col gap-4">
      <label className="flex items-center gap-2">
        <input type="checkbox" checked={reprice} onChange={(event) => setReprice(event.target.checked)} /> Priced with the price
        list of today
      </label>
      <OfJob onBegin={(from) => onBegin({ ...from, pattern: null, reprice })} />
      <Patterns onBegin={(pattern) => onBegin({ name: pattern, copyOf: null, pattern, reprice })} />
    </div>
  );
}

function OfJob({ onBegin }: { onBegin: (from: Pick<From, 'name' | 'copyOf'>) => Promise<unknown> }) {
  const { asOf } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const [typed, setTyped] = useState('');
  const [number, setNumber] = useState('');
  const job = lists?.jobs.find((it) => it.number === typed.trim());
  const { data: estimates = [] } = useEstimateListQuery({ job: job?.number ?? '' }, { skip: !job });
  const chosen = estimates.find((it) => String(it.number) === number) ?? (estimates.length === 1 ? estimates[0] : undefined);
  return (
    <section aria-label="An estimate of a job" className="flex flex-col gap-2">
      <b>An estimate of a job</b>
      <Field label="Job" hint={job ? job.name : undefined}>
        <input
          value={typed}
          list="jobs-with-estimates"
          onChange={(event) => {
            setTyped(event.target.value);
            setNumber('');
          }}
        />
      </Field>
      <datalist id="jobs-with-estimates">
        {lists?.jobs.map((it) => (
          <option key={it.number} value={it.number}>
            {it.name}
          </option>
        ))}
      </datalist>
      {job && estimates.length === 0 && <p className="note m-0">Job {job.number} has no estimate.</p>}
      {estimates.length > 1 && (
        <Field label="Estimate">
          <Choice
            value={number}
            options={[['', 'Choose'], ...estimates.map((it): Option => [String(it.number), `${it.number} ${it.name}`])]}
            onChange={setNumber}
          />
        </Field>
      )}
      <button
        type="button"
        className="button self-start"
        disabled={!job || !chosen}
        onClick={() => job && chosen && void onBegin({ name: chosen.name, copyOf: { job: job.number, estimate: chosen.number } })}
      >
        Begin from {chosen ? `estimate ${chosen.number} of ${job?.number}, ${plural(chosen.lines, 'line')}` : 'it'}
      </button>
    </section>
  );
}

function Patterns({ onBegin }: { onBegin: (pattern: string) => Promise<unknown> }) {
  const { data: patterns = [] } = useEstimatePatternsQuery();
  const [remove] = useRemoveEstimatePatternMutation();
  const { refused, attempt } = useAttempt();
  return (
    <section aria-label="A pattern">
      <b>A pattern</b>
      {patterns.length === 0 && <p className="note m-0">None saved yet: an estimate is saved as a pattern from the list.</p>}
      <ul className="m-0 list-none p-0">
        {patterns.map((it) => (
          <li key={it.name} className="flex items-center">
            <button type="button" className="button bare grow justify-start" onClick={() => void onBegin(it.name)}>
              {it.name}, {plural(it.lines, 'line')}
            </button>
            <RemoveButton
              label={`Remove pattern ${it.name}`}
              onRemove={() => void attempt(() => remove({ name: it.name }).unwrap(), `“${it.name}” is removed`)}
            />
          </li>
        ))}
      </ul>
      {refused && <Refused message={refused.message} />}
    </section>
  );
}

/** Saves an estimate as it is now under a name, to begin others from. */
export function KeepAsPattern({ job, estimate, name }: { job: string; estimate: number; name: string }) {
  const [open, setOpen] = useState(false);
  const [as, setAs] = useState(name);
  const [save, { isLoading }] = useSaveEstimatePatternMutation();
  const { refused, attempt } = useAttempt();
  const submit = async (event: React.FormEvent) => {
    event.preventDefault();
    if (await attempt(() => save({ body: { name: as.trim(), job, estimate } }).unwrap(), `Saved as pattern “${as.trim()}”`))
      setOpen(false);
  };
  return (
    <Pop button="Save as pattern …" inLine align="end" className="w-[300px] p-4" open={open} onOpen={setOpen}>
      <form aria-label="Save as pattern" className="flex flex-col gap-2" onSubmit={(event) => void submit(event)}>
        <Field label="Name of the pattern">
          <input value={as} onChange={(event) => setAs(event.target.value)} />
        </Field>
        <button className="button self-start" disabled={as.trim() === '' || isLoading}>
          Save pattern
        </button>
        {refused && <Refused message={refused.message} />}
      </form>
    </Pop>
  );
}
