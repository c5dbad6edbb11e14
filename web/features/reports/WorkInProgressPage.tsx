import { at, present } from '../../../core/errors/known';
import { Link } from 'react-router';
import type { ReportColumn } from '../../../wire/reports';
import { useReportQuery } from '../../ground/api/api';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Fig } from '../../ground/workings/Fig';
import { ColumnChoice, useHiddenColumns } from '../../kit/ColumnChoice';
import { PageHead } from '../../kit/PageHead';
import { Legend, Sign } from '../../kit/Signs';
import { Refused, Waiting } from '../../kit/States';
import { OverUnder, OverUnderBar } from './OverUnder';
import { Downloads } from './ReportHead';

type Row = Record<string, string | number>;
type FigureColumn = ReportColumn & { figure: string };

/** The columns of the report on the screen: over- and underbilled share one, as a job is only ever one of them. */
function columnsShown(columns: readonly ReportColumn[]): FigureColumn[] {
  return columns
    .filter((it): it is FigureColumn => it.figure !== undefined && it.key !== 'underbilled')
    .map((it) => (it.key === 'overbilled' ? { ...it, title: 'Over / under billed' } : it));
}

/** Hidden in a narrow window until somebody chooses, so that the rest is seen without scrolling. A loss is marked on the profit, too. */
const LEAST_NEEDED = ['profit_to_date', 'backlog', 'loss_provision'];

/** The work-in-progress schedule over all jobs, with over- and underbilling drawn beside the figures. */
export function WorkInProgressPage() {
  const { month } = useAsOf();
  const { data, error, refetch } = useReportQuery({ name: 'wip', asOf: month });
  const [hidden, hide] = useHiddenColumns('ledrin.wip.hidden', window.innerWidth < 1200 ? LEAST_NEEDED : []);
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what="the schedule" />;
  const columns = columnsShown(data.columns);
  return (
    <div className="page max-w-none">
      <PageHead title="Work in progress">
        <span className="flex gap-2">
          <ColumnChoice columns={columns} hidden={hidden} onHide={hide} />
          <Downloads name="wip" />
        </span>
      </PageHead>
      {data.rows.length < 2 ? (
        <p>No jobs awarded to date.</p>
      ) : (
        <Schedule
          columns={columns.filter(({ key }) => !hidden.has(key))}
          jobs={data.rows.slice(0, -1)}
          total={at(data.rows, -1)}
        />
      )}
      <p className="note mt-2 text-[12.5px]">
        <Legend names={['over', 'under', 'loss']} />
      </p>
    </div>
  );
}

function Schedule({ columns, jobs, total }: { columns: FigureColumn[]; jobs: Row[]; total: Row }) {
  const { code } = useCurrency();
  const widest = Math.max(1, ...jobs.map((row) => Math.max(row.overbilled as number, row.underbilled as number)));
  return (
    <div className="scroll max-h-[calc(100vh-178px)]" tabIndex={0} role="region" aria-label="Work-in-progress schedule">
      <table className="ledger dense">
        <thead>
          <tr>
            <th className="stays">Job</th>
            <th className="w-[84px]">under | over</th>
            {columns.map(({ key, title }) => (
              <th key={key} className="num">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {jobs.map((row) => (
            <ScheduleRow key={row.job} row={row} columns={columns} widest={widest} />
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td className="stays">
              {jobs.length} jobs, {code}
            </td>
            <td />
            <Figures row={total} columns={columns} />
          </tr>
        </tfoot>
      </table>
    </div>
  );
}

function ScheduleRow({ row, columns, widest }: { row: Row; columns: FigureColumn[]; widest: number }) {
  const keep = useKeepMonth();
  return (
    <tr>
      <td className="stays truncate" title={String(row.name)}>
        <Link to={keep(`/jobs/${encodeURIComponent(present(row.job))}`)}>
          <b>{row.job}</b>
        </Link>{' '}
        {row.name}
      </td>
      <td>
        <OverUnderBar over={row.overbilled as number} under={row.underbilled as number} widest={widest} />
      </td>
      <Figures row={row} columns={columns} job={String(row.job)} />
    </tr>
  );
}

function Figures({ row, columns, job }: { row: Row; columns: FigureColumn[]; job?: string }) {
  return columns.map((column) => (
    <td key={column.key} className="num">
      {column.key === 'overbilled' ? (
        <OverUnder row={row} job={job} />
      ) : (
        <OneFigure value={row[column.key] as number} column={column} job={job} />
      )}
    </td>
  ));
}

/** One figure, with the sign of a loss before a loss provision or a profit below zero. */
function OneFigure({ value, column: { figure, title, kind }, job }: { value: number; column: FigureColumn; job?: string }) {
  const loss = (figure === 'lossProvision' && value !== 0) || (figure === 'estimatedProfit' && value < 0);
  return (
    <>
      {loss && (
        <>
          <Sign name="loss" bare />{' '}
        </>
      )}
      <Fig
        value={value}
        unit={kind === 'percent' ? 'percent' : 'money'}
        of={job === undefined ? { figure } : { figure, job }}
        label={title}
      />
    </>
  );
}
