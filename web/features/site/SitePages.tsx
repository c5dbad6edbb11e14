import { Link, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayHours } from '../../../core/labour/sheets';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import type { SiteJob } from '../../../wire/site';
import { useSiteJobQuery, useSiteJobsQuery } from '../../ground/api/api';
import { Loaded } from '../../ground/Loaded';
import { Empty } from '../../kit/States';

/** The jobs of whoever works on site, for a phone: no money. */
export function SiteJobsPage() {
  const jobs = useSiteJobsQuery();
  return (
    <div className="page narrow">
      <h1 className="mb-3">Your jobs</h1>
      <p className="mt-0">
        <Link className="button main" to="/day-sheets">
          Day sheets
        </Link>
      </p>
      <Loaded of={jobs} what="your jobs">
        {(rows) =>
          rows.length === 0 ? (
            <Empty title="You are on the team of no job yet; ask the office" />
          ) : (
            <ul className="m-0 list-none p-0">
              {rows.map((it) => (
                <li key={it.number} className="hair-below">
                  <Link className="block py-3" to={`/site/${encodeURIComponent(it.number)}`}>
                    <b>{it.number}</b> {it.name}
                    <span className="note block">
                      {it.site} · {it.status}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
          )
        }
      </Loaded>
    </div>
  );
}

export function SiteJobPage() {
  const { number = '' } = useParams();
  const job = useSiteJobQuery({ job: number });
  return (
    <div className="page narrow">
      <p className="m-0">
        <Link to="/site">Your jobs</Link>
      </p>
      <Loaded of={job} what={`job ${number}`}>
        {(it) => <OneJob job={it} />}
      </Loaded>
    </div>
  );
}

function OneJob({ job }: { job: SiteJob }) {
  return (
    <>
      <h1 className="mb-1">
        {job.number} {job.name}
      </h1>
      <p className="mt-0">
        {job.site}
        <span className="note block">
          {job.status}
          {job.startsOn && `, from ${displayDate(job.startsOn)}`}
          {job.finishesOn && ` to ${displayDate(job.finishesOn)}`}
        </span>
      </p>
      <h2 className="mb-1 mt-5">Sections</h2>
      {job.sections.length === 0 && <p className="note m-0">None planned yet.</p>}
      <ul className="m-0 list-none p-0">
        {job.sections.map((it) => (
          <li key={it.name} className="hair-below py-2">
            <b>{it.name}</b>
            <span className="note block">{daysOf(it)}</span>
          </li>
        ))}
      </ul>
      <TaskHours hours={job.hours} />
      <h2 className="mb-1 mt-5">People</h2>
      <ul className="m-0 list-none p-0">
        {job.manager !== '' && (
          <li className="hair-below py-2">
            <b>{job.manager}</b> <span className="note">manager</span>
          </li>
        )}
        {job.people
          .filter((it) => it.name !== job.manager || it.side === 'client')
          .map((it) => (
            <li key={`${it.side} ${it.name}`} className="hair-below py-2">
              <b>{it.name}</b>{' '}
              <span className="note">{[it.role, it.side === 'client' ? 'of the client' : ''].filter(Boolean).join(', ')}</span>
              {it.phone && (
                <a className="block" href={`tel:${it.phone.replace(/[^+\d]/g, '')}`}>
                  {it.phone}
                </a>
              )}
            </li>
          ))}
      </ul>
      {job.documents.length > 0 && (
        <>
          <h2 className="mb-1 mt-5">Documents</h2>
          <ul className="m-0 list-none p-0">
            {job.documents.map((it) => (
              <li key={it.document} className="hair-below">
                <a
                  className="block py-2"
                  href={hrefOf(CALLS.siteDocument, { job: job.number, id: Number(it.document) })}
                  target="_blank"
                  rel="noreferrer"
                >
                  {it.name}
                </a>
              </li>
            ))}
          </ul>
        </>
      )}
      {job.checklist.length > 0 && (
        <>
          <h2 className="mb-1 mt-5">Checklist</h2>
          <ul className="m-0 list-none p-0">
            {job.checklist.map((it) => (
              <li key={it.item} className="hair-below py-2">
                {it.item}
                <span className="note block">
                  {it.doneOn ? `done ${displayDate(it.doneOn)}` : it.dueOn ? `due ${displayDate(it.dueOn)}` : 'open'}
                  {it.person && `, ${it.person}`}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

function daysOf({ startedOn, finishedOn, startsOn, finishesOn }: SiteJob['sections'][number]): string {
  if (finishedOn) return `finished ${displayDate(finishedOn)}`;
  if (startedOn) return `begun ${displayDate(startedOn)}${finishesOn ? `, planned to ${displayDate(finishesOn)}` : ''}`;
  if (startsOn) return `planned ${displayDate(startsOn)}${finishesOn ? ` to ${displayDate(finishesOn)}` : ''}`;
  return 'not planned yet';
}

/** Hours by task: budgeted, used, still to go. No money. */
function TaskHours({ hours }: Pick<SiteJob, 'hours'>) {
  if (hours.length === 0) return null;
  return (
    <>
      <h2 className="mb-1 mt-5">Hours by task</h2>
      <ul className="m-0 list-none p-0">
        {hours.map((it) => (
          <li key={`${it.section} ${it.costCode}`} className="hair-below py-2">
            <b>{[it.section, it.description].filter(Boolean).join(' · ')}</b>
            <span className="note block">
              {displayHours(it.used)} of {displayHours(it.budgeted)} h used
              {it.toFinish > 0 && `, ${displayHours(it.toFinish)} h to finish`}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
