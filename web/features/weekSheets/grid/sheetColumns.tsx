import { displayDate } from '../../../../core/calendar/displayDate';
import { addDays } from '../../../../core/calendar/plainDate';
import { PAY_CLASSES } from '../../../../core/labour/payClass';
import { displayQuantity } from '../../../../core/money/display';
import type { TimeLists } from '../../../../wire/weekSheets';
import type { GridColumn, GridRow } from '../../../kit/grid/gridTypes';
import { columnsOf, typedBy } from '../../../kit/grid/rowCodecs';
import { Sign } from '../../../kit/Signs';
import { dayHours, DAYS, employeeCode, tidyHours, type SheetCodecs } from './readSheet';
import { classWords } from './splitHours';
import type { RowFigures } from './useSheet';

/** Mon 3 Mar. */
export function dayTitle(week: string, i: number): string {
  const day = addDays(week, i);
  return `${WEEKDAY[new Date(`${day}T00:00:00Z`).getUTCDay()]} ${displayDate(day).replace(/ \d{4}$/, '')}`;
}
const WEEKDAY = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];

const text = (value: string | undefined) => (value ?? '').trim();

/** Columns that most sheets do without. */
export const FURTHER = ['wageClass', 'pay', 'units', 'description'];

/** Wide enough for hours, and for start – finish – break. */
const HOURS_ALONE = 54;
const WITH_TIMES = 116;

interface ColumnsOf {
  week: string;
  rowAt: (row: number) => GridRow | undefined;
  further: boolean;
  /** Days on which times stand in some row. */
  clocked: readonly string[];
}

/** The columns of a week sheet, with what can be chosen in each and what is worked out beside it. */
export function sheetColumns(
  lists: TimeLists,
  codecs: SheetCodecs,
  figures: readonly RowFigures[],
  { week, rowAt, further, clocked }: ColumnsOf,
): GridColumn[] {
  const nameOf = new Map(lists.employees.map((it) => [it.employee, it.name]));
  // With further columns the names give way: the employee's cell shows them as it is typed in.
  const columns: GridColumn[] = [
    {
      key: 'employee',
      title: 'Employee',
      width: 62,
      offers: () => lists.employees.map((it) => ({ value: it.employee, label: it.name })),
      tidy: (typed) => employeeCode(typed, lists.employees),
      proposes: (_, i) => (i === 0 ? lists.me : text(rowAt(i - 1)?.employee) || null),
    },
    ...(further
      ? []
      : [{ key: 'name', title: 'Name', width: 'auto', show: (row: GridRow) => <Name name={nameOf.get(text(row.employee))} /> }]),
    {
      key: 'job',
      title: 'Job',
      width: 54,
      offers: () => lists.jobs.map((it) => ({ value: it.number, label: it.name })),
      // A row that has its hours and no job is overhead: a grey job in it would read as booked.
      proposes: (row, i) => (DAYS.some((day) => text(row[day]) !== '') ? null : text(rowAt(i - 1)?.job) || null),
    },
    {
      key: 'section',
      title: 'Section',
      width: 70,
      offers: (row) =>
        (lists.jobs.find((it) => it.number === text(row.job))?.sections ?? []).map((value) => ({ value, label: '' })),
    },
    {
      key: 'costCode',
      title: 'Code',
      width: 50,
      offers: () => lists.costCodes.map((it) => ({ value: it.code, label: it.description })),
    },
    {
      key: 'workKind',
      title: 'Kind',
      width: 50,
      proposes: (row) => lists.jobs.find((it) => it.number === text(row.job))?.workKind || null,
      offers: () => lists.workKinds.map((it) => ({ value: it.workKind, label: it.description })),
    },
    ...(further
      ? [
          { key: 'wageClass', title: 'Wage class', width: 68, offers: () => classesOf(lists) },
          { key: 'pay', title: 'Pay class', width: 66, offers: () => PAY_CLASSES.map((value) => ({ value, label: '' })) },
        ]
      : []),
    ...DAYS.map((key, i): GridColumn => ({
      ...typedBy(dayHours),
      key,
      title: dayTitle(week, i),
      width: clocked.includes(key) ? WITH_TIMES : HOURS_ALONE,
      tidy: tidyHours,
    })),
    ...(further ? [{ key: 'units', title: 'Units', width: 50 }] : []),
    { key: 'hours', title: 'Hours', width: 62, numeric: true, show: (_row, i) => displayQuantity(figures[i]?.hours ?? 0) },
    { key: 'split', title: 'Split', width: further ? 84 : 'auto', show: (_row, i) => <Split figures={figures[i]} /> },
    {
      key: 'left',
      title: 'Left of budget',
      width: further ? 82 : 118,
      numeric: true,
      show: (_row, i) => <Left figures={figures[i]} further={further} />,
    },
    ...(further ? [{ key: 'description', title: 'Note', width: 'auto' }] : []),
  ];
  return columnsOf(codecs, columns);
}

function classesOf(lists: TimeLists) {
  return [...new Set(lists.employees.map((it) => it.wageClass).filter(Boolean))].sort().map((value) => ({ value, label: '' }));
}

function Split({ figures }: { figures: RowFigures | undefined }) {
  const words = figures ? classWords(figures.classes) : '';
  return (
    <span className="block truncate" title={words}>
      {words}
    </span>
  );
}

function Left({ figures, further }: { figures: RowFigures | undefined; further: boolean }) {
  const task = figures?.task;
  if (!task) return null;
  if (task.budgeted === 0) return <Sign name="unbudgeted" />;
  return (
    <span title={`${displayQuantity(task.left)} of ${displayQuantity(task.budgeted)} hours budgeted are left with this sheet`}>
      {task.left < 0 && <Sign name="overrun" bare />} {displayQuantity(task.left)}{' '}
      {!further && <span className="note">of {displayQuantity(task.budgeted)}</span>}
    </span>
  );
}

function Name({ name = '' }: { name: string | undefined }) {
  return <span className="block truncate">{name}</span>;
}
