import { isFilled } from '../../kit/grid/filledRow';
import { COST_TYPES } from '../../../core/costs/costType';
import { day, oneOf, optional, readAt, type Faults } from '../../kit/typed/codecs';
import { addDays } from '../../../core/calendar/plainDate';
import { displayDate } from '../../../core/calendar/displayDate';
import type { PlanInput, PlanView } from '../../../wire/plan';
import type { GridRow } from '../../kit/grid/gridTypes';

export interface PlanForm {
  sections: readonly GridRow[];
  lines: readonly GridRow[];
}

export function formOf(view: Pick<PlanView, 'sections' | 'lines'>): PlanForm {
  return {
    sections: view.sections.map((it) => ({
      name: it.name,
      startsOn: displayDate(it.startsOn),
      finishesOn: displayDate(it.finishesOn),
      startedOn: displayDate(it.startedOn),
      finishedOn: displayDate(it.finishedOn),
    })),
    lines: view.lines.map((it) => ({
      ...{
        section: it.section,
        code: it.costCode,
        type: it.costType,
        startsOn: displayDate(it.startsOn),
        finishesOn: displayDate(it.finishesOn),
      },
    })),
  };
}

/** Reads the form; faults by `sections.row.column` and `lines.row.column`. */
export function readPlan(form: PlanForm, month: string): { faults: Faults; input: Omit<PlanInput, 'seen'> } {
  const faults: Faults = new Map();
  const dayOrNone = optional(day(month), null);
  const dayAt = (at: string, typed: string | undefined) => readAt(faults, at, typed, dayOrNone, null);
  const sections = form.sections.flatMap((row, i) => {
    if (!isFilled(row)) return [];
    if ((row.name ?? '').trim() === '') faults.set(`sections.${i}.name`, 'Expected a name');
    const [startsOn, finishesOn] = [
      dayAt(`sections.${i}.startsOn`, row.startsOn),
      dayAt(`sections.${i}.finishesOn`, row.finishesOn),
    ];
    if (startsOn && finishesOn && finishesOn < startsOn) faults.set(`sections.${i}.finishesOn`, 'That is before it starts');
    const [startedOn, finishedOn] = [
      dayAt(`sections.${i}.startedOn`, row.startedOn),
      dayAt(`sections.${i}.finishedOn`, row.finishedOn),
    ];
    if (finishedOn && !startedOn) faults.set(`sections.${i}.startedOn`, 'Expected the day it started: it is finished');
    if (finishedOn && startedOn && finishedOn < startedOn) faults.set(`sections.${i}.finishedOn`, 'That is before it started');
    return [{ name: (row.name ?? '').trim(), startsOn, finishesOn, startedOn, finishedOn }];
  });
  const lines = form.lines.flatMap((row, i) => {
    if (!isFilled(row)) return [];
    const at = (key: string) => `lines.${i}.${key}`;
    if ((row.code ?? '').trim() === '') faults.set(at('code'), 'Expected a cost code');
    const [startsOn, finishesOn] = [dayAt(at('startsOn'), row.startsOn), dayAt(at('finishesOn'), row.finishesOn)];
    if (!startsOn) faults.set(at('startsOn'), 'Expected the day it starts');
    if (!finishesOn) faults.set(at('finishesOn'), 'Expected the day it finishes');
    if (startsOn && finishesOn && finishesOn < startsOn) faults.set(at('finishesOn'), 'That is before it starts');
    const costType = readAt(faults, at('type'), row.type, oneOf(COST_TYPES), 'other');
    return [
      {
        section: (row.section ?? '').trim(),
        costCode: (row.code ?? '').trim(),
        costType,
        startsOn: startsOn ?? '',
        finishesOn: finishesOn ?? '',
      },
    ];
  });
  return { faults, input: { sections, lines } };
}

/** Lots by one pattern, `#` counted up from 1: each as long as `days`, beginning `every` days after the one before. */
export function lotsBy(pattern: string, count: number, from: string | null, days: number, every: number): GridRow[] {
  return Array.from({ length: count }, (_, i) => {
    const startsOn = from && addDays(from, i * every);
    return {
      name: pattern.includes('#') ? pattern.replaceAll('#', String(i + 1)) : `${pattern} ${i + 1}`,
      startsOn: displayDate(startsOn),
      finishesOn: displayDate(startsOn && addDays(startsOn, Math.max(0, days - 1))),
    };
  });
}
