import { displayDate } from '../../../../core/calendar/displayDate';
import { addDays } from '../../../../core/calendar/plainDate';
import { likelyJobs, likelyTask, type WorkedBefore } from '../../../../core/labour/likelyTasks';
import { CHARGE_MARKS, MARK_WORDS } from '../../../../core/charging/chargeMark';
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
export const FURTHER = ['department', 'wageClass', 'pay', 'units', 'charge', 'description'];

/** Wide enough for hours, and for start – finish – break. */
const HOURS_ALONE = 54;
const WITH_TIMES = 116;

interface ColumnsOf {
  week: string;
  /** The rows as they are typed. */
  rowsNow: () => readonly GridRow[];
  before: WorkedBefore;
  further: boolean;
  /** Days on which times stand in some row. */
  clocked: readonly string[];
}

/** The columns of a week sheet, with what can be chosen in each and what is worked out beside it. */
export function sheetColumns(
  lists: TimeLists,
  codecs: SheetCodecs,
  figures: readonly RowFigures[],
  { week, rowsNow, before, further, clocked }: ColumnsOf,
): GridColumn[] {
  // Every cell in sight asks for the same rows.
  let tasks: { of: readonly GridRow[]; rows: ReturnType<typeof taskOf>[] } = { of: [], rows: [] };
  const likely = (i: number) => {
    if (tasks.of !== rowsNow()) tasks = { of: rowsNow(), rows: rowsNow().map(taskOf) };
    return likelyTask(tasks.rows, i, before);
  };
  const nameOf = new Map(lists.employees.map((it) => [it.employee, it.name]));
  // With further columns the names give way: the employee's cell shows them as it is typed in.
  const columns: GridColumn[] = [
    {
      key: 'employee',
      title: 'Employee',
      width: 62,
      offers: () => lists.employees.map((it) => ({ value: it.employee, label: it.name })),
      tidy: (typed) => employeeCode(typed, lists.employees),
      proposes: (_, i) => (i === 0 ? lists.me : text(rowsNow()[i - 1]?.employee) || null),
    },
    ...(further
      ? []
      : [{ key: 'name', title: 'Name', width: 'auto', show: (row: GridRow) => <Name name={nameOf.get(text(row.employee))} /> }]),
    {
      key: 'job',
      title: 'Job',
      width: 54,
      offers: (row) => jobsFor(lists, likelyJobs(taskOf(row), before)),
      // A row that has its hours and no job is overhead: a grey job in it would read as booked.
      proposes: (row, i) => (hasHours(row) ? null : likely(i)?.job || null),
    },
    {
      key: 'section',
      title: 'Section',
      width: 70,
      offers: (row) =>
        (lists.jobs.find((it) => it.number === text(row.job))?.sections ?? []).map((value) => ({ value, label: '' })),
      proposes: (row, i) => (text(row.job) === '' || hasHours(row) ? null : likely(i)?.section || null),
    },
    {
      key: 'costCode',
      title: 'Code',
      width: 50,
      offers: () => lists.costCodes.map((it) => ({ value: it.code, label: it.description })),
      proposes: (row, i) => (text(row.job) === '' ? null : likely(i)?.costCode || null),
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
          ...(lists.departments.length > 0
            ? [
                {
                  key: 'department',
                  title: 'Dept.',
                  width: 56,
                  offers: () => lists.departments.map((it) => ({ value: it.code, label: it.name })),
                },
              ]
            : []),
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
    ...(further
      ? [
          { key: 'units', title: 'Units', width: 50 },
          { key: 'charge', title: 'Charge', width: 56, offers: () => CHARGE_OFFERS },
        ]
      : []),
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

const CHARGE_OFFERS = CHARGE_MARKS.map((value) => ({ value, label: MARK_WORDS[value] }));

const hasHours = (row: GridRow) => DAYS.some((day) => text(row[day]) !== '');

const taskOf = (row: GridRow) => ({
  employee: text(row.employee),
  job: text(row.job),
  section: text(row.section),
  costCode: text(row.costCode),
});

/** Jobs to choose from, those that are likely first. */
function jobsFor({ jobs }: TimeLists, likely: readonly string[]) {
  const rank = (number: string) => (likely.includes(number) ? likely.indexOf(number) : likely.length);
  return [...jobs].sort((a, b) => rank(a.number) - rank(b.number)).map((it) => ({ value: it.number, label: it.name }));
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
