import { useBillingRegisterQuery } from '../../ground/api/api';
import { Link } from 'react-router';
import { displayPeriod } from '../../../core/calendar/displayDate';
import type { ApplicationRow } from '../../../wire/billing';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Fig } from '../../ground/workings/Fig';
import { Legend, Sign } from '../../kit/Signs';
import { Refused, Waiting } from '../../kit/States';
import { ApplicationRowView } from './JobBilling';

/** Billing over all jobs: who waits for an application, what waits to be certified, what is open. */
export function BillingPage() {
  const { month } = useAsOf();
  const { data, error, refetch } = useBillingRegisterQuery({ asOf: month });
  const keep = useKeepMonth();
  const { code } = useCurrency();
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what="the billing" />;
  const inWork = data.applications.filter((it) => it.status !== 'certified');
  const certified = data.applications.filter((it) => it.status === 'certified');
  return (
    <div className="page">
      <div className="mb-3 flex items-end justify-between">
        <h1>Billing</h1>
        <span className="note flex gap-4 text-[12.5px]">
          <Legend names={['over', 'under', 'overdue']} />
          <span>Amounts in {code}</span>
        </span>
      </div>
      <h2 className="mb-1">No application in {displayPeriod(month)} yet</h2>
      {data.unbilled.length === 0 ? (
        <p className="note">Every live job has one.</p>
      ) : (
        <table className="ledger">
          <thead>
            <tr>
              <th>Job</th>
              <th>Client</th>
              <th>Last application</th>
              <th className="num">Over / under billed</th>
              <th className="num">Due by schedule</th>
              <th>
                <span className="sr-only">Next</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {data.unbilled.map((it) => (
              <tr key={it.job}>
                <td>
                  <Link to={keep(`/jobs/${encodeURIComponent(it.job)}`)}>
                    <b>{it.job}</b>
                  </Link>{' '}
                  {it.name}
                </td>
                <td>{it.client}</td>
                <td>{it.lastNumber ?? 'none'}</td>
                <td className="num">
                  {it.overbilled + it.underbilled === 0 ? (
                    '–'
                  ) : (
                    <span className="inline-flex items-center gap-2">
                      <Sign name={it.overbilled > 0 ? 'over' : 'under'} bare />
                      <Fig
                        value={it.overbilled || it.underbilled}
                        of={{ figure: it.overbilled > 0 ? 'overbilled' : 'underbilled', job: it.job }}
                        label={it.overbilled > 0 ? 'Overbilled' : 'Underbilled'}
                      />
                    </span>
                  )}
                </td>
                <td className="num">
                  {it.bySchedule === null ? (
                    ''
                  ) : (
                    <Fig value={it.bySchedule} of={{ figure: 'scheduleToBill', job: it.job }} label="To bill by the schedule" />
                  )}
                </td>
                <td>
                  <Link to={keep(`/jobs/${encodeURIComponent(it.job)}/billing`)}>Start application</Link>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <h2 className="mb-1 mt-5">Drafted or submitted</h2>
      {inWork.length === 0 ? <p className="note">None.</p> : <Applications rows={inWork} />}
      <h2 className="mb-1 mt-5">Certified: unpaid, or dated this month</h2>
      {certified.length === 0 ? <p className="note">None.</p> : <Applications rows={certified} />}
    </div>
  );
}

function Applications({ rows }: { rows: readonly ApplicationRow[] }) {
  const { exact } = useCurrency();
  const sum = (value: (row: ApplicationRow) => number) => exact(rows.reduce((total, row) => total + value(row), 0));
  return (
    <table className="ledger dense">
      <thead>
        <tr>
          <th>Job</th>
          <th>No.</th>
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
        {rows.map((row) => (
          <ApplicationRowView key={`${row.job}/${row.number}`} row={row} withJob />
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={6}>
            {rows.length} {rows.length === 1 ? 'application' : 'applications'}
          </td>
          <td className="num">{sum((row) => row.due)}</td>
          <td className="num">{sum((row) => row.payable)}</td>
          <td className="num">{sum((row) => row.received)}</td>
          <td className="num">{sum((row) => (row.status === 'certified' ? row.payable - row.received : 0))}</td>
          <td />
        </tr>
      </tfoot>
    </table>
  );
}
