import { useReportQuery } from '../../ground/api/api';
import { Link } from 'react-router';
import type { FigureRef } from '../../../wire/workings';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Fig } from '../../ground/workings/Fig';
import { Legend, Sign } from '../../kit/Signs';
import { Refused, Waiting } from '../../kit/States';
import { ReportHead } from './ReportHead';

/** Columns of the schedule with the figure that explains each. */
const COLUMNS = [
  ['contract_sum', 'Contract sum', 'contractSum'],
  ['estimated_cost', 'Estimate at completion', 'estimate'],
  ['estimated_profit', 'Estimated profit', 'estimatedProfit'],
  ['estimated_margin_percent', 'Margin %', 'margin'],
  ['cost_to_date', 'Cost to date', 'cost'],
  ['percent_complete', 'Complete %', 'complete'],
  ['earned_revenue', 'Earned revenue', 'earned'],
  ['profit_to_date', 'Profit to date', 'profitToDate'],
  ['billed_to_date', 'Billed to date', 'billed'],
  ['overbilled', 'Over / under billed', 'overbilled'],
  ['backlog', 'Backlog', 'backlog'],
  ['loss_provision', 'Loss provision', 'lossProvision'],
] as const;
const PERCENT = new Set(['estimated_margin_percent', 'percent_complete']);

type Row = Record<string, string | number>;

/** The work-in-progress schedule over all jobs, with over- and underbilling drawn beside the figures. */
export function WorkInProgressPage() {
  const { month } = useAsOf();
  const { data, error, refetch } = useReportQuery({ name: 'wip', asOf: month });
  const { code } = useCurrency();
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what="the schedule" />;
  const jobs = data.rows.slice(0, -1);
  const total = data.rows.at(-1)!;
  const widest = Math.max(1, ...jobs.map((row) => Math.max(row.overbilled as number, row.underbilled as number)));
  return (
    <div className="page" style={{ maxWidth: 'none' }}>
      <ReportHead title="Work in progress" name="wip" />
      {jobs.length === 0 ? (
        <p>No job is awarded by this month.</p>
      ) : (
        <div
          className="scroll"
          style={{ maxHeight: 'calc(100vh - 178px)' }}
          tabIndex={0}
          role="region"
          aria-label="Work-in-progress schedule"
        >
          <table className="ledger" style={{ fontSize: 12.5 }}>
            <thead>
              <tr>
                <th style={{ minWidth: 140, maxWidth: 190 }}>Job</th>
                <th style={{ width: 84 }}>under | over</th>
                {COLUMNS.map(([key, title]) => (
                  <th key={key} className="num" style={{ whiteSpace: 'normal', padding: '5px 4px' }}>
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {jobs.map((row) => (
                <ScheduleRow key={row.job} row={row} widest={widest} />
              ))}
            </tbody>
            <tfoot>
              <tr>
                <td colSpan={2}>
                  {jobs.length} jobs, {code}
                </td>
                <Figures row={total} />
              </tr>
            </tfoot>
          </table>
        </div>
      )}
      <p className="note mt-2 text-[12.5px]">
        <Legend names={['over', 'under', 'loss']} />
      </p>
    </div>
  );
}

function ScheduleRow({ row, widest }: { row: Row; widest: number }) {
  const keep = useKeepMonth();
  return (
    <tr>
      <td className="cut" style={{ maxWidth: 170 }} title={String(row.name)}>
        <Link to={keep(`/jobs/${encodeURIComponent(row.job!)}`)}>
          <b>{row.job}</b>
        </Link>{' '}
        {row.name}
      </td>
      <td style={{ padding: '0 4px' }}>
        <OverUnderBar over={row.overbilled as number} under={row.underbilled as number} widest={widest} />
      </td>
      <Figures row={row} job={String(row.job)} />
    </tr>
  );
}

function Figures({ row, job }: { row: Row; job?: string }) {
  return (
    <>
      {COLUMNS.map(([key, title, figure]) => (
        <td key={key} className="num" style={{ padding: '0 4px' }}>
          {key === 'overbilled' ? (
            <OverUnder row={row} job={job} />
          ) : (
            <SignedFigure
              value={row[key] as number}
              percent={PERCENT.has(key)}
              of={job === undefined ? { figure } : { figure, job }}
              title={title}
              loss={(key === 'loss_provision' && row[key] !== 0) || (key === 'estimated_profit' && (row[key] as number) < 0)}
            />
          )}
        </td>
      ))}
    </>
  );
}

function SignedFigure({
  value,
  percent,
  of,
  title,
  loss,
}: {
  value: number;
  percent: boolean;
  of: FigureRef;
  title: string;
  loss: boolean;
}) {
  return (
    <>
      {loss && (
        <>
          <Sign name="loss" bare />{' '}
        </>
      )}
      <Fig value={value} unit={percent ? 'percent' : 'money'} of={of} label={title} />
    </>
  );
}

/** A job is over- or underbilled; a total may be both. */
function OverUnder({ row, job }: { row: Row; job?: string }) {
  const sides = (['overbilled', 'underbilled'] as const).filter((key) => row[key] !== 0);
  if (sides.length === 0) return <>–</>;
  return (
    <span className="inline-flex flex-col items-end leading-tight">
      {sides.map((key) => (
        <span key={key}>
          <Sign name={key === 'overbilled' ? 'over' : 'under'} bare />{' '}
          <Fig
            value={row[key] as number}
            of={job === undefined ? { figure: key } : { figure: key, job }}
            label={key === 'overbilled' ? 'Overbilled' : 'Underbilled'}
          />
        </span>
      ))}
    </span>
  );
}

/** Underbilled to the left, overbilled to the right of one line. */
function OverUnderBar({ over, under, widest }: { over: number; under: number; widest: number }) {
  const half = 36;
  return (
    <svg width="76" height="12" viewBox="0 0 76 12" aria-hidden="true" className="block">
      {under > 0 && (
        <rect
          x={38 - (under / widest) * half}
          y="2"
          width={(under / widest) * half}
          height="8"
          fill="none"
          stroke="var(--under)"
          strokeWidth="1.4"
        />
      )}
      {over > 0 && <rect x="38" y="2" width={(over / widest) * half} height="8" fill="var(--over)" />}
      <line x1="38" x2="38" y1="0" y2="12" stroke="var(--rule)" />
    </svg>
  );
}
