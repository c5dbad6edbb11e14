import { Link, useSearchParams } from 'react-router';
import { addDays } from '../../../core/calendar/plainDate';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayQuantity } from '../../../core/money/display';
import { plural } from '../../../core/names/plural';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import type { DayOfJob, DayRegister } from '../../../wire/daySheets';
import { useDayRegisterQuery } from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { Loaded } from '../../ground/Loaded';
import { DAYS_OF_A_WEEK } from '../../ground/weeks/weekWords';
import { WeekChooser } from '../../ground/weeks/WeekChooser';
import { PageHead } from '../../kit/PageHead';
import { Empty } from '../../kit/States';
import { officeAddress } from '../../ground/officeAddress';

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** Day sheets of a week by job and day; weekdays of jobs on site without one are flagged. */
export function DayRegisterPage() {
  const { lastDay } = useAsOf();
  const [params] = useSearchParams();
  const register = useDayRegisterQuery({ on: params.get('on') ?? lastDay }, { refetchOnMountOrArgChange: true });
  const week = register.data?.week;
  return (
    <div className="page">
      <PageHead title="Day sheets">
        <Link className="button main" to="/day-sheets/new">
          New day sheet
        </Link>
      </PageHead>
      {week && <WeekChooser week={week} />}
      <Loaded of={register} what="the day sheets">
        {(data) => <WeekOfJobs register={data} />}
      </Loaded>
    </div>
  );
}

function WeekOfJobs({ register: { week, jobs } }: { register: DayRegister }) {
  const missing = jobs.reduce((sum, it) => sum + it.days.filter((day) => day.missing).length, 0);
  if (jobs.length === 0)
    return (
      <Empty title="No day sheets in this week">
        <p className="note m-0">Whoever leads a crew writes one a day, on a phone, at this address with /day-sheets behind it.</p>
      </Empty>
    );
  return (
    <>
      <p className="mt-0">
        {missing === 0 ? 'No day is missing.' : <b className="loss">{plural(missing, 'day is', 'days are')} missing</b>}
        <span className="note"> Weekdays since work began on site, up to today.</span>
      </p>
      <div className="table-box" tabIndex={0} role="region" aria-label="Day sheets by job and day">
        <table className="ledger w-full">
          <thead>
            <tr>
              <th scope="col">Job</th>
              {Array.from({ length: DAYS_OF_A_WEEK }, (_, i) => (
                <th key={i} scope="col">
                  {WEEKDAYS[weekdayAt(week, i)]} {displayDate(addDays(week, i)).replace(/ \w+ \d{4}$/, '')}
                </th>
              ))}
              <th scope="col">Week</th>
            </tr>
          </thead>
          <tbody>
            {jobs.map((it) => (
              <tr key={it.job}>
                <td className="max-w-[260px] align-top">
                  <span className="block truncate" title={it.jobName}>
                    <b>{it.job}</b> {it.jobName}
                  </span>
                </td>
                {it.days.map((day) => (
                  <td key={day.dated} className="align-top">
                    <OneDay job={it.job} day={day} />
                  </td>
                ))}
                <td className="align-top">
                  {it.days.some((day) => day.sheets.length > 0) && (
                    <a href={hrefOf(CALLS.dayWeekPdf, { job: it.job, on: week })} target="_blank" rel="noreferrer">
                      PDF
                    </a>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

/** The place of a day of the week among the names, whatever day weeks begin on. */
const weekdayAt = (week: string, i: number) =>
  (new Date(`${week}T00:00:00Z`).getUTCDay() + DAYS_OF_A_WEEK - 1 + i) % DAYS_OF_A_WEEK;

function OneDay({ job, day: { dated, missing, sheets } }: { job: string; day: DayOfJob }) {
  const withMonth = useWithMonth();
  if (missing)
    return (
      <Link className="loss" to={`/day-sheets/new?on=${dated}&job=${encodeURIComponent(job)}`}>
        missing
      </Link>
    );
  if (sheets.length === 0) return <span className="note">–</span>;
  return (
    <ul className="m-0 list-none p-0">
      {sheets.map((it) => (
        <li key={it.crew} className="mb-1">
          <Link to={withMonth(officeAddress({ job, dated, crew: it.crew }))}>{it.crew}</Link>
          <span className="note block">
            {displayQuantity(it.hours)} h, {plural(it.people, 'person', 'people')}
          </span>
          {it.incidents > 0 && <span className="loss block">{plural(it.incidents, 'incident')}</span>}
          {it.unsigned > 0 && <span className="block text-[var(--over)]">{it.unsigned} to be signed</span>}
          {it.differs && <span className="block text-[var(--over)]">hours differ</span>}
        </li>
      ))}
    </ul>
  );
}
