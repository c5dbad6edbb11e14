import { readRows, rowOf } from '../../kit/grid/rowCodecs';
import { COST_TYPES } from '../../../core/costs/costType';
import { day, oneOf, optional, words, type Faults } from '../../kit/typed/codecs';
import { addDays } from '../../../core/calendar/plainDate';
import { displayDate } from '../../../core/calendar/displayDate';
import type { PlanInput, PlanView } from '../../../wire/plan';
import type { GridRow } from '../../kit/grid/gridTypes';

export interface PlanForm {
  sections: readonly GridRow[];
  lines: readonly GridRow[];
}

/** How the columns of the plan's grids are read. */
export function planCodecs(month: string) {
  const dayOrNone = optional(day(month), null);
  return {
    sections: {
      name: words('Expected a name'),
      startsOn: dayOrNone,
      finishesOn: dayOrNone,
      startedOn: dayOrNone,
      finishedOn: dayOrNone,
    },
    lines: {
      section: words(),
      costCode: words('Expected a cost code'),
      costType: oneOf(COST_TYPES),
      startsOn: day(month),
      finishesOn: day(month),
    },
  };
}
type PlanCodecs = ReturnType<typeof planCodecs>;

export function formOf(view: Pick<PlanView, 'sections' | 'lines'>, codecs: PlanCodecs): PlanForm {
  return {
    sections: view.sections.map((it) => rowOf(codecs.sections, it)),
    lines: view.lines.map((it) => rowOf(codecs.lines, it)),
  };
}

/** Reads the form; faults by `sections.row.column` and `lines.row.column`. */
export function readPlan(form: PlanForm, codecs: PlanCodecs): { faults: Faults; input: Omit<PlanInput, 'seen'> } {
  const faults: Faults = new Map();
  const sections = readRows(codecs.sections, form.sections, faults, { under: 'sections.' });
  for (const { value: it, fault } of sections) {
    if (it.startsOn && it.finishesOn && it.finishesOn < it.startsOn) fault('finishesOn', 'That is before it starts');
    if (it.finishedOn && !it.startedOn) fault('startedOn', 'Expected the day it started: it is finished');
    if (it.finishedOn && it.startedOn && it.finishedOn < it.startedOn) fault('finishedOn', 'That is before it started');
  }
  const lines = readRows(codecs.lines, form.lines, faults, { under: 'lines.' });
  for (const { value: it, fault } of lines)
    if (it.startsOn && it.finishesOn && it.finishesOn < it.startsOn) fault('finishesOn', 'That is before it starts');
  return { faults, input: { sections: sections.map((it) => it.value), lines: lines.map((it) => it.value) } };
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
