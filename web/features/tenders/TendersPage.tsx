import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayPercent } from '../../../core/money/display';
import type { TenderRow } from '../../../wire/tenders';
import { useTendersQuery } from '../../ground/api/api';
import { useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { PageHead } from '../../kit/PageHead';
import { Empty, Refused, Waiting } from '../../kit/States';

/** What is being priced, what it comes to, and what became of the offer. */
export function TendersPage() {
  const { data, error, refetch } = useTendersQuery(undefined, { refetchOnMountOrArgChange: true });
  const keep = useKeepMonth();
  const { code } = useCurrency();
  return (
    <div className="page">
      <PageHead title="Tenders">
        <Link className="button main" to={keep('/jobs/new')}>
          New tender
        </Link>
      </PageHead>
      {error && <Refused message={faultOf(error).message} onRetry={refetch} />}
      {!data && !error && <Waiting what="the tenders" />}
      {data?.length === 0 && (
        <Empty title="No tenders yet">
          <Link className="button main" to={keep('/jobs/new')}>
            Type or paste the first tender
          </Link>
          <Link className="button" to={keep('/tenders/prices')}>
            Type or import prices
          </Link>
          <Link className="button" to={keep('/set-up')}>
            Import CSV files
          </Link>
        </Empty>
      )}
      {data && data.length > 0 && (
        <table className="ledger">
          <thead>
            <tr>
              <th>Tender</th>
              <th>Name</th>
              <th>Client</th>
              <th>Estimate</th>
              <th className="num">Price, {code}</th>
              <th className="num">Margin %</th>
              <th>Quotation</th>
              <th>Valid until</th>
            </tr>
          </thead>
          <tbody>
            {data.map((it) => (
              <Row key={it.job} it={it} />
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

function Row({ it }: { it: TenderRow }) {
  const keep = useKeepMonth();
  const { show } = useCurrency();
  const base = `/jobs/${encodeURIComponent(it.job)}`;
  const { estimate, quotation } = it;
  return (
    <tr>
      <td>
        <Link to={keep(base)}>
          <b>{it.job}</b>
        </Link>
      </td>
      <td>{it.name}</td>
      <td>{it.clientName}</td>
      <td>
        {estimate ? (
          <>
            <Link to={keep(`${base}/estimates/${estimate.number}`)}>
              {estimate.number} {estimate.name}
            </Link>{' '}
            <span className="note">{estimate.status}</span>
          </>
        ) : (
          <Link to={keep(`${base}/estimates`)}>Price it</Link>
        )}
      </td>
      <td className="num">{estimate ? show(estimate.price) : '–'}</td>
      <td className="num">{estimate ? displayPercent(estimate.marginRate) : '–'}</td>
      <td>
        {quotation ? (
          <>
            <Link to={keep(`${base}/quotations/${quotation.number}`)}>{quotation.number}</Link>{' '}
            <span className="note">{quotationState(quotation)}</span>
          </>
        ) : (
          <span className="note">none</span>
        )}
      </td>
      <td>{displayDate(quotation?.validUntil ?? null)}</td>
    </tr>
  );
}

/** Where a quotation is, in words. */
export function quotationState({ status, sentOn, answeredOn, answeredBy }: NonNullable<TenderRow['quotation']>): string {
  if (status === 'sent') return `sent ${displayDate(sentOn)}`;
  return status === 'draft' ? 'draft' : `${status} ${displayDate(answeredOn)} by ${answeredBy}`;
}
