import { takes } from '../../core/jobs/takes';
import { addDays, type PlainDate } from '../../core/calendar/plainDate';
import { grouped } from '../../core/lists/grouped';
import type { PhoneJob, PhonePack } from '../../wire/daySheets';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';
import { labourTasks } from '../labour/labourTasks';
import { quantitiesOf } from '../labour/quantities';
import { timeLists } from '../weekSheets/sheetViews';
import { ruleOn } from '../../core/labour/overtime';
import { HOURS_OF_A_DAY } from '../../core/labour/sheets';
import { WEEKS_REMINDED } from '../weekSheets/queries';
import { viewsOf } from './daySheetViews';
import { DAY_SHEETS_OF_DAYS, JOBS_FOR_DAYS, LAST_CREWS } from './queries';

/** How far back a phone has the sheets of its jobs. */
const DAYS_BACK = 14;
/** Hours of a day where no overtime rule says after how many overtime begins. */
const EIGHT_HOURS = HOURS_OF_A_DAY / 3;

/** What a phone takes along. `today`: the day that is worked, of the sample the last of its month. */
export async function phonePack(sql: Reader, today: PlainDate, person: { name: string } | null): Promise<PhonePack> {
  const { employees, workKinds, costCodes, jobs: open, rules } = await timeLists(sql, person);
  const inOffice = new Map(open.map((it) => [it.number, it]));
  const crews = grouped(await sql.all(LAST_CREWS), (it) => it.job);
  const jobs: PhoneJob[] = [];
  for (const { number, name, site } of (await sql.all(JOBS_FOR_DAYS)).filter((it) => takes(it, 'daySheets'))) {
    const job = await jobByNumber(sql, number, 'job');
    const quantityOf = await quantitiesOf(sql, job);
    const tasks = (await labourTasks(sql, job, today)).map(({ section, costCode, description, progress, id }) => ({
      section,
      costCode,
      description,
      unit: quantityOf(id).unit,
      budgeted: progress.budgeted,
      used: progress.used,
    }));
    jobs.push({
      number,
      name,
      site,
      tasks,
      sections: inOffice.get(number)?.sections ?? [],
      workKind: inOffice.get(number)?.workKind ?? '',
      crew: (crews.get(number) ?? []).map((it) => it.employee),
    });
  }
  return {
    name: person?.name ?? '',
    today,
    jobs,
    employees,
    workKinds,
    costCodes,
    reminders: (await sql.all(WEEKS_REMINDED, [person?.name ?? ''])).map((it) => ({ week: it.document, people: it.people })),
    usualHours: ruleOn(rules, today)?.dailyAfter ?? EIGHT_HOURS,
    sheets: await viewsOf(sql, await sql.all(DAY_SHEETS_OF_DAYS, [addDays(today, -DAYS_BACK), addDays(today, DAYS_BACK)])),
  };
}
