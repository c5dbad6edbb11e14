import { addDays } from '../../core/calendar/plainDate';
import { isDoneUnknown, labourTotal } from '../../core/forecast/labourProgress';
import { comparePlain } from '../../core/costs/costType';
import { weekBy } from '../../core/labour/overtime';
import { hoursAUnit } from '../../core/labour/productivity';
import { labourCalls, type LabourTaskRow, type PeopleAtWork } from '../../wire/labour';
import { achievedHours } from './achievedHours';
import { installedOn, quantitiesOf } from './quantities';
import { HOURS_AT_WORK, WORK_AHEAD } from './queries';
import { loadTerms } from './terms';
import type { Reader } from '../db/sql';
import { handle } from '../http/handlers';
import { jobByNumber, type JobIdentity } from '../jobs/jobByNumber';
import { JobTable } from '../jobs/models';
import { labourListCalls } from '../../wire/labourLists';
import { addEmployee } from './addEmployee';
import { findRate } from './findRate';
import { labourList, planHourlyRates, planList, saveList, usedLists } from './saveList';
import { labourTasks, type LabourTask } from './labourTasks';

const totalOf = (tasks: readonly LabourTask[]) => labourTotal(tasks.map((it) => ({ line: it.state, finished: it.finished })));

/** What is known of quantities of a job's tasks: to be installed, and installed. */
async function measuresOf(sql: Reader, job: JobIdentity, asOf: string) {
  return { planned: await quantitiesOf(sql, job), installed: await installedOn(sql, job, asOf) };
}
type Measures = Awaited<ReturnType<typeof measuresOf>>;

function rowOf(job: JobIdentity, task: LabourTask, measures: Measures): LabourTaskRow {
  const { id, section, costCode, description, state, progress } = task;
  const { quantity, unit } = measures.planned(id);
  return {
    ...progress,
    id,
    job: job.number,
    jobName: job.name,
    section,
    costCode,
    description,
    inBudget: state.budgeted,
    doneUnknown: isDoneUnknown(state, task.finished),
    quantity,
    unit,
    perUnit: hoursAUnit(progress, quantity),
    installed: measures.installed({ section, costCode, unit }),
  };
}

async function labourOfJob(sql: Reader, number: string, asOf: string) {
  const job = await jobByNumber(sql, number, 'job');
  const tasks = await labourTasks(sql, job, asOf);
  const measures = await measuresOf(sql, job, asOf);
  return { tasks: tasks.map((it) => rowOf(job, it, measures)), total: totalOf(tasks) };
}

/** Tasks of all running jobs, by cost code. */
async function labourByCode(sql: Reader, asOf: string) {
  const running = await sql.find(JobTable, { status: ['awarded', 'on-site'] }, ['number']);
  const tasks: { job: JobIdentity; task: LabourTask; measures: Measures }[] = [];
  for (const { number } of running) {
    const job = await jobByNumber(sql, number, 'job');
    const measures = await measuresOf(sql, job, asOf);
    for (const task of await labourTasks(sql, job, asOf)) tasks.push({ job, task, measures });
  }
  const codes = [...new Set(tasks.map((it) => it.task.costCode))].sort(comparePlain);
  return {
    codes: codes.map((costCode) => {
      const of = tasks.filter((it) => it.task.costCode === costCode);
      const rows = of.map(({ job, task, measures }) => rowOf(job, task, measures));
      return { costCode, description: rows[0]?.description ?? '', tasks: rows, ...totalOf(of.map((it) => it.task)) };
    }),
    total: totalOf(tasks.map((it) => it.task)),
  };
}

/** Hours of people week by week, the last of them the week that `asOf` lies in; who works late on which job, and who works where next. */
async function peopleAtWork(sql: Reader, asOf: string): Promise<PeopleAtWork> {
  const last = weekBy((await loadTerms(sql)).rules, asOf);
  const first = addDays(last, -(WEEKS_SHOWN - 1) * DAYS_OF_A_WEEK);
  return {
    weeks: Array.from({ length: WEEKS_SHOWN }, (_, i) => addDays(first, i * DAYS_OF_A_WEEK)),
    rows: await sql.all(HOURS_AT_WORK, [first, addDays(last, DAYS_OF_A_WEEK - 1)]),
    ahead: await sql.all(WORK_AHEAD, [last]),
  };
}
const WEEKS_SHOWN = 8;
const DAYS_OF_A_WEEK = 7;

export const labourHandlers = handle(labourCalls, {
  achievedHours: (sql, { asOf }) => achievedHours(sql, asOf),
  peopleAtWork: (sql, { asOf }) => peopleAtWork(sql, asOf),
  labourOfJob: (sql, { job, asOf }) => labourOfJob(sql, job, asOf),
  labourByCode: (sql, { asOf }) => labourByCode(sql, asOf),
});

export const labourListHandlers = handle(labourListCalls, {
  labourList: (sql, { list }) => labourList(sql, list),
  usedLabourLists: (sql) => usedLists(sql),
  previewLabourList: (database, { body }) =>
    database.read(async (sql) => {
      const { changes } = await planList(sql, body);
      // Rates of employees who are not there yet, or not under this code, are looked at once they are.
      if (body.list === 'employees')
        await planHourlyRates(
          sql,
          changes.filter((it) => it.was?.employee === it.now?.employee),
          body.ratesFrom,
        );
      return { changes };
    }),
  saveLabourList: (command, { body }) => saveList(command, body),
  addEmployee: (command, { body }) => addEmployee(command, body),
  findRate: (sql, args) => findRate(sql, args),
});
