import type { PayClass } from '../labour/payClass';
import type { SheetState } from '../labour/timeLife';
import type { Hours } from '../money/rate';

/** What hours are of: a person, a task, and a pay class where one was given. */
export interface HoursOf {
  /** By code. */
  employee: string;
  section: string;
  costCode: string;
  workKind: string;
  /** Null: split by the overtime rule. */
  pay: PayClass | null;
}

/** Hours that the site and the office have otherwise. */
export interface HoursDifference extends HoursOf {
  site: Hours;
  office: Hours;
  /** Why the office's are not to be changed here: approved or posted; null where they are. */
  fixed: 'approved' | 'posted' | null;
}

/** The name of what hours are of, for whoever takes them row by row. */
export const keyOfHours = ({ employee, section, costCode, workKind, pay }: HoursOf): string =>
  JSON.stringify([employee, section, costCode, workKind, pay]);

/**
 * Where the hours of a day sheet and of the week sheet it feeds differ, in the order of the site, then of the office. Posted, a line may
 * be cut into classes: its hours are added up again, for `pay` is then null.
 */
export function hoursDiffer(
  site: readonly (HoursOf & { hours: Hours })[],
  office: readonly (HoursOf & { hours: Hours; state: SheetState })[],
): HoursDifference[] {
  const rows = new Map<string, HoursDifference>();
  const rowOf = ({ employee, section, costCode, workKind, pay }: HoursOf): HoursDifference => {
    const of = { employee, section, costCode, workKind, pay };
    const key = keyOfHours(of);
    const row = rows.get(key) ?? { ...of, site: 0, office: 0, fixed: null };
    rows.set(key, row);
    return row;
  };
  for (const it of site) rowOf(it).site += it.hours;
  for (const it of office) {
    const row = rowOf(it);
    row.office += it.hours;
    if (it.state === 'posted' || (it.state === 'approved' && row.fixed === null)) row.fixed = it.state;
  }
  return [...rows.values()].filter((it) => it.site !== it.office);
}
