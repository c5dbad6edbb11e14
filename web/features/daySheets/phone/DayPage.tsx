import { DAY_LIFE, dayState } from '../../../../core/daySheets/dayLife';
import { movesFrom } from '../../../../core/life/life';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { displayDate } from '../../../../core/calendar/displayDate';
import type { DaySheet } from '../../../../core/daySheets/daySheet';
import { plural } from '../../../../core/names/plural';
import { Empty, Refused } from '../../../kit/States';
import { SureButton } from '../../../kit/SureButton';
import { useDeleteDaySheetMutation } from '../../../ground/api/api';
import { useAttempt } from '../../../ground/useAttempt';
import { ChargedPart } from './parts/ChargedPart';
import { SentSign } from './DaysPage';
import { HoursPart } from './parts/HoursPart';
import { MetPart, WeekDiffers } from './parts/MetPart';
import { PhotosPart } from './parts/PhotosPart';
import { isSame, usePhone, type Phone } from './Phone';
import { isUnsent, type PhoneSheet } from './phoneStore';
import { RowsPart } from './parts/RowsPart';
import { ROW_PARTS } from './parts/rowFields';
import { TextBox } from './parts/touch';
import './phone.css';

/** A day sheet, written down on the phone as it is entered. */
export function DayPage() {
  const { job = '', dated = '', crew = '' } = useParams();
  const phone = usePhone();
  const sheet = phone.sheets.find((it) => isSame(it, { owner: phone.owner, job, dated, crew }));
  return (
    <div className="day-phone narrow">
      <p className="m-0">
        <Link to="/day-sheets">Day sheets</Link>
      </p>
      {sheet && phone.pack ? (
        <OneDay phone={phone} sheet={sheet} />
      ) : (
        <Empty title="This day sheet is not on this phone">
          <p className="note m-0">A phone has the sheets of the last two weeks. The office has all of them.</p>
        </Empty>
      )}
    </div>
  );
}

function OneDay({ phone, sheet }: { phone: Phone; sheet: PhoneSheet }) {
  const job = phone.pack?.jobs.find((it) => it.number === sheet.job);
  const change = (more: Partial<DaySheet>) =>
    void phone.save({ ...sheet, day: { ...sheet.day, ...more }, toSend: false, fault: null });
  useAskedToSave(phone);
  const faultsAt = (part: string) =>
    (sheet.fault?.faults ?? []).filter((it) => it.field === `day.${part}` || it.field.startsWith(`day.${part}.`));
  const { day } = sheet;
  const shared = { day, change, faultsAt };
  return (
    <>
      <h1 className="mb-1">{displayDate(sheet.dated)}</h1>
      <p className="m-0">
        <b>{sheet.job}</b> {sheet.jobName}
        <span className="note block">Crew of {sheet.crew}</span>
      </p>
      {sheet.fault ? <Refused message={faultWords(sheet.fault)} /> : !sheet.met && <SentSign sheet={sheet} />}
      {sheet.met && <MetPart phone={phone} sheet={sheet} />}
      <WeekDiffers phone={phone} sheet={sheet} />
      <fieldset disabled={sheet.met !== null} className="m-0 min-w-0 border-0 p-0">
        <HoursPart {...shared} phone={phone} job={job} dated={sheet.dated} />
        {ROW_PARTS.map((part) => (
          <RowsPart key={part} part={part} {...shared} job={job} phone={phone} />
        ))}
        <section aria-label="Weather and notes">
          <h2>Weather and notes</h2>
          <TextBox label="Weather" value={day.weather} onValue={(weather) => change({ weather: weather.slice(0, 200) })} />
          <TextBox label="Notes" long value={day.notes} onValue={(notes) => change({ notes: notes.slice(0, 8000) })} />
        </section>
        <PhotosPart {...shared} phone={phone} sheet={sheet} />
        <ChargedPart {...shared} phone={phone} sheet={sheet} />
        <DeleteDay phone={phone} sheet={sheet} />
      </fieldset>
      <div className="day-bar">
        <SendButton phone={phone} sheet={sheet} />
      </div>
    </>
  );
}

/** What refused the sheet; what stands beneath its entries is only counted. */
function faultWords({ message, faults }: NonNullable<PhoneSheet['fault']>): string {
  const ofEntries = faults.filter((it) => it.field.startsWith('day.'));
  if (ofEntries.length === 0 || ofEntries.length < faults.length) return message;
  return `Not taken: ${plural(ofEntries.length, 'entry has', 'entries have')} to be corrected; the reason stands beneath each.`;
}

/** Asks the browser once not to throw away what is stored here when space runs short. */
function useAskedToSave({ owner }: Phone): void {
  useEffect(() => void navigator.storage?.persist?.(), [owner]);
}

function SendButton({ phone, sheet }: { phone: Phone; sheet: PhoneSheet }) {
  const send = async () => {
    await phone.save({ ...sheet, toSend: true, fault: null });
    await phone.send();
  };
  if (sheet.met) return <span role="status">Decide above what counts.</span>;
  if (!isUnsent(sheet)) return <span role="status">Sent. What you change is sent again.</span>;
  if (sheet.toSend)
    return (
      <button type="button" className="button touch" onClick={() => void phone.send()}>
        {phone.connected ? 'Sending …' : 'Waits for a connection; try now'}
      </button>
    );
  return (
    <button type="button" className="button main touch" onClick={() => void send()}>
      Send day sheet
    </button>
  );
}

/** A sheet of a wrong day or job: from the phone alone, or, once sent, from the office as well. */
function DeleteDay({ phone, sheet }: { phone: Phone; sheet: PhoneSheet }) {
  const [deleteSheet] = useDeleteDaySheetMutation();
  const { refused, attempt } = useAttempt();
  const [asked, setAsked] = useState(false);
  const navigate = useNavigate();
  // Whether the office has taken its hours over, the phone does not know: the server says so.
  if (!movesFrom(DAY_LIFE, dayState(sheet.day, true)).delete) return null;
  const { job, dated, crew, seen } = sheet;
  const run = async () => {
    const done = sheet.base === null || (await attempt(() => deleteSheet({ job, dated, crew, body: { seen } }).unwrap()));
    if (!done) return;
    await phone.remove(sheet);
    await navigate('/day-sheets', { replace: true });
  };
  return (
    <section aria-label="Delete">
      {refused && <Refused message={refused.message} />}
      <SureButton className="button bare touch" onSure={() => void run()} onAsked={setAsked}>
        Delete this day sheet
      </SureButton>
      {asked && (
        <p className="note m-0">
          {sheet.base === null
            ? 'It is on this phone alone, and cannot be brought back.'
            : 'It goes from the office as well, with its hours in the week sheet.'}
        </p>
      )}
    </section>
  );
}
