import { useState, type FormEvent } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { MARK_WORDS, type ChargeMark } from '../../../core/charging/chargeMark';
import { plural } from '../../../core/names/plural';
import type { ChargeEntry, MarksInput } from '../../../wire/charging';
import { useMarkEntriesMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useAttempt } from '../../ground/useAttempt';
import { Field } from '../../kit/Field';
import { DayInput } from '../../kit/form/DayInput';
import { Pop } from '../../kit/Pop';
import { Refused } from '../../kit/States';
import { markup as markupCodec } from '../../kit/typed/codecs';
import { readDate } from '../../kit/typed/readDate';

interface Props {
  job: string;
  picked: readonly ChargeEntry[];
  all: readonly ChargeEntry[];
  onPick: (picked: ReadonlySet<number>) => void;
}

type Said = Omit<MarksInput, 'entries'>;

/** What is said of the entries picked, many at once: charged, held or not, from a day on, at a markup, in words. */
export function MarkBar({ job, picked, all, onPick }: Props) {
  const [mark, marking] = useMarkEntriesMutation();
  const { refused, attempt } = useAttempt();
  const [open, setOpen] = useState(false);
  const say = async (said: Said, words: string) => {
    const done = await attempt(
      () => mark({ job, body: { entries: picked.map((it) => it.id), ...said } }).unwrap(),
      `${plural(picked.length, 'entry', 'entries')}: ${words}`,
    );
    if (done) onPick(new Set());
    return done;
  };
  const none = picked.length === 0 || marking.isLoading;
  const button = (to: ChargeMark, title: string) => (
    <button
      type="button"
      className="button"
      disabled={none || picked.every((it) => it.mark === to)}
      onClick={() => void say({ mark: to }, MARK_WORDS[to])}
    >
      {title}
    </button>
  );
  return (
    <>
      <div className="mt-3 flex flex-wrap items-center gap-2" role="group" aria-label="What is said of the entries picked">
        <span className="note">{picked.length === 0 ? 'Pick entries, by Space or with the box' : `${picked.length} picked`}</span>
        {button('yes', 'Charge')}
        {button('hold', 'Hold')}
        {button('no', 'Do not charge')}
        <Pop button="From, markup, words …" className="w-[320px] p-4" disabled={none} open={open} onOpen={setOpen}>
          <More
            picked={picked}
            onSay={async (said) => {
              if (await say(said, 'saved')) setOpen(false);
            }}
          />
        </Pop>
        {picked.length < all.length && (
          <button type="button" className="button bare" onClick={() => onPick(new Set(all.map((it) => it.id)))}>
            Pick all {all.length}
          </button>
        )}
        {picked.length > 0 && (
          <button type="button" className="button bare" onClick={() => onPick(new Set())}>
            Pick none
          </button>
        )}
      </div>
      {refused && <Refused message={refused.message} />}
    </>
  );
}

/** What all that are picked have in common; empty where they differ. */
const common = (of: readonly ChargeEntry[], value: (it: ChargeEntry) => string) => {
  const [first, ...rest] = of.map(value);
  return first !== undefined && rest.every((it) => it === first) ? first : '';
};

/** Only what is typed here is said; what is left as it is stays as it is on each entry. */
function More({ picked, onSay }: { picked: readonly ChargeEntry[]; onSay: (said: Said) => Promise<void> }) {
  const { month } = useAsOf();
  const [start] = useState(() => ({
    from: common(picked, (it) => (it.from === null ? '' : displayDate(it.from))),
    markup: common(picked, (it) => (it.markup === null ? '' : markupCodec.format(it.markup))),
    wording: common(picked, (it) => it.wording),
  }));
  const [typed, setTyped] = useState(start);
  const [fault, setFault] = useState<{ from?: string; markup?: string }>({});
  const set = (key: keyof typeof start) => (text: string) => {
    setTyped({ ...typed, [key]: text });
    setFault({});
  };
  const changed = (key: keyof typeof start) => typed[key].trim() !== start[key].trim();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const from = typed.from.trim() === '' ? null : readDate(typed.from, month);
    const read = typed.markup.trim() === '' ? null : markupCodec.parse(typed.markup);
    if (typed.from.trim() !== '' && from === null) return setFault({ from: 'Enter a date, e.g. 1 Apr 2031' });
    if (read && !read.ok) return setFault({ markup: read.message });
    const said: Said = {
      ...(changed('from') ? { from } : {}),
      ...(changed('markup') ? { markup: read ? (read as { value: number }).value : null } : {}),
      ...(changed('wording') ? { wording: typed.wording.trim() } : {}),
    };
    if (Object.keys(said).length > 0) void onSay(said);
  };
  return (
    <form aria-label="From, markup and words" className="flex flex-col gap-3" onSubmit={submit} noValidate>
      <Field label="Charged from" fault={fault.from} hint="Empty: from the accounting date">
        <DayInput value={typed.from} month={month} onText={set('from')} />
      </Field>
      <Field label="Markup, %" fault={fault.markup} hint="Empty: that of the job. Hours with a charge rate have none">
        <input value={typed.markup} onChange={(event) => set('markup')(event.target.value)} />
      </Field>
      <Field label="Words on the invoice" hint="Empty: as the entry has it">
        <input value={typed.wording} maxLength={400} onChange={(event) => set('wording')(event.target.value)} />
      </Field>
      <button className="button main self-start">Save for {plural(picked.length, 'entry', 'entries')}</button>
    </form>
  );
}
