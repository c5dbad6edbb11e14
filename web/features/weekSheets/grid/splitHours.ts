import { cutTime, type OvertimeRule } from '../../../../core/labour/overtime';
import { inNameOrder } from '../../../../core/labour/sheets';
import { PAY_CLASSES, type PayClass } from '../../../../core/labour/payClass';
import { displayQuantity } from '../../../../core/money/display';
import type { DayHours, TimeLineInput } from '../../../../wire/weekSheets';

export type ByClass = Record<PayClass, number>;

/**
 * How each line is cut by the overtime rule: what is posted of its people counts first, and what is entered on other sheets as it will
 * once they are posted together, in the order of the sheets. `sheet`: the lines' own; empty for a new one, which is the last.
 */
export function splitHours(
  lines: readonly TimeLineInput[],
  there: readonly DayHours[],
  rules: readonly OvertimeRule[],
  sheet: string,
): ByClass[] {
  const people = new Set(lines.map((it) => it.employee));
  const theirs = there.filter((it) => people.has(it.employee));
  const open = lines.map((line) => ({ ...line, hasUnits: line.units !== null, reversesOn: null }));
  const posted = theirs.flatMap(({ pay, ...it }) => (it.posted && pay !== null ? [{ ...it, pay }] : []));
  const waiting = theirs.filter((it) => !it.posted && it.sheet !== sheet).map((it) => ({ ...it, reversesOn: null }));
  const isBefore = (it: DayHours) => sheet === '' || inNameOrder(it.sheet, sheet) < 0;
  const cut = cutTime([...waiting.filter(isBefore), ...open, ...waiting.filter((it) => !isBefore(it))], posted, rules);
  return open.map((line) => {
    const classes: ByClass = { regular: 0, overtime: 0, double: 0 };
    for (const [pay, hours] of cut.get(line) ?? []) classes[pay] += hours;
    return classes;
  });
}

export function sumOfClasses(parts: readonly ByClass[]): ByClass {
  return parts.reduce<ByClass>(
    (sum, it) => ({ regular: sum.regular + it.regular, overtime: sum.overtime + it.overtime, double: sum.double + it.double }),
    {
      regular: 0,
      overtime: 0,
      double: 0,
    },
  );
}

/** 38 + 2.5 overtime + 1 double; regular hours alone say nothing more. */
export function classWords(classes: ByClass): string {
  return PAY_CLASSES.filter((it) => classes[it] !== 0)
    .map((it) => `${displayQuantity(classes[it])}${it === 'regular' ? '' : ` ${it}`}`)
    .join(' + ');
}
