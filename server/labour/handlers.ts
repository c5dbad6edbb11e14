import { labourTotal } from '../../core/forecast/labourProgress';
import { comparePlain } from '../../core/costs/costType';
import { labourCalls, type LabourTaskRow } from '../../wire/labour';
import type { Reader } from '../db/sql';
import { handle } from '../http/handlers';
import { jobByNumber, type JobIdentity } from '../jobs/jobByNumber';
import { JobTable } from '../jobs/models';
import { labourListCalls } from '../../wire/labourLists';
import { findRate } from './findRate';
import { labourList, planList, saveList } from './saveList';
import { labourTasks, type LabourTask } from './labourTasks';

const totalOf = (tasks: readonly LabourTask[]) => labourTotal(tasks.map((it) => ({ line: it.state, finished: it.finished })));

function rowOf(job: JobIdentity, { id, section, costCode, description, state, progress }: LabourTask): LabourTaskRow {
  return { ...progress, id, job: job.number, jobName: job.name, section, costCode, description, inBudget: state.budgeted };
}

async function labourOfJob(sql: Reader, number: string, asOf: string) {
  const job = await jobByNumber(sql, number, 'job');
  const tasks = await labourTasks(sql, job, asOf);
  return { tasks: tasks.map((it) => rowOf(job, it)), total: totalOf(tasks) };
}

/** Tasks of all running jobs, by cost code. */
async function labourByCode(sql: Reader, asOf: string) {
  const running = await sql.find(JobTable, { status: ['awarded', 'on-site'] }, ['number']);
  const tasks: { job: JobIdentity; task: LabourTask }[] = [];
  for (const { number } of running) {
    const job = await jobByNumber(sql, number, 'job');
    for (const task of await labourTasks(sql, job, asOf)) tasks.push({ job, task });
  }
  const codes = [...new Set(tasks.map((it) => it.task.costCode))].sort(comparePlain);
  return {
    codes: codes.map((costCode) => {
      const of = tasks.filter((it) => it.task.costCode === costCode);
      const rows = of.map(({ job, task }) => rowOf(job, task));
      return { costCode, description: rows[0]?.description ?? '', tasks: rows, ...totalOf(of.map((it) => it.task)) };
    }),
    total: totalOf(tasks.map((it) => it.task)),
  };
}

export const labourHandlers = handle(labourCalls, {
  labourOfJob: (sql, { job, asOf }) => labourOfJob(sql, job, asOf),
  labourByCode: (sql, { asOf }) => labourByCode(sql, asOf),
});

export const labourListHandlers = handle(labourListCalls, {
  labourList: (sql, { list }) => labourList(sql, list),
  previewLabourList: (database, { body }) => database.read(async (sql) => ({ changes: (await planList(sql, body)).changes })),
  saveLabourList: (command, { body }) => saveList(command, body),
  findRate: (sql, args) => findRate(sql, args),
});
