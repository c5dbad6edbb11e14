import { useChangeRegisterQuery } from '../../ground/api/api';
import { useState } from 'react';
import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import type { RegisteredChange } from '../../../wire/changes';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Sign } from '../../kit/Signs';
import { Refused, Waiting } from '../../kit/States';
import { ChangeState, isOpen } from './JobChangesPage';

/** Changes of all jobs: how long the open ones wait, what they are worth, and what is spent on them already. */
export function ChangeRegisterPage() {
  const { month } = useAsOf();
  const { data, error, refetch } = useChangeRegisterQuery({ asOf: month });
  const { show, code } = useCurrency();
  const keep = useKeepMonth();
  const [all, setAll] = useState(false);
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what="the change orders of all jobs" />;
  const shown = all ? data : data.filter(isOpen);
  const open = data.filter(isOpen);
  const sum = (of: (it: RegisteredChange) => number) => show(open.reduce((total, it) => total + of(it), 0));
  return (
    <div className="page">
      <div className="mb-3 flex items-end gap-6">
        <h1 className="grow">Change orders</h1>
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={all} onChange={(event) => setAll(event.target.checked)} /> decided ones too
        </label>
      </div>
      {shown.length === 0 ? (
        <p className="note">{data.length === 0 ? 'No change orders to date.' : 'No change orders outstanding.'}</p>
      ) : (
        <table className="ledger">
          <thead>
            <tr>
              <th>Job</th>
              <th>Change</th>
              <th>State</th>
              <th>Issued</th>
              <th className="num">Days outstanding</th>
              <th className="num">Price asked, {code}</th>
              <th className="num">Price agreed</th>
              <th className="num">Cost expected</th>
              <th className="num">Spent already</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((it) => (
              <tr key={`${it.job}/${it.number}`}>
                <td>
                  <Link to={keep(`/jobs/${encodeURIComponent(it.job)}/changes`)} title={it.jobName}>
                    {it.job}
                  </Link>
                </td>
                <td>
                  <Link to={keep(`/jobs/${encodeURIComponent(it.job)}/changes/${encodeURIComponent(it.number)}`)}>
                    {it.number} {it.title}
                  </Link>
                </td>
                <td>
                  <ChangeState change={it} />
                </td>
                <td>{displayDate(it.issuedOn)}</td>
                <td className="num">
                  {it.age !== null && it.age > 30 && <Sign name="overdue" bare />} {it.age ?? ''}
                </td>
                <td className="num">{show(it.asked)}</td>
                <td className="num">{it.status === 'approved' ? show(it.price) : ''}</td>
                <td className="num">{show(it.cost)}</td>
                <td className="num" style={{ color: it.spent > 0 ? 'var(--loss)' : undefined }}>
                  {show(it.spent)}
                </td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <td colSpan={5}>Not agreed yet: at risk</td>
              <td className="num">{sum((it) => it.asked)}</td>
              <td />
              <td className="num">{sum((it) => it.cost)}</td>
              <td className="num">{sum((it) => it.spent)}</td>
            </tr>
          </tfoot>
        </table>
      )}
      <p className="note">
        Spent already: cost beyond the revised budget on the lines a change names, at most the cost it expects there. It is
        ordinary cost, and in the estimate; the price is in no contract sum until it is agreed. A clock marks what waits longer
        than 30 days.
      </p>
    </div>
  );
}
