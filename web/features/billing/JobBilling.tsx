import { useJobBillingQuery, useStartApplicationMutation } from '../../ground/api/api';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import type { ApplicationRow, JobBilling as JobBillingData } from '../../../wire/billing';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Fig } from '../../ground/workings/Fig';
import { Sign } from '../../kit/Signs';
import { Refused, Waiting } from '../../kit/States';
import { ReceiveForm, ReleaseForm } from './ReceiveForm';

/** A job's applications and releases of retention; from here the next application is started. */
export function JobBilling() {
  const { number = '' } = useParams();
  const { month } = useAsOf();
  const { data, error, refetch } = useJobBillingQuery({ job: number, asOf: month });
  const { show, code } = useCurrency();
  const keep = useKeepMonth();
  const [releasing, setReleasing] = useState(false);
  const [receiving, setReceiving] = useState<string | null>(null);
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the applications" />;
  const paying = data.releases.find((it) => it.reference === receiving);
  return (
    <>
      <StartApplication job={number} data={data} next={(data.applications.at(-1)?.number ?? 0) + 1} />
      <table className="ledger">
        <thead>
          <tr>
            <th>Application</th>
            <th>Valuation date</th>
            <th>State</th>
            <th className="num">Gross to date</th>
            <th className="num">Retention</th>
            <th className="num">Due</th>
            <th className="num">Payable</th>
            <th className="num">Received</th>
            <th className="num">Outstanding</th>
            <th>Due date</th>
          </tr>
        </thead>
        <tbody>
          {data.applications.map((it) => (
            <ApplicationRowView key={it.number} row={it} />
          ))}
          {data.applications.length === 0 && (
            <tr>
              <td colSpan={10} className="note">
                No applications to date.
              </td>
            </tr>
          )}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={4}>Retention held, {code}</td>
            <td className="num">
              <Fig value={data.retentionHeld} of={{ figure: 'retentionHeld', job: number }} label="Retention held" />
            </td>
            <td colSpan={5} />
          </tr>
        </tfoot>
      </table>
      {data.releases.length > 0 && (
        <table className="ledger mt-5">
          <caption className="pb-1 text-left">
            <h2>Retention released</h2>
          </caption>
          <thead>
            <tr>
              <th>Reference</th>
              <th>Date</th>
              <th className="num">Amount</th>
              <th className="num">Tax</th>
              <th className="num">Received</th>
              <th>Due date</th>
              <th>Posting</th>
              <th>
                <span className="sr-only">Next</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {data.releases.map((it) => (
              <tr key={it.reference}>
                <td>{it.reference}</td>
                <td>{displayDate(it.dated)}</td>
                <td className="num">{show(it.amount)}</td>
                <td className="num">{show(it.tax)}</td>
                <td className="num">{show(it.received)}</td>
                <td>{displayDate(it.dueOn)}</td>
                <td>
                  <Link to={keep(`/ledger/postings/${it.postingId}`)}>{it.postingId}</Link>
                </td>
                <td>
                  {it.amount + it.tax !== it.received && (
                    <button type="button" className="button bare" onClick={() => setReceiving(it.reference)}>
                      Money received
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {paying && <ReceiveForm job={number} invoice={paying.reference} open={paying.amount + paying.tax - paying.received} />}
      {data.retentionHeld > 0 && !releasing && (
        <button type="button" className="button mt-4" onClick={() => setReleasing(true)}>
          Invoice released retention …
        </button>
      )}
      {releasing && data.retentionHeld > 0 && <ReleaseForm job={number} held={data.retentionHeld} />}
    </>
  );
}

function StartApplication({ job, data, next }: { job: string; data: JobBillingData; next: number }) {
  const { lastDay } = useAsOf();
  const navigate = useNavigate();
  const keep = useKeepMonth();
  const [start, { isLoading, error }] = useStartApplicationMutation();
  const { exact } = useCurrency();
  const { canStart: reason, schedule } = data;
  const go = async (bySchedule: boolean) => {
    const started = await start({ job, body: { dated: lastDay, reference: '', bySchedule } })
      .unwrap()
      .catch(() => null);
    if (started) void navigate(keep(`/jobs/${encodeURIComponent(job)}/billing/${started.number}`));
  };
  return (
    <div className="mb-3 flex items-center gap-3">
      <button
        type="button"
        className="button main"
        disabled={reason !== null || isLoading}
        onClick={() => void go(schedule !== null)}
      >
        Start application {next}
      </button>
      {schedule && reason === null && next > 1 && (
        <button type="button" className="button bare" disabled={isLoading} onClick={() => void go(false)}>
          from the previous application
        </button>
      )}
      <span className="note grow">
        {reason ??
          (schedule
            ? `Opens with what the schedule bills by ${displayDate(lastDay)}.`
            : `Opens with the figures of the last one, valuation date ${displayDate(lastDay)}.`)}
      </span>
      {schedule && (
        <span>
          By the schedule{' '}
          <b className="figure">
            <Fig value={schedule.due} of={{ figure: 'scheduleDue', job }} label="Due by the schedule" exact />
          </b>
          , applied for <span className="figure">{exact(schedule.billed)}</span>
        </span>
      )}
      <Link to={keep(`/jobs/${encodeURIComponent(job)}/billing/schedule`)}>
        {schedule ? 'Billing schedule' : 'Bill by a fixed schedule …'}
      </Link>
      {error !== undefined && <Refused message={faultOf(error).message} />}
    </div>
  );
}

/** One application in a list; with its job where the list is of many. */
export function ApplicationRowView({ row, withJob = false }: { row: ApplicationRow; withJob?: boolean }) {
  const keep = useKeepMonth();
  const { show } = useCurrency();
  const of = (figure: string) => ({ figure, job: row.job, application: row.number });
  const open = row.status === 'certified' ? row.payable - row.received : 0;
  const to = keep(`/jobs/${encodeURIComponent(row.job)}/billing/${row.number}`);
  return (
    <tr>
      {withJob && (
        <td className="truncate" style={{ maxWidth: 210 }} title={`${row.jobName}, ${row.client}`}>
          <Link to={keep(`/jobs/${encodeURIComponent(row.job)}`)}>
            <b>{row.job}</b>
          </Link>{' '}
          {row.jobName}
        </td>
      )}
      <td>
        <Link to={to}>{withJob ? row.number : `Application ${row.number}`}</Link>
      </td>
      <td className="whitespace-nowrap">{displayDate(row.dated)}</td>
      <td className="whitespace-nowrap">
        {row.status === 'certified' ? `certified ${displayDate(row.certifiedOn)}` : row.status}
      </td>
      <td className="num">
        <Fig value={row.gross} of={of('gross')} label="Gross to date" />
      </td>
      <td className="num">
        <Fig value={row.retention} of={of('retention')} label="Retention to date" />
      </td>
      <td className="num">
        <Fig value={row.due} of={of('due')} label="Due" />
      </td>
      <td className="num">
        <Fig value={row.payable} of={of('payable')} label="Payable" />
      </td>
      <td className="num">{show(row.received)}</td>
      <td className="num">{open === 0 ? '–' : <Fig value={open} of={of('applicationOpen')} label="Outstanding" />}</td>
      <td className="whitespace-nowrap">
        {displayDate(row.dueOn)}{' '}
        {row.daysLate > 0 && (
          <span style={{ color: 'var(--loss)' }}>
            <Sign name="overdue" bare /> {row.daysLate} days
          </span>
        )}
      </td>
    </tr>
  );
}
