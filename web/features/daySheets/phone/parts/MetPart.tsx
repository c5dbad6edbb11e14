import { useState } from 'react';
import { sumHours } from '../../../../../core/daySheets/daySheet';
import { dayRowInWords, leftOutInWords, PART_TITLES } from '../../../../../core/daySheets/dayWords';
import { takeMine, type DayClash } from '../../../../../core/daySheets/mergeDays';
import { displayQuantity } from '../../../../../core/money/display';
import type { PhonePack } from '../../../../../wire/daySheets';
import { namesOf } from './part';
import type { Phone } from '../Phone';
import type { PhoneSheet } from '../phoneStore';

/** What both this phone and the office changed: each is shown, one is taken, and the other stays on the sheet in words. */
export function MetPart({ phone, sheet }: { phone: Phone; sheet: PhoneSheet }) {
  const nameOf = namesOf(phone.pack as PhonePack);
  const [taken, setTaken] = useState<Readonly<Record<number, 'mine' | 'theirs'>>>({});
  const { met } = sheet;
  if (!met) return null;
  const words = (side: DayClash['mine']) =>
    side === null ? 'removed' : typeof side === 'string' ? side || 'empty' : dayRowInWords(side, nameOf);
  const decided = met.clashes.every((_, i) => taken[i] !== undefined);
  const bringTogether = async () => {
    const mine = met.clashes.filter((_, i) => taken[i] === 'mine');
    const leftOut = met.clashes.map((it, i) =>
      taken[i] === 'mine'
        ? leftOutInWords(it, it.theirs, 'in the office', nameOf)
        : leftOutInWords(it, it.mine, 'on the phone', nameOf),
    );
    await phone.save({
      ...sheet,
      day: mine.reduce(takeMine, met.merged),
      met: null,
      toSend: true,
      leftOut: [sheet.leftOut, ...leftOut].filter(Boolean).join('\n'),
    });
    await phone.send();
  };
  return (
    <section aria-label="Changed in two places" className="border-l-4 border-[var(--loss)] px-3">
      <h2>Changed in two places</h2>
      <p className="m-0">
        {met.theirs.writtenBy} changed the same as you. Choose what counts; the other stays on the sheet, at its foot, for
        everybody to read.
      </p>
      {met.clashes.map((it, i) => (
        <div key={i} className="day-row" role="group" aria-label={`${PART_TITLES[it.part]} ${i + 1}`}>
          <b className="basis-full">{PART_TITLES[it.part]}</b>
          {(['mine', 'theirs'] as const).map((side) => (
            <button
              key={side}
              type="button"
              className="button touch toggle wide"
              aria-pressed={taken[i] === side}
              onClick={() => setTaken({ ...taken, [i]: side })}
            >
              <span>
                <span className="note block">{side === 'mine' ? 'Yours' : 'The office'}</span>
                {words(it[side])}
              </span>
            </button>
          ))}
        </div>
      ))}
      <button type="button" className="button main touch mt-3" disabled={!decided} onClick={() => void bringTogether()}>
        Send together
      </button>
    </section>
  );
}

/** The week sheet says other hours than the day sheet: both are shown, the manager decides. */
export function WeekDiffers({ phone, sheet: { view } }: { phone: Phone; sheet: PhoneSheet }) {
  if (!view?.differs || !phone.pack) return null;
  const nameOf = namesOf(phone.pack);
  return (
    <section aria-label="The office has different hours" className="border-l-4 border-[var(--over)] px-3">
      <h2>The office has different hours</h2>
      <p className="m-0">
        Here {displayQuantity(sumHours(view.day.hours))} h; week sheet {view.weekSheet} of the office has{' '}
        {displayQuantity(sumHours(view.weekHours))} h of this day. The manager decides which count.
      </p>
      <ul className="my-1 pl-5">
        {view.weekHours.map((it, i) => (
          <li key={i}>
            {nameOf(it.employee)}, {it.costCode}, {displayQuantity(it.hours)} h, {it.state}
          </li>
        ))}
      </ul>
    </section>
  );
}
