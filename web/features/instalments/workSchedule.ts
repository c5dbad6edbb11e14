import { at } from '../../../core/errors/known';
import { cashCurve, type Cash } from '../../../core/instalments/cashCurve';
import { dueDay, type DueDay } from '../../../core/instalments/instalment';
import { problemWords, scheduledToDate, valueInstalments, type ValuedSchedule } from '../../../core/instalments/valueInstalments';
import { sum } from '../../../core/money/cents';
import type { BillingScheduleView } from '../../../wire/instalments';
import type { Faults } from '../../kit/typed/codecs';
import type { ReadInstalment } from './scheduleForm';

/** A schedule as typed, worked out with the same core that the server bills by. */
export interface WorkedSchedule {
  valued: ValuedSchedule;
  days: DueDay[];
  /** Due by the day of the page, of the whole job. */
  due: number;
  cash: Cash;
  /** Problems of value, by `row.column`. */
  faults: Faults;
}

export function workSchedule(
  view: BillingScheduleView,
  read: readonly ReadInstalment[],
  on: string,
  digits: number,
): WorkedSchedule {
  const instalments = read.map((it) => it.instalment);
  const dates = { job: view.job, stages: new Map(view.stages.map((it) => [it.name, it])) };
  const days = instalments.map((it) => dueDay(it, dates));
  const valued = valueInstalments(instalments, view.lines, days);
  const faults: Faults = new Map();
  valued.instalments.forEach(({ problem }, i) => {
    if (problem)
      faults.set(`${at(read, i).row}.${problem.kind === 'no-lines' ? 'stages' : 'part'}`, problemWords(problem, digits));
  });
  return {
    valued,
    days,
    faults,
    due: sum(scheduledToDate(valued, days, view.lines.length, on)),
    cash: cashCurve({
      bills: valued.instalments.map((it, i) => ({ day: at(days, i).expected, parts: it.parts })),
      lineRates: view.lines.map((it) => it.retentionRate),
      retention: view.retentionRule,
      contractSum: valued.contractSum,
      termsDays: view.termsDays,
      retentionOn: view.retentionOn,
      costs: view.costs,
    }),
  };
}
