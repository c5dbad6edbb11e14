import { Fragment } from 'react';
import { Link, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { sumHours, type DaySheet } from '../../../core/daySheets/daySheet';
import { dayRowInWords, PART_TITLES } from '../../../core/daySheets/dayWords';
import { displayQuantity } from '../../../core/money/display';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import type { DaySheetView } from '../../../wire/daySheets';
import type { TimeLists } from '../../../wire/weekSheets';
import { useDaySheetQuery, useTimeListsQuery } from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { useWithMonth } from '../../ground/asOf';
import { SiteHoursDiffer } from '../../ground/daySheets/SiteHoursDiffer';
import { HistoryLink } from '../../ground/HistoryLink';
import { Loaded } from '../../ground/Loaded';
import { displayMoment } from '../../kit/displayMoment';
import { PageHead } from '../../kit/PageHead';
import { Strokes } from './Strokes';

/** A day sheet as the office reads it: what the site said, what the week sheet has of it, and its documents. */
export function DaySheetPage() {
  const { job = '', dated = '', crew = '' } = useParams();
  const sheet = useDaySheetQuery({ job, dated, crew });
  const lists = useTimeListsQuery();
  return (
    <div className="page">
      <Loaded of={lists} what="people and cost codes">
        {(given) => (
          <Loaded of={sheet} what="the day sheet">
            {(view) => <OneSheet view={view} lists={given} />}
          </Loaded>
        )}
      </Loaded>
    </div>
  );
}

interface Props {
  view: DaySheetView;
  lists: TimeLists;
}

function OneSheet({ view, lists }: Props) {
  const { job, dated, crew, day } = view;
  const key = { job, dated, crew };
  const unsigned = ([...day.hours, ...day.equipment, ...day.deliveries] as const).some((it) => it.charged && it.signature === 0);
  return (
    <>
      <PageHead title={`Day sheet, ${displayDate(dated)}`}>
        <div className="flex items-center gap-3">
          <HistoryLink subject={`day sheet ${job} ${dated} ${crew}`} />
          <a className="button" href={hrefOf(CALLS.daySheetPdf, key)} target="_blank" rel="noreferrer">
            PDF
          </a>
          {unsigned && (
            <a className="button" href={hrefOf(CALLS.dayworkSheetPdf, { ...key, id: 0 })} target="_blank" rel="noreferrer">
              Daywork sheet, to be signed (PDF)
            </a>
          )}
          <Link className="button main" to={`/day-sheets/${encodeURIComponent(job)}/${dated}/${encodeURIComponent(crew)}`}>
            Change
          </Link>
        </div>
      </PageHead>
      <p className="mt-0">
        <b>{job}</b> {view.jobName} · crew of {crew}
        <span className="note">
          {' '}
          Written by {view.writtenBy}, {displayMoment(view.writtenAt)}
          {day.weather && ` · Weather: ${day.weather}`}
        </span>
      </p>
      <Hours view={view} lists={lists} />
      <SiteHoursDiffer view={view} nameOf={nameIn(lists)} />
      <Lists day={day} lists={lists} />
      {day.notes !== '' && (
        <section aria-label="Notes" className="mt-5">
          <h2 className="mb-1">Notes</h2>
          <p className="m-0 whitespace-pre-wrap">{day.notes}</p>
        </section>
      )}
      <Photos view={view} />
      <Signatures view={view} />
      {view.leftOut !== '' && (
        <section aria-label="Left out when two versions met" className="mt-5">
          <h2 className="mb-1">Left out when two versions met</h2>
          <p className="m-0 whitespace-pre-wrap">{view.leftOut}</p>
        </section>
      )}
    </>
  );
}

const nameIn = (lists: TimeLists) => (employee: string) =>
  lists.employees.find((it) => it.employee === employee)?.name ?? employee;

function Hours({ view: { day, weekSheet }, lists }: Props) {
  const withMonth = useWithMonth();
  if (day.hours.length === 0) return <p className="note">No hours on this sheet.</p>;
  const kinds = day.hours.some((it) => it.workKind !== '');
  const codes = new Map(lists.costCodes.map((it) => [it.code, it.description]));
  return (
    <section aria-label="Hours" className="mt-4">
      <h2 className="mb-1">
        Hours{' '}
        {weekSheet !== '' && (
          <Link className="text-[14px]" to={withMonth(addressOf({ place: 'week-sheet', document: weekSheet }))}>
            week sheet {weekSheet}
          </Link>
        )}
      </h2>
      <div className="table-box" tabIndex={0} role="region" aria-label="Hours by person and task">
        <table className="ledger">
          <thead>
            <tr>
              {['Person', 'Task', ...(kinds ? ['Kind of work'] : []), 'Pay class'].map((it) => (
                <th key={it} scope="col">
                  {it}
                </th>
              ))}
              <th scope="col" className="num">
                Hours
              </th>
              <th scope="col">Remark</th>
            </tr>
          </thead>
          <tbody>
            {day.hours.map((it, i) => (
              <tr key={i}>
                <td>{nameIn(lists)(it.employee)}</td>
                <td>{[it.section, `${it.costCode} ${codes.get(it.costCode) ?? ''}`].filter(Boolean).join(' · ')}</td>
                {kinds && <td>{it.workKind}</td>}
                <td>{it.pay ?? <span className="note">by the overtime rule</span>}</td>
                <td className="num">{displayQuantity(it.hours)}</td>
                <td>
                  {[it.charged && (it.signature > 0 ? `charged, signature ${it.signature}` : 'to be charged'), it.description]
                    .filter(Boolean)
                    .join(', ')}
                </td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <th scope="row" colSpan={kinds ? 4 : 3} className="text-left">
                Total
              </th>
              <td className="num">{displayQuantity(sumHours(day.hours))}</td>
              <td />
            </tr>
          </tfoot>
        </table>
      </div>
    </section>
  );
}

const SHOWN = ['quantities', 'equipment', 'subcontractors', 'deliveries', 'visitors', 'incidents', 'instructions'] as const;

function Lists({ day, lists }: { day: DaySheet; lists: TimeLists }) {
  return (
    <div className="mt-5 grid grid-cols-2 gap-x-10 gap-y-4">
      {SHOWN.filter((part) => day[part].length > 0).map((part) => (
        <section key={part} aria-label={PART_TITLES[part]}>
          <h2 className="mb-1">{PART_TITLES[part]}</h2>
          <ul className="m-0 list-none p-0">
            {day[part].map((it, i) => (
              <li key={i} className="hair-below py-1">
                {dayRowInWords({ ...it, photo: '' }, nameIn(lists))}
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

function Photos({ view: { day, arrived } }: { view: DaySheetView }) {
  const photos = [
    ...day.photos,
    ...day.deliveries.flatMap(({ photo, name, reference }) =>
      photo ? [{ photo, description: `Delivery note ${reference}, ${name}` }] : [],
    ),
  ];
  if (photos.length === 0) return null;
  return (
    <section aria-label="Photos" className="mt-5">
      <h2 className="mb-1">Photos</h2>
      <div className="flex flex-wrap gap-4">
        {photos.map(({ photo, description }) => (
          <figure key={photo} className="m-0 w-[240px]">
            {arrived.includes(photo) ? (
              <a href={hrefOf(CALLS.dayPhoto, { hash: photo })} target="_blank" rel="noreferrer">
                <img
                  className="h-[180px] w-full object-cover"
                  src={hrefOf(CALLS.dayPhoto, { hash: photo })}
                  alt={description || 'Photo'}
                />
              </a>
            ) : (
              <span className="note">Not arrived from the phone yet</span>
            )}
            <figcaption className="note">{description}</figcaption>
          </figure>
        ))}
      </div>
    </section>
  );
}

function Signatures({ view: { job, dated, crew, day } }: { view: DaySheetView }) {
  if (day.signatures.length === 0) return null;
  return (
    <section aria-label="Signed by the client" className="mt-5">
      <h2 className="mb-1">Signed by the client</h2>
      {day.signatures.map((it) => (
        <Fragment key={it.number}>
          <Strokes strokes={it.strokes} words={`Signature of ${it.name}`} />
          <p className="m-0">
            {[it.name, it.office].filter(Boolean).join(', ')}, {displayDate(it.signedOn)} ·{' '}
            <a href={hrefOf(CALLS.dayworkSheetPdf, { job, dated, crew, id: it.number })} target="_blank" rel="noreferrer">
              Daywork sheet {it.number} (PDF)
            </a>
          </p>
        </Fragment>
      ))}
    </section>
  );
}
