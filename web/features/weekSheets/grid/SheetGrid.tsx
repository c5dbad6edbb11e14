import { useMemo, useRef, useState, type ReactNode } from 'react';
import { addDays, type PlainDate } from '../../../../core/calendar/plainDate';
import { displayQuantity } from '../../../../core/money/display';
import type { TimeLists } from '../../../../wire/weekSheets';
import { EntryCards } from '../../../kit/grid/EntryCards';
import { EntryGrid } from '../../../kit/grid/EntryGrid';
import { GridFoot } from '../../../kit/grid/GridFoot';
import { SheetImport } from '../../../ground/sheets/SheetImport';
import { Pop } from '../../../kit/Pop';
import { PHONE, useNarrowWindow } from '../../../kit/useNarrowWindow';
import { useNames } from '../employeeNames';
import { useWorkedBefore } from './useWorkedBefore';
import { CopyRows } from './CopyRows';
import { DAYS, isTyped } from './readSheet';
import { FURTHER, sheetColumns } from './sheetColumns';
import type { Sheet } from './useSheet';

interface Props {
  sheet: Sheet;
  lists: TimeLists;
  week: string;
  faults: ReadonlyMap<string, string>;
  /** Told whenever something is typed. */
  onTyped: () => void;
  height: string;
  children?: ReactNode;
}

/** The rows of a week sheet to type on: employees by days, with what is left of each task beside it. */
export function SheetGrid({ sheet, lists, week, faults, onTyped, height, children }: Props) {
  const { rows, codecs, figures, read } = sheet;
  const [row, setRow] = useState(0);
  const isNarrow = useNarrowWindow(PHONE);
  const latest = useRef(rows);
  latest.current = rows;
  const used = rows.some((it) => FURTHER.some((key) => (it[key] ?? '').trim() !== ''));
  const [asked, setAsked] = useState(false);
  const further = asked || used;
  const before = useWorkedBefore(lists, week);
  const nameOf = useNames(lists);
  const clocked = DAYS.filter((day) => rows.some((it) => (it[day] ?? '').includes('-'))).join(' ');
  const returned = rows.flatMap((it, i) => (it.returned ? [`Row ${i + 1}, ${nameOf(it.employee ?? '')}: ${it.returned}`] : []));
  const columns = useMemo(
    // What is proposed is asked of the rows as they are then: that they changed makes no new columns.
    () =>
      sheetColumns(lists, codecs, figures, {
        week,
        rowsNow: () => latest.current,
        before,
        further,
        clocked: clocked.split(' '),
      }),
    [lists, codecs, figures, week, before, further, clocked],
  );
  const onRows = (next: typeof rows) => {
    sheet.setRows(next);
    onTyped();
  };
  const hoursOf = (day: string) => read.lines.reduce((sum, it, i) => sum + (read.places[i]?.day === day ? it.hours : 0), 0);
  const total = read.lines.reduce((sum, it) => sum + it.hours, 0);
  const foot = columns.map(({ key }) => {
    if (DAYS.includes(key)) return displayQuantity(hoursOf(key));
    return key === 'hours' ? displayQuantity(total) : '';
  });
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        {!isNarrow && (
          <RepeatFor
            people={employedIn(lists, week)}
            row={rows[row]}
            onRepeat={(people) => onRows(repeated(rows, row, people))}
          />
        )}
        <SheetImport of="time" columns={columns} onRows={(more) => onRows([...rows.filter(isTyped), ...more])} />
        <CopyRows week={week} codecs={codecs} onRows={(more) => onRows([...rows.filter(isTyped), ...more])} />
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={further} disabled={used} onChange={(event) => setAsked(event.target.checked)} />
          {lists.departments.length > 0 ? 'Department, wage class' : 'Wage class'}, pay class, units, note
        </label>
        {children}
      </div>
      {returned.length > 0 && (
        <div role="status" className="mb-2 border-l-4 border-[var(--loss)] bg-[var(--loss-soft)] px-3 py-2">
          <b>Returned: correct and resubmit</b>
          <ul className="m-0 list-none p-0">
            {returned.map((it) => (
              <li key={it}>{it}</li>
            ))}
          </ul>
        </div>
      )}
      {isNarrow ? (
        <EntryCards label="Hours of the week" each="Row" columns={columns} rows={rows} onRows={onRows} faults={faults} />
      ) : (
        <EntryGrid
          autoFocus
          label="Hours of the week"
          columns={columns}
          rows={rows}
          onRows={onRows}
          faults={faults}
          foot={<GridFoot cells={['Total', ...foot.slice(1)]} grows />}
          blank={Math.max(8, rows.length + 2)}
          height={height}
          onRow={setRow}
        />
      )}
      <p className="note mt-1 text-[12.5px]">
        A cell takes hours such as 8.5, 8,5 or 8:30, or start – finish – break such as 7:00-16:30-0:30. Employees can be pasted by
        code or by name. A row without a job is overhead, such as an absence. Press Space to accept a grey suggestion.
      </p>
    </>
  );
}

/** The row once more for each of the people, after it. */
function repeated(rows: readonly Record<string, string>[], at: number, people: readonly string[]) {
  const row = { ...rows[at], returned: '' };
  return [...rows.slice(0, at + 1), ...people.map((employee) => ({ ...row, employee })), ...rows.slice(at + 1)];
}

/** Who is employed on some day of a week. */
function employedIn({ employees }: TimeLists, week: PlainDate) {
  const last = addDays(week, 6);
  return employees.filter(({ startsOn, endsOn }) => (startsOn ?? week) <= last && (endsOn ?? last) >= week);
}

interface RepeatProps {
  people: TimeLists['employees'];
  row: Record<string, string> | undefined;
  onRepeat: (people: string[]) => void;
}

/** Fills the row one is in down for a crew at once. */
function RepeatFor({ people, row, onRepeat }: RepeatProps) {
  const [open, setOpen] = useState(false);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const others = people.filter((it) => it.employee !== row?.employee);
  const filled = row !== undefined && isTyped(row);
  const tick = (employee: string, on: boolean) =>
    setTicked(new Set(on ? [...ticked, employee] : [...ticked].filter((it) => it !== employee)));
  return (
    <Pop
      button="Repeat the row for …"
      disabled={!filled}
      title={filled ? undefined : 'Fill in a row first; it is then repeated for each of the people'}
      open={open}
      onOpen={setOpen}
      className="w-[300px] p-3"
    >
      <fieldset className="m-0 border-0 p-0">
        <legend className="note mb-1 p-0">Copy the row for</legend>
        <div className="scroll max-h-[260px]" tabIndex={0}>
          {others.map(({ employee, name }) => (
            <label key={employee} className="flex items-center gap-2 py-0.5">
              <input type="checkbox" checked={ticked.has(employee)} onChange={(event) => tick(employee, event.target.checked)} />
              {employee} {name}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="mt-2 flex gap-2">
        <button
          type="button"
          className="button main"
          disabled={ticked.size === 0}
          onClick={() => {
            onRepeat([...ticked]);
            setTicked(new Set());
            setOpen(false);
          }}
        >
          Add {ticked.size} {ticked.size === 1 ? 'row' : 'rows'}
        </button>
        <button type="button" className="button" onClick={() => setTicked(new Set(others.map((it) => it.employee)))}>
          Tick all
        </button>
      </div>
    </Pop>
  );
}
