import { useCallback, useMemo } from 'react';
import { Link } from 'react-router';
import { at } from '../../../core/errors/known';
import { STATUS_FIGURE_NAMES, STATUS_FIGURES } from '../../../core/progress/contractStatus';
import { PROGRESS_FIGURES } from '../../../core/progress/figures';
import { displayPercent } from '../../../core/money/display';
import type { ReportColumn, ReportReply } from '../../../wire/reports';
import { useReportQuery } from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { useMay } from '../../ground/person';
import { Loaded } from '../../ground/Loaded';
import { OverUnder } from '../../ground/OverUnder';
import { JobGroupChoice, useOverJobs, useReportGroups, type OverJobs } from '../../ground/reports/JobGroups';
import { Downloads } from '../../ground/reports/ReportHead';
import { Fig } from '../../ground/workings/Fig';
import { ColumnChoice, useHiddenColumns } from '../../kit/ColumnChoice';
import { PageHead } from '../../kit/PageHead';
import { Legend, Sign } from '../../kit/Signs';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';
import { OverUnderBar } from './OverUnderBar';

type Row = ReportReply['rows'][number];
type FigureColumn = ReportColumn & { figure: string };

/** The columns of the report on the screen: over- and underbilled share one, as a job is only ever one of them. */
function columnsShown(columns: readonly ReportColumn[]): FigureColumn[] {
  return columns
    .filter((it): it is FigureColumn => it.figure !== undefined && it.key !== 'underbilled')
    .map((it) => (it.key === 'overbilled' ? { ...it, title: 'Over / under billed' } : it))
    .flatMap((it) => (it.figure === 'cost' ? [it, TO_COMPLETE] : [it]));
}

/** Stands on the page beside the report's own columns. */
const TO_COMPLETE: FigureColumn = {
  key: 'cost_to_complete',
  title: PROGRESS_FIGURES.toComplete.title,
  kind: 'amount',
  figure: 'toComplete',
};

/** The rows with what is still to be spent on each. */
function withToComplete(row: Row): Row {
  return { ...row, cost_to_complete: Number(row.estimated_cost) - Number(row.cost_to_date) };
}

/** What the contract status has beside: columns to choose. */
const STATUS_COLUMNS: readonly FigureColumn[] = STATUS_FIGURE_NAMES.flatMap((figure): FigureColumn[] => {
  const { title, column, same } = STATUS_FIGURES[figure];
  return same === null ? [{ key: column, title, kind: 'amount', figure }] : [];
});

/** The rows with their contract status, by job; both have the same jobs. */
function withStatus(rows: readonly Row[], status: readonly Row[]): Row[] {
  const byJob = new Map(status.map((it) => [it.job, it]));
  return rows.map((row) => ({ ...byJob.get(row.job ?? ''), ...row }));
}

/** The groups of both reports, which have the same jobs in them. */
function groupsWithStatus(data: ReportReply, status: ReportReply | null): ReportReply['groups'] {
  const byCode = new Map(status?.groups?.map((it) => [it.code, it.total]));
  return data.groups?.map((it) => ({ ...it, total: { ...byCode.get(it.code), ...withToComplete(it.total) } }));
}

const LEAST_NEEDED = {
  below: 1200,
  columns: ['cost_to_complete', 'profit_to_date', 'backlog', 'loss_provision'],
  always: STATUS_COLUMNS.map((it) => it.key),
};

/** The work-in-progress schedule over all jobs, with over- and underbilling drawn beside the figures. */
export function WorkInProgressPage() {
  const { asOf } = useAsOf();
  const may = useMay();
  const over = useOverJobs();
  const report = useReportQuery({ name: 'wip', asOf, ...over });
  const mayStatus = may('report:contract-status');
  const { data: status } = useReportQuery({ name: 'contract-status', asOf, ...over }, { skip: !mayStatus });
  return (
    <div className="page max-w-none">
      <Loaded of={report} what="the schedule">
        {(data) => <Schedule data={data} status={status ?? null} over={over} />}
      </Loaded>
      <p className="note mt-2 text-[12.5px]">
        <Legend names={['over', 'under', 'loss']} />
      </p>
      {mayStatus && (
        <div className="mt-4 flex flex-wrap items-center gap-3">
          <span className="note">
            Contract status of the same jobs: original contract and budget, changes, overrun. Its columns can be chosen above.
          </span>
          <span className="ml-auto">
            <Downloads name="contract-status" over={over} />
          </span>
        </div>
      )}
    </div>
  );
}

/** `status`: the contract status of the same jobs; null where it is not shown. */
function Schedule({ data, status, over }: { data: ReportReply; status: ReportReply | null; over: OverJobs }) {
  const { code } = useCurrency();
  const [hidden, hide] = useHiddenColumns('ledrin.wip.columns', LEAST_NEEDED);
  const figures = useMemo(
    () => [...columnsShown(data.columns), ...(status === null ? [] : STATUS_COLUMNS)],
    [data.columns, status],
  );
  const rows = useMemo(() => withStatus(data.rows.map(withToComplete), status?.rows ?? []), [data.rows, status]);
  const jobs = useMemo(() => rows.slice(0, -1), [rows]);
  const columns = useScheduleColumns(figures, jobs);
  const total = at(rows, -1);
  const cellsOf = useCallback(
    (row: Row) => ({
      bar: '',
      ...Object.fromEntries(figures.map((it) => [it.key, <OneFigure key={it.key} row={row} column={it} plain />])),
    }),
    [figures],
  );
  const groups = useReportGroups<Row>(
    useMemo(() => groupsWithStatus(data, status), [data, status]),
    cellsOf,
  );
  return (
    <>
      <PageHead title="Work in progress">
        <span className="flex gap-2">
          <ColumnChoice columns={figures} hidden={hidden} onHide={hide} />
          <Downloads name="wip" over={over} />
        </span>
      </PageHead>
      <JobGroupChoice over={over} />
      {jobs.length === 0 ? (
        <p>No jobs awarded to date.</p>
      ) : (
        <Table
          label="Work-in-progress schedule"
          columns={columns}
          rows={jobs}
          rowKey={(row) => String(row.job)}
          hidden={hidden}
          height="window"
          groups={groups}
          foot={{
            label: `${jobs.length} jobs, ${code}`,
            cells: {
              bar: '',
              ...Object.fromEntries(figures.map((it) => [it.key, <OneFigure key={it.key} row={total} column={it} />])),
            },
          }}
          dense
        />
      )}
    </>
  );
}

function useScheduleColumns(figures: readonly FigureColumn[], jobs: readonly Row[]): TableColumn<Row>[] {
  const { exact } = useCurrency();
  return useMemo(() => {
    const widest = Math.max(1, ...jobs.map((row) => Math.max(Number(row.overbilled), Number(row.underbilled))));
    return [
      {
        key: 'job',
        title: 'Job',
        stays: true,
        cut: 'two-lines',
        value: (row) => `${row.job} ${row.name}`,
        cell: (row) => <JobOf row={row} />,
      },
      {
        key: 'bar',
        title: 'under | over',
        width: 84,
        cell: (row) => <OverUnderBar over={Number(row.overbilled)} under={Number(row.underbilled)} widest={widest} />,
      },
      ...figures.map((column): TableColumn<Row> => ({
        key: column.key,
        title: column.title,
        number: column.kind === 'percent' ? displayPercent : exact,
        value: (row) =>
          column.key === 'overbilled' ? Number(row.overbilled) - Number(row.underbilled) : Number(row[column.key]),
        cell: (row) => <OneFigure row={row} column={column} job={String(row.job)} />,
      })),
    ];
  }, [figures, jobs, exact]);
}

function JobOf({ row }: { row: Row }) {
  const withMonth = useWithMonth();
  return (
    <>
      <Link to={withMonth(`/jobs/${encodeURIComponent(String(row.job))}`)}>
        <b>{row.job}</b>
      </Link>{' '}
      {row.name}
    </>
  );
}

/** One figure, `plain` without its workings, since a group has none; with the sign of a loss before a loss provision or a profit below zero. */
function OneFigure({ row, column, job, plain = false }: { row: Row; column: FigureColumn; job?: string; plain?: boolean }) {
  const { figure, title, kind, key } = column;
  const { show } = useCurrency();
  if (key === 'overbilled') return <OverUnder over={Number(row.overbilled)} under={Number(row.underbilled)} job={job} />;
  const value = Number(row[key]);
  const written = kind === 'percent' ? displayPercent(value) : show(value);
  const loss = (figure === 'lossProvision' && value !== 0) || (figure === 'estimatedProfit' && value < 0);
  return (
    <>
      {loss && (
        <>
          <Sign name="loss" bare />{' '}
        </>
      )}
      {plain ? (
        written
      ) : (
        <Fig
          value={value}
          unit={kind === 'percent' ? 'percent' : 'money'}
          of={job === undefined ? { figure } : { figure, job }}
          label={title}
        />
      )}
    </>
  );
}
