import { cutTime, type OvertimeRule } from '../../../../core/labour/overtime';
import { PAY_CLASSES, type PayClass } from '../../../../core/labour/payClass';
import { displayQuantity } from '../../../../core/money/display';
import type { DayHours, TimeLineInput } from '../../../../wire/weekSheets';

export type ByClass = Record<PayClass, number>;

/** How each line is cut by the overtime rule; what is posted of its people by other sheets counts first. */
export function splitHours(
  lines: readonly TimeLineInput[],
  posted: readonly DayHours[],
  rules: readonly OvertimeRule[],
): ByClass[] {
  const open = lines.map((line) => ({ ...line, hasUnits: line.units !== null, reversesOn: null }));
  const there = posted.flatMap(({ pay, ...it }) => (it.posted && pay !== null ? [{ ...it, pay }] : []));
  const cut = cutTime(open, there, rules);
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
      ...{ regular: 0, overtime: 0, double: 0 },
    },
  );
}

/** 38 + 2.5 overtime + 1 double; regular hours alone say nothing more. */
export function classWords(classes: ByClass): string {
  return PAY_CLASSES.filter((it) => classes[it] !== 0)
    .map((it) => `${displayQuantity(classes[it])}${it === 'regular' ? '' : ` ${it}`}`)
    .join(' + ');
}
