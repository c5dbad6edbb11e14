import { useJobChangesQuery } from '../../ground/api/api';
import { Link, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import type { ChangeSummary } from '../../../wire/changes';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Sign } from '../../kit/Signs';
import { Refused, Waiting } from '../../kit/States';

/** The changes of a job: what they ask for, what was agreed, and what waits. */
export function JobChangesPage() {
  const { number: job = '' } = useParams();
  const { month } = useAsOf();
  const { data, error, refetch } = useJobChangesQuery({ job, asOf: month });
  const keep = useKeepMonth();
  const { show, code } = useCurrency();
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the change orders" />;
  const base = `/jobs/${encodeURIComponent(job)}/changes`;
  const approved = data.filter((it) => it.status === 'approved');
  const open = data.filter(isOpen);
  const sum = (list: readonly ChangeSummary[], of: (it: ChangeSummary) => number) =>
    show(list.reduce((total, it) => total + of(it), 0));
  return (
    <>
      <div className="mb-2 flex items-end justify-between">
        <h2>Change orders</h2>
        <Link className="button main" to={keep(`${base}/new`)}>
          Raise a change
        </Link>
      </div>
      {data.length === 0 ? (
        <p className="note">No change orders to date.</p>
      ) : (
        <table className="ledger">
          <thead>
            <tr>
              <th>Change</th>
              <th>State</th>
              <th>Raised</th>
              <th>Decided</th>
              <th className="num">Days</th>
              <th className="num">Asked for</th>
              <th className="num">Price, {code}</th>
              <th className="num">Cost</th>
              <th className="num">Price less cost</th>
            </tr>
          </thead>
          <tbody>
            {data.map((it) => (
              <tr key={it.number}>
                <td>
                  <Link to={keep(`${base}/${encodeURIComponent(it.number)}`)}>
                    {it.number} {it.title}
                  </Link>
                </td>
                <td>
                  <ChangeState change={it} />
                </td>
                <td>{displayDate(it.raisedOn)}</td>
                <td>{displayDate(it.decidedOn)}</td>
                <td className="num">{it.daysGranted ?? it.daysAsked ?? '–'}</td>
                <td className="num note">{show(it.asked)}</td>
                <td className="num">{show(it.price)}</td>
                <td className="num">{show(it.cost)}</td>
                <td className="num">{show(it.price - it.cost)}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <td colSpan={5}>Approved, in the contract sum</td>
              <td className="num">{sum(approved, (it) => it.asked)}</td>
              <td className="num">{sum(approved, (it) => it.price)}</td>
              <td className="num">{sum(approved, (it) => it.cost)}</td>
              <td className="num">{sum(approved, (it) => it.price - it.cost)}</td>
            </tr>
            {open.length > 0 && (
              <tr>
                <td colSpan={5}>Not agreed yet, in no contract sum</td>
                <td className="num">{sum(open, (it) => it.asked)}</td>
                <td className="num">{sum(open, (it) => it.price)}</td>
                <td className="num">{sum(open, (it) => it.cost)}</td>
                <td className="num">{sum(open, (it) => it.price - it.cost)}</td>
              </tr>
            )}
          </tfoot>
        </table>
      )}
    </>
  );
}

export function isOpen(it: Pick<ChangeSummary, 'status'>): boolean {
  return it.status === 'draft' || it.status === 'issued';
}

/** The state in a word, with the sign of what is held where it waits. */
export function ChangeState({ change }: { change: Pick<ChangeSummary, 'status'> }) {
  return isOpen(change) ? (
    <span className="inline-flex gap-2">
      <Sign name="held" bare />
      {change.status}
    </span>
  ) : (
    <>{change.status}</>
  );
}
