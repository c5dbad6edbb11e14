import { inJob } from '../../core/places/place';
import { at } from '../../core/errors/known';
import { displayDate } from '../../core/calendar/displayDate';
import type { Instalment } from '../../core/instalments/instalment';
import { formatPercentShortest } from '../../core/money/rate';
import { money } from '../../core/workings/workings';
import type { Reader } from '../db/sql';
import { loadBillingJob } from '../billing/billingJobs';
import type { JobIdentity } from '../jobs/jobByNumber';
import { appliedFor, loadSchedule } from '../billing/billedBySchedule';
import type { Explained } from './figureFamily';

type TitledFigure = Explained & { title: string };

/** What a job's billing schedule bills by a date: the instalments that fell due. */
export async function scheduleDue(sql: Reader, job: JobIdentity, asOf: string): Promise<TitledFigure> {
  const schedule = await loadSchedule(sql, await loadBillingJob(sql, job.id), asOf);
  const due = (schedule?.instalments ?? []).flatMap((it, i) => {
    if (!schedule) return [];
    const { reached } = at(schedule.days, i);
    if (reached === null || reached > asOf) return [];
    const label = `${it.name}, due ${displayDate(reached)}${partWords(it)}`;
    return [money(label, at(schedule.valued.instalments, i).amount, '+', { to: inJob(job, 'billing-schedule') })];
  });
  return {
    title: 'Due by the schedule',
    rule: 'Instalments of the billing schedule that fell due by the date: on their day, or when their stages were started or finished. Percentages are of the scheduled value as it stands on the date.',
    operands: due,
  };
}

/** What was applied for by a date, whatever became of it. */
export async function scheduleApplied(sql: Reader, job: JobIdentity, asOf: string): Promise<TitledFigure> {
  const billing = await loadBillingJob(sql, job.id);
  const last = billing.applications.filter((it) => it.dated <= asOf).at(-1);
  return {
    title: 'Applied for',
    rule: 'The gross to date of the last application dated by then: a draft, submitted, or as certified.',
    operands: last
      ? [
          money(`Application ${last.number}, gross to date`, appliedFor(billing, asOf), '', {
            figure: { figure: 'gross', job: job.number, application: last.number },
            to: inJob(job, 'application', last.number),
          }),
        ]
      : [],
  };
}

/** What the schedule bills by a date beyond what was applied for. */
export async function scheduleToBill(sql: Reader, job: JobIdentity, asOf: string): Promise<TitledFigure> {
  const [due, applied] = [await scheduleDue(sql, job, asOf), await scheduleApplied(sql, job, asOf)];
  return {
    title: 'To bill by the schedule',
    rule: 'What fell due by the schedule, less the gross to date of the last application.',
    operands: [
      money('Due by the schedule', totalOf(due), '', { figure: { figure: 'scheduleDue', job: job.number } }),
      ...(applied.operands.length > 0
        ? [money('Applied for', totalOf(applied), '−', { figure: { figure: 'scheduleApplied', job: job.number } })]
        : []),
    ],
  };
}

function totalOf({ operands }: TitledFigure): number {
  return operands.reduce((total, it) => total + Number(it.value), 0);
}

function partWords({ rate, from, stages }: Instalment): string {
  if (rate === null) return '';
  return `, ${formatPercentShortest(rate)} % of ${from === 'stages' && stages.length > 0 ? stages.join(', ') : 'the contract sum'}`;
}
