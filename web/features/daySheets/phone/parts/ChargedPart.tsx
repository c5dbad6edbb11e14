import { useState } from 'react';
import { displayDate } from '../../../../../core/calendar/displayDate';
import { chargedEntries, withSignature, type DaySheet } from '../../../../../core/daySheets/daySheet';
import { dayRowInWords } from '../../../../../core/daySheets/dayWords';
import { hrefOf } from '../../../../../wire/call';
import { CALLS } from '../../../../../wire/calls';
import type { PhonePack } from '../../../../../wire/daySheets';
import { dayHere } from '../dayHere';
import { namesOf, RowFaults, taskNamer, type PartProps } from './part';
import type { Phone } from '../Phone';
import type { PhoneSheet } from '../phoneStore';
import { Strokes } from '../../Strokes';
import { SignPad } from './SignPad';
import { TextBox } from './touch';

/** What is to be charged, for the client to sign on the glass; what was signed, with its document. */
export function ChargedPart({ day, change, faultsAt, phone, sheet }: PartProps & { phone: Phone; sheet: PhoneSheet }) {
  const nameOf = namesOf(phone.pack as PhonePack);
  const taskOf = taskNamer(
    phone.pack as PhonePack,
    phone.pack?.jobs.find((it) => it.number === sheet.job),
  );
  const open = wordsOf(day, 0, nameOf, taskOf);
  if (open.length === 0 && day.signatures.length === 0) return null;
  return (
    <section aria-label="To be charged">
      <h2>To be charged</h2>
      {open.length > 0 && <ToSign {...{ day, change, sheet }} entries={open} />}
      {day.signatures.map((it) => (
        <div key={it.number} className="day-row">
          <span className="basis-full">
            <b>Daywork sheet {it.number}</b>
            <ul className="my-1 pl-5">
              {wordsOf(day, it.number, nameOf, taskOf).map((words) => (
                <li key={words}>{words}</li>
              ))}
            </ul>
            Signed by {[it.name, it.office].filter(Boolean).join(', ')}, {displayDate(it.signedOn)}
          </span>
          <Strokes strokes={it.strokes} words={`Signature of ${it.name}`} />
          {sheet.base?.signatures.some((one) => one.number === it.number) ? (
            <a
              className="button touch"
              target="_blank"
              rel="noreferrer"
              href={hrefOf(CALLS.dayworkSheetPdf, { job: sheet.job, dated: sheet.dated, crew: sheet.crew, id: it.number })}
            >
              Daywork sheet (PDF)
            </a>
          ) : (
            <span className="note">The PDF is there once the day sheet is sent.</span>
          )}
        </div>
      ))}
      <RowFaults faults={faultsAt('signatures')} at="" />
    </section>
  );
}

function wordsOf(
  day: DaySheet,
  signature: number,
  nameOf: (code: string) => string,
  taskOf: ReturnType<typeof taskNamer>,
): string[] {
  const { hours, equipment, deliveries } = chargedEntries(day, signature);
  return [...hours, ...equipment, ...deliveries].map((it) => dayRowInWords({ ...it, charged: false, photo: '' }, nameOf, taskOf));
}

function ToSign({
  day,
  change,
  sheet,
  entries,
}: Pick<PartProps, 'day' | 'change'> & { sheet: PhoneSheet; entries: readonly string[] }) {
  const [signing, setSigning] = useState(false);
  const [name, setName] = useState('');
  const [office, setOffice] = useState('');
  const [strokes, setStrokes] = useState('');
  const sign = () => {
    change(withSignature(day, { name: name.trim(), office: office.trim(), signedOn: dayHere(sheet.dated), strokes }));
    setSigning(false);
    setStrokes('');
  };
  return (
    <>
      <ul className="my-1 pl-5">
        {entries.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
      {signing ? (
        <div className="sign-page" role="dialog" aria-modal="true" aria-label="Signature of the client">
          <h2 className="m-0">
            Daywork, {displayDate(sheet.dated)}, {sheet.job} {sheet.jobName}
          </h2>
          <ul className="my-1 pl-5">
            {entries.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
          <p className="m-0">The client confirms these times and materials. What is signed stays as it is.</p>
          <TextBox label="Name" value={name} onValue={(it) => setName(it.slice(0, 200))} />
          <TextBox label="Company or office" value={office} onValue={(it) => setOffice(it.slice(0, 200))} />
          <SignPad strokes={strokes} onStrokes={setStrokes} />
          <div className="flex flex-wrap gap-2">
            <button type="button" className="button main touch" disabled={name.trim() === '' || strokes === ''} onClick={sign}>
              Sign
            </button>
            <button type="button" className="button touch" onClick={() => setStrokes('')}>
              Clear
            </button>
            <button type="button" className="button touch" onClick={() => setSigning(false)}>
              Not now
            </button>
          </div>
        </div>
      ) : (
        <button type="button" className="button touch" onClick={() => setSigning(true)}>
          Client signs
        </button>
      )}
    </>
  );
}
