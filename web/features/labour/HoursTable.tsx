import { useMemo, useState, type ReactNode } from 'react';
import { LABOUR_FIGURES, type LabourFigure } from '../../../core/forecast/labourFigures';
import type { LabourProgress } from '../../../core/forecast/labourProgress';
import { displayPercent, displayQuantity } from '../../../core/money/display';
import type { LabourTaskRow } from '../../../wire/labour';
import { lineName, NO_GROUP } from '../../ground/costLines/lineLook';
import { groupsLookedAt, rowsLookedAt, type LookedLines } from '../../ground/costLines/useLookedLines';
import { Fig } from '../../ground/workings/Fig';
import { Sign } from '../../kit/Signs';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';
import { percent } from '../../kit/typed/codecs';

const FIGURES = Object.entries(LABOUR_FIGURES) as [LabourFigure, (typeof LABOUR_FIGURES)[LabourFigure]][];
const WRITTEN: Record<'hours' | 'percent', (value: number) => string> = { hours: displayQuantity, percent: displayPercent };

/** What a task is called: its section and its cost code. */
const nameOf = (task: LabourTaskRow) => lineName(task, NO_GROUP);

/** The figures as columns; of rows that are a task each, every figure opens its workings. */
export function figureColumns<Row extends LabourProgress>(task: ((row: Row) => LabourTaskRow) | null): TableColumn<Row>[] {
  return FIGURES.map(([figure, { key, head, unit }]): TableColumn<Row> => {
    const written = WRITTEN[unit];
    const shown = (row: Row) => {
      const of = task?.(row);
      if (!of) return written(row[key]);
      if (of.doneUnknown && (key === 'percentDone' || key === 'toFinish'))
        return (
          <span className="note" title="Its hours are used up; set % done to see what is to finish">
            not set
          </span>
        );
      const label = `${head} of ${of.costCode}`;
      return <Fig value={row[key]} unit={unit} of={{ figure, job: of.job, line: of.id }} label={label} />;
    };
    return {
      key,
      title: head,
      value: (row) => row[key],
      number: written,
      cell: (row) => (
        <>
          {key === 'over' && row.over > 0 && (
            <>
              <Sign name="overrun" bare />{' '}
            </>
          )}
          {shown(row)}
        </>
      ),
    };
  });
}

/** The figures of a total, opened where they are of one job. */
export function totalCells(total: LabourProgress, job: string | null) {
  return Object.fromEntries(
    FIGURES.map(([figure, { key, head, unit }]) => [
      key,
      job === null ? (
        WRITTEN[unit](total[key])
      ) : (
        <Fig key={key} value={total[key]} unit={unit} of={{ figure, job }} label={head} />
      ),
    ]),
  );
}

/** What of a task is done, typed in place: it is kept as the forecast of the line. Its workings stay beside it. */
function DoneCell({
  row,
  shown,
  say,
}: {
  row: LabourTaskRow;
  shown: ReactNode;
  say: (row: LabourTaskRow, percent: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState('');
  if (typed === null)
    return (
      <span className="inline-flex items-baseline gap-2">
        {shown}
        <button
          type="button"
          className="text-[12px] text-[var(--accent)]"
          aria-label={`Set % done of ${nameOf(row)}`}
          onClick={() => setTyped(row.percentDone === 0 ? '' : percent.format(row.percentDone))}
        >
          set
        </button>
      </span>
    );
  const save = () => {
    const read = percent.parse(typed);
    if (!read.ok) return setFault(read.message);
    setTyped(null);
    if (read.value !== row.percentDone) say(row, read.value);
  };
  return (
    <form
      className="m-0 inline-flex flex-col items-end"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <input
        autoFocus
        className="box w-[64px] text-right"
        aria-label={`% done of ${nameOf(row)}`}
        aria-invalid={fault !== ''}
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setFault('');
        }}
        onKeyDown={(event) => event.key === 'Escape' && setTyped(null)}
        onBlur={save}
      />
      {fault !== '' && <span className="fault">{fault}</span>}
    </form>
  );
}

/** Hours that a unit takes, beside each other: as budgeted, and so far. */
function perUnitColumns(): TableColumn<LabourTaskRow>[] {
  const hours = (value: number | null) => (value === null ? '' : displayQuantity(value));
  return [
    {
      key: 'quantity',
      title: 'Quantity',
      value: (it: LabourTaskRow) => it.quantity,
      number: displayQuantity,
      cell: (it) => (it.quantity === null ? '' : `${displayQuantity(it.quantity)} ${it.unit}`),
    },
    {
      key: 'planned',
      title: 'h a unit, budget',
      value: (it: LabourTaskRow) => it.perUnit.planned,
      number: displayQuantity,
      cell: (it) => hours(it.perUnit.planned),
    },
    {
      key: 'achieved',
      title: 'hours per unit to date',
      value: (it: LabourTaskRow) => it.perUnit.achieved,
      number: displayQuantity,
      cell: ({ perUnit: { planned, achieved } }) => (
        <span className={planned !== null && achieved !== null && achieved > planned ? 'text-[var(--loss)]' : ''}>
          {hours(achieved)}
        </span>
      ),
    },
  ];
}

/** What day sheets measured: red where it takes longer than budgeted. */
function installedColumn(): TableColumn<LabourTaskRow> {
  return {
    key: 'installed',
    title: 'h a unit, day sheets',
    number: displayQuantity,
    value: (it) => it.installed?.perUnit ?? null,
    cell: ({ installed, unit, perUnit: { planned } }) =>
      installed && (
        <span
          className={planned !== null && installed.perUnit > planned ? 'text-[var(--loss)]' : ''}
          title={`${displayQuantity(installed.hours)} h for ${displayQuantity(installed.quantity)} ${unit} on day sheets`}
        >
          {displayQuantity(installed.perUnit)}
        </span>
      ),
  };
}

interface TasksProps {
  label: string;
  rows: readonly LabourTaskRow[];
  total: LabourProgress;
  /** Null where the rows are of several jobs. */
  job: string | null;
  /** Null where nobody says here what is done. */
  say?: ((row: LabourTaskRow, percent: number) => void) | null;
  /** As the cost lines of the job are looked at, where they are. */
  looked?: LookedLines | null;
}

/** What the hours of a group come to, as its rows show them; a share of several says less than its hours. */
const sumsOf = (rows: readonly LabourTaskRow[]) =>
  Object.fromEntries(
    FIGURES.flatMap(([, { key, unit }]) =>
      unit === 'hours' ? [[key, displayQuantity(rows.reduce((sum, it) => sum + it[key], 0))]] : [],
    ),
  );

/** Tasks, what will hurt most first. */
export function Tasks({ label, rows: all, total, job, say = null, looked = null }: TasksProps) {
  const rows = useMemo(() => (looked ? rowsLookedAt(looked, all) : all), [looked, all]);
  const by = looked?.look.by ?? NO_GROUP;
  const measured = rows.some((it) => it.quantity !== null);
  const onSheets = rows.some((it) => it.installed !== null);
  const columns = useMemo(
    (): TableColumn<LabourTaskRow>[] => [
      {
        key: 'task',
        title: job === null ? 'Job and task' : 'Task',
        value: (it) => (job === null ? `${it.job} ${it.jobName}, ${nameOf(it)}` : lineName(it, by)),
        cell: (it) => (
          <>
            {job === null && <b>{it.job} </b>}
            {lineName(it, by)} {!it.inBudget && <Sign name="unbudgeted" />}
          </>
        ),
      },
      ...figureColumns<LabourTaskRow>((it) => it).map((column) =>
        say && column.key === 'percentDone'
          ? { ...column, cell: (it: LabourTaskRow) => <DoneCell row={it} shown={column.cell(it)} say={say} /> }
          : column,
      ),
      ...(measured ? perUnitColumns() : []),
      ...(onSheets ? [installedColumn()] : []),
    ],
    [job, say, measured, onSheets, by],
  );
  return (
    <Table
      label={label}
      columns={columns}
      rows={rows}
      rowKey={(it) => `${it.job} ${it.id}`}
      sorted={{ key: 'over', descending: true }}
      unsearched={looked !== null}
      groups={looked ? groupsLookedAt(looked, sumsOf) : undefined}
      foot={
        rows.length === all.length
          ? { label: job === null ? 'Together' : `Job ${job}`, cells: totalCells(total, job) }
          : { label: `${rows.length} of ${all.length} tasks`, cells: sumsOf(rows) }
      }
    />
  );
}
