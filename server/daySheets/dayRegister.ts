import { takes } from '../../core/jobs/takes';
import { addDays, type PlainDate } from '../../core/calendar/plainDate';
import { chargedEntries } from '../../core/daySheets/daySheet';
import { missingDays } from '../../core/daySheets/missingDays';
import { weekBy } from '../../core/labour/overtime';
import { grouped } from '../../core/lists/grouped';
import type { DayOfJob, DayRegister, DaySheetView } from '../../wire/daySheets';
import type { Reader } from '../db/sql';
import { loadTerms } from '../labour/terms';
import { LAST_OF_WEEK } from '../weekSheets/sheetViews';
import { viewsOf } from './daySheetViews';
import { DAY_SHEETS_OF_DAYS, JOBS_FOR_DAYS } from './queries';

/** Day sheets of the week a day lies in, by job and day; weekdays of jobs on site without one are missing. */
export async function dayRegister(sql: Reader, on: PlainDate, today: PlainDate): Promise<DayRegister> {
  const week = weekBy((await loadTerms(sql)).rules, on);
  const last = addDays(week, LAST_OF_WEEK);
  const views = await viewsOf(sql, await sql.all(DAY_SHEETS_OF_DAYS, [week, last]));
  const byJob = grouped(views, (it) => it.job);
  const running = (await sql.all(JOBS_FOR_DAYS)).filter((it) => takes(it, 'daySheets'));
  const names = new Map([
    ...running.map((it) => [it.number, it.name] as const),
    ...views.map((it) => [it.job, it.jobName] as const),
  ]);
  const jobs = [...names].map(([job, jobName]) => {
    const sheets = grouped(byJob.get(job) ?? [], (it) => it.dated);
    const found = running.find((it) => it.number === job);
    // A job that somebody worked on is on site, whatever its status says; closing out, days without work are no gaps.
    const since = found && found.status !== 'closing-out' ? found.since : null;
    const missing = new Set(missingDays(week, last, { since, today, there: new Set(sheets.keys()) }));
    const days = Array.from({ length: LAST_OF_WEEK + 1 }, (_, i): DayOfJob => {
      const dated = addDays(week, i);
      return { dated, missing: missing.has(dated), sheets: (sheets.get(dated) ?? []).map(inShort) };
    });
    return { job, jobName, days };
  });
  return {
    week,
    jobs: jobs
      .filter((it) => it.days.some((day) => day.missing || day.sheets.length > 0))
      .sort((a, b) => (a.job < b.job ? -1 : a.job > b.job ? 1 : 0)),
  };
}

function inShort({ crew, day, differs }: DaySheetView): DayOfJob['sheets'][number] {
  const open = chargedEntries(day, 0);
  return {
    crew,
    differs,
    incidents: day.incidents.length,
    people: new Set(day.hours.map((it) => it.employee)).size,
    hours: day.hours.reduce((sum, it) => sum + it.hours, 0),
    unsigned: open.hours.length + open.equipment.length + open.deliveries.length,
  };
}
