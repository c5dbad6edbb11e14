import { comparePlain } from '../../core/costs/costType';
import { grouped } from '../../core/lists/grouped';
import { hoursAUnit } from '../../core/labour/productivity';
import { WHOLE } from '../../core/money/rate';
import { at } from '../../core/errors/known';
import type { AchievedCode, AchievedTask } from '../../wire/labour';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';
import { JobTable } from '../jobs/models';
import { labourTasks } from './labourTasks';
import { quantitiesOf } from './quantities';

/** What a unit took on jobs that are finished by a day, against what was planned: by cost code and unit, for whoever prices the next one. */
export async function achievedHours(sql: Reader, asOf: string): Promise<{ codes: AchievedCode[] }> {
  const tasks: (AchievedTask & { costCode: string; description: string; unit: string })[] = [];
  for (const { number } of await sql.find(JobTable, { status: ['closing-out', 'closed', 'on-site'] }, ['number'])) {
    const job = await jobByNumber(sql, number, 'job');
    const quantities = await quantitiesOf(sql, job);
    for (const { id, section, costCode, description, finished, progress } of await labourTasks(sql, job, asOf)) {
      const { quantity, unit } = quantities(id);
      if (!finished || quantity === null || progress.used === 0) continue;
      tasks.push({
        job: number,
        jobName: job.name,
        section,
        costCode,
        description,
        unit,
        quantity,
        planned: progress.budgeted,
        used: progress.used,
        perUnit: hoursAUnit({ ...progress, percentDone: WHOLE }, quantity),
      });
    }
  }
  const codes = [...grouped(tasks, (it) => JSON.stringify([it.costCode, it.unit])).values()].map((of): AchievedCode => {
    const sum = (value: (it: AchievedTask) => number) => of.reduce((total, it) => total + value(it), 0);
    const { costCode, description, unit } = at(of, 0);
    const [quantity, planned, used] = [sum((it) => it.quantity), sum((it) => it.planned), sum((it) => it.used)];
    const perUnit = hoursAUnit({ budgeted: planned, used, percentDone: WHOLE }, quantity);
    return { costCode, description, unit, quantity, planned, used, perUnit, tasks: of };
  });
  return { codes: codes.sort((a, b) => comparePlain(a.costCode, b.costCode) || comparePlain(a.unit, b.unit)) };
}
