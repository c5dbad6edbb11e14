import { Link } from 'react-router';
import { displayDate } from '../../../../core/calendar/displayDate';
import { displayQuantity } from '../../../../core/money/display';
import { plural } from '../../../../core/names/plural';
import { Empty } from '../../../kit/States';
import { usePhone } from './Phone';
import { isUnsent, type PhoneSheet } from './phoneStore';
import './phone.css';

/** The day sheets on this phone, the newest first. */
export function DaysPage() {
  const { sheets, pack, connected, ready } = usePhone();
  const newest = [...sheets].sort((a, b) => (a.dated < b.dated ? 1 : a.dated > b.dated ? -1 : a.job < b.job ? -1 : 1));
  return (
    <div className="day-phone narrow">
      <h1 className="mb-1">Day sheets</h1>
      <p className="note mb-4 mt-0" role="status">
        {stateOf(sheets, connected)}
        {connected && ready && ' Ready without a connection.'}
      </p>
      {/* A pack from before has none. */}
      {(pack?.reminders ?? []).map((it) => (
        <p key={it.week} className="m-0 mb-3 border-l-4 border-[var(--over)] px-3">
          <b>Hours not handed in</b>, week of {displayDate(it.week)}: {it.people.replaceAll(',', ', ')}
        </p>
      ))}
      {pack === null ? (
        <Empty title={connected === false ? 'No connection' : 'Reading your jobs …'}>
          {connected === false && (
            <p className="note m-0">
              The first time, this phone needs a connection to fetch your jobs. After that it works without.
            </p>
          )}
        </Empty>
      ) : pack.jobs.length === 0 ? (
        <Empty title="You are on the team of no job yet; ask the office" />
      ) : (
        <Link className="button main touch wide justify-center!" to="/day-sheets/new">
          New day sheet
        </Link>
      )}
      <ul className="m-0 mt-4 list-none p-0">
        {newest.map((it) => (
          <li key={`${it.job} ${it.dated} ${it.crew}`} className="hair-below">
            <Link className="block py-3 no-underline" to={dayAddress(it)}>
              <b>{displayDate(it.dated)}</b> · {it.job} {it.jobName}
              <span className="note block">
                {it.crew} · {inShort(it)}
              </span>
              <SentSign sheet={it} />
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}

export const dayAddress = ({ job, dated, crew }: Pick<PhoneSheet, 'job' | 'dated' | 'crew'>): string =>
  `/day-sheets/${encodeURIComponent(job)}/${dated}/${encodeURIComponent(crew)}`;

function stateOf(sheets: readonly PhoneSheet[], connected: boolean | null): string {
  const waiting = sheets.filter((it) => it.toSend).length;
  if (connected === null) return 'Connecting …';
  if (!connected)
    return waiting === 0
      ? 'No connection. What you enter stays on this phone.'
      : `No connection. ${plural(waiting, 'sheet')} to be sent as soon as there is one.`;
  return waiting === 0 ? 'Connected; nothing waits to be sent.' : `Sending ${plural(waiting, 'sheet')} …`;
}

function inShort({ day }: PhoneSheet): string {
  const people = new Set(day.hours.map((it) => it.employee)).size;
  const hours = day.hours.reduce((sum, it) => sum + it.hours, 0);
  return people === 0 ? 'no hours yet' : `${plural(people, 'person', 'people')}, ${displayQuantity(hours)} h`;
}

/** Where a sheet is: a word and a colour. */
export function SentSign({ sheet }: { sheet: PhoneSheet }) {
  const [text, colour] = signOf(sheet);
  return (
    <span className="block text-[14px]" style={{ color: `var(--${colour})` }}>
      {text}
    </span>
  );
}

function signOf(sheet: PhoneSheet): [string, string] {
  if (sheet.fault) return ['Not taken; open it and see why', 'loss'];
  if (sheet.met) return ['The office changed the same; decide', 'loss'];
  if (sheet.toSend) return ['Waits to be sent', 'over'];
  if (isUnsent(sheet)) return [sheet.base === null ? 'On this phone only' : 'Changed on this phone, not sent', 'over'];
  const returned = sheet.view?.weekHours.find((it) => it.returned !== '');
  if (returned) return [`Hours returned: ${returned.returned}`, 'loss'];
  return ['Sent', 'good'];
}
