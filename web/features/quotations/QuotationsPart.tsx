import { useAddQuotationMutation, useEstimateListQuery, useQuotationListQuery, useTermsQuery } from '../../ground/api/api';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { addDays } from '../../../core/calendar/plainDate';
import { displayDate } from '../../../core/calendar/displayDate';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Refused } from '../../kit/States';

const USUAL_VALIDITY_DAYS = 60;

/** Beneath the estimates: what was offered from them, and what came back. */
export function QuotationsPart() {
  const { number: job = '' } = useParams();
  const { data: list } = useQuotationListQuery({ job });
  const { data: estimates } = useEstimateListQuery({ job });
  const { data: terms } = useTermsQuery();
  const { lastDay } = useAsOf();
  const { show, code } = useCurrency();
  const keep = useKeepMonth();
  const navigate = useNavigate();
  const [fault, setFault] = useState<string | null>(null);
  const [save, { isLoading }] = useAddQuotationMutation();
  if (!list || !estimates || !terms || (estimates.length === 0 && list.length === 0)) return null;
  const base = `/jobs/${encodeURIComponent(job)}/quotations`;
  const chosen = estimates.find((it) => it.chosen) ?? estimates[0];
  const make = async () => {
    if (!chosen) return;
    try {
      const { number } = await save({
        job,
        body: {
          ...{
            version: 0,
            estimate: chosen.number,
            title: chosen.name,
            presentation: 'section',
            quantities: true,
            unitPrices: false,
          },
          ...{ contact: '', email: '', introduction: '', exclusions: '', terms: terms[0]?.body ?? '' },
          ...{ validUntil: addDays(lastDay, USUAL_VALIDITY_DAYS), alternates: [], payments: [] },
        },
      }).unwrap();
      void navigate(keep(`${base}/${number}`));
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <section aria-label="Quotations" className="mt-6">
      <div className="mb-1 flex items-end justify-between">
        <h2>Quotations</h2>
        {chosen && !estimates.some((it) => it.status === 'accepted') && (
          <button type="button" className="button" disabled={isLoading} onClick={() => void make()}>
            Make a quotation from estimate {chosen.number}
          </button>
        )}
      </div>
      {fault && <Refused message={fault} />}
      {list.length === 0 ? (
        <p className="note m-0">No quotations yet.</p>
      ) : (
        <table className="ledger static-foot">
          <thead>
            <tr>
              <th>Quotation</th>
              <th>State</th>
              <th>From estimate</th>
              <th>Sent</th>
              <th>Valid until</th>
              <th>Answered</th>
              <th className="num">Price, {code}</th>
            </tr>
          </thead>
          <tbody>
            {list.map((it) => (
              <tr key={it.number}>
                <td>
                  <Link to={keep(`${base}/${it.number}`)}>
                    {it.number} {it.title}
                  </Link>
                </td>
                <td>{it.status}</td>
                <td>{it.estimate}</td>
                <td>{displayDate(it.sentOn)}</td>
                <td>{displayDate(it.validUntil)}</td>
                <td>{it.answeredOn && `${displayDate(it.answeredOn)} by ${it.answeredBy}`}</td>
                <td className="num">{show(it.total)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
