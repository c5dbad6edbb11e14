import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { useQuotationsQuery } from '../../ground/api/api';
import { useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { PageHead } from '../../kit/PageHead';
import { Refused, Waiting } from '../../kit/States';
import { quotationState } from './TendersPage';

/** The quotations of all jobs, and what became of them. */
export function SentQuotationsPage() {
  const { data, error, refetch } = useQuotationsQuery(undefined, { refetchOnMountOrArgChange: true });
  const keep = useKeepMonth();
  const { show, code } = useCurrency();
  return (
    <div className="page">
      <PageHead title="Quotations" />
      {error && <Refused message={faultOf(error).message} onRetry={refetch} />}
      {!data && !error && <Waiting what="the quotations" />}
      {data?.length === 0 && <p className="note">No quotations yet. A quotation is made from an estimate of a tender.</p>}
      {data && data.length > 0 && (
        <table className="ledger">
          <thead>
            <tr>
              <th>Job</th>
              <th>Quotation</th>
              <th>Client</th>
              <th className="num">Price, {code}</th>
              <th>State</th>
              <th>Valid until</th>
            </tr>
          </thead>
          <tbody>
            {data.map((it) => (
              <tr key={`${it.job}/${it.number}`}>
                <td>
                  <Link to={keep(`/jobs/${encodeURIComponent(it.job)}`)} title={it.jobName}>
                    <b>{it.job}</b>
                  </Link>
                </td>
                <td>
                  <Link to={keep(`/jobs/${encodeURIComponent(it.job)}/quotations/${it.number}`)}>
                    {it.number} {it.title}
                  </Link>
                </td>
                <td>{it.clientName}</td>
                <td className="num">{show(it.total)}</td>
                <td>{quotationState(it)}</td>
                <td>{displayDate(it.validUntil)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
