import { useMemo } from 'react';
import { LABOUR_FIGURES, type LabourFigure } from '../../../core/forecast/labourFigures';
import type { LabourProgress } from '../../../core/forecast/labourProgress';
import { displayPercent, displayQuantity } from '../../../core/money/display';
import type { LabourTaskRow } from '../../../wire/labour';
import { Fig } from '../../ground/workings/Fig';
import { Sign } from '../../kit/Signs';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';

const FIGURES = Object.entries(LABOUR_FIGURES) as [LabourFigure, (typeof LABOUR_FIGURES)[LabourFigure]][];
const WRITTEN: Record<'hours' | 'percent', (value: number) => string> = { hours: displayQuantity, percent: displayPercent };

/** What a task is called: its section and its cost code, after its job where there are several. */
function nameOf({ section, costCode, description }: LabourTaskRow): string {
  return [section, `${costCode} ${description}`].filter(Boolean).join(' · ');
}

/** The figures as columns; of rows that are a task each, every figure opens its workings. */
export function figureColumns<Row extends LabourProgress>(task: ((row: Row) => LabourTaskRow) | null): TableColumn<Row>[] {
  return FIGURES.map(([figure, { key, head, unit }]): TableColumn<Row> => {
    const written = WRITTEN[unit];
    const shown = (row: Row) => {
      const of = task?.(row);
      if (!of) return written(row[key]);
      const label = `${head} of ${of.costCode}`;
      return <Fig value={row[key]} unit={unit} of={{ figure, job: of.job, line: of.id }} label={label} />;
    };
    return {
      ...{ key, title: head, value: (row) => row[key], number: written },
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

interface TasksProps {
  label: string;
  rows: readonly LabourTaskRow[];
  total: LabourProgress;
  /** Null where the rows are of several jobs. */
  job: string | null;
}

/** Tasks, what will hurt most first. */
export function Tasks({ label, rows, total, job }: TasksProps) {
  const columns = useMemo(
    (): TableColumn<LabourTaskRow>[] => [
      {
        key: 'task',
        title: job === null ? 'Job and task' : 'Task',
        value: (it) => (job === null ? `${it.job} ${it.jobName}, ${nameOf(it)}` : nameOf(it)),
        cell: (it) => (
          <>
            {job === null && <b>{it.job} </b>}
            {nameOf(it)} {!it.inBudget && <Sign name="unbudgeted" />}
          </>
        ),
      },
      ...figureColumns<LabourTaskRow>((it) => it),
    ],
    [job],
  );
  return (
    <Table
      label={label}
      columns={columns}
      rows={rows}
      rowKey={(it) => `${it.job} ${it.id}`}
      sorted={{ key: 'over', descending: true }}
      foot={{ label: job === null ? 'Together' : `Job ${job}`, cells: totalCells(total, job) }}
    />
  );
}
