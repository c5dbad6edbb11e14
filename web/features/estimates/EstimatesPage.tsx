import { useChooseEstimateMutation, useEstimateListQuery, useStartEstimateMutation } from '../../ground/api/api';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayPercent, displayQuantity } from '../../../core/money/display';
import { useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Refused, Waiting } from '../../kit/States';

/** The estimates of a job: any number, one chosen. */
export function EstimatesPage() {
  const { number: job = '' } = useParams();
  const { data, error, refetch } = useEstimateListQuery({ job });
  const { show, code } = useCurrency();
  const keep = useKeepMonth();
  const navigate = useNavigate();
  const [refused, setRefused] = useState<string | null>(null);
  const [pair, setPair] = useState<number[]>([]);
  const [start, starting] = useStartEstimateMutation();
  const [choose] = useChooseEstimateMutation();
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the estimates" />;
  const base = `/jobs/${encodeURIComponent(job)}/estimates`;
  // Once one was accepted the contract is made from it, and the choice stays.
  const agreed = data.some((it) => it.status === 'accepted');
  const attempt = async (work: () => Promise<unknown>) => {
    try {
      await work();
      setRefused(null);
    } catch (fault) {
      setRefused(faultOf(fault).message);
    }
  };
  const begin = (copyOf: number | null) =>
    attempt(async () => {
      const from = data.find((it) => it.number === copyOf);
      const body = {
        name: from ? `${from.name}, copy` : data.length === 0 ? 'As measured' : `Estimate ${data.length + 1}`,
        copyOf: copyOf === null ? null : { job, estimate: copyOf },
      };
      const { number } = await start({ job, body }).unwrap();
      void navigate(keep(`${base}/${number}`));
    });
  const tick = (number: number) =>
    setPair(pair.includes(number) ? pair.filter((it) => it !== number) : [...pair, number].slice(-2));
  const [left, right] = [...pair].sort((a, b) => a - b);
  return (
    <>
      <div className="mb-2 flex items-end justify-between gap-6">
        <h2>Estimates</h2>
        <div className="flex gap-3">
          {data.length > 1 && (
            <Link
              className="button"
              aria-disabled={right === undefined}
              to={keep(right === undefined ? base : `${base}/compare/${left}/${right}`)}
              style={
                right === undefined ? { color: 'var(--soft)', pointerEvents: 'none', borderColor: 'var(--hair)' } : undefined
              }
            >
              {right === undefined ? 'Tick two to lay them side by side' : `Lay ${left} and ${right} side by side`}
            </Link>
          )}
          <button type="button" className="button main" disabled={starting.isLoading} onClick={() => void begin(null)}>
            New estimate
          </button>
        </div>
      </div>
      {refused && <Refused message={refused} />}
      {data.length === 0 ? (
        <p className="note">
          No estimate yet. One starts empty: type its lines, paste them from a spreadsheet, or price them by build-ups of the{' '}
          <Link to={keep('/tenders/build-ups')}>price list</Link>.
        </p>
      ) : (
        <table className="ledger">
          <thead>
            <tr>
              <th style={{ width: 34 }}>
                <span className="sr-only">Tick</span>
              </th>
              <th>Estimate</th>
              <th>State</th>
              <th className="num">Lines</th>
              <th className="num">Hours</th>
              <th className="num">Cost</th>
              <th className="num">Price, {code}</th>
              <th className="num">Margin, % of price</th>
              <th className="num">Markup, % on cost</th>
              <th>Saved</th>
              <th>
                <span className="sr-only">What to do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {data.map((it) => (
              <tr key={it.number}>
                <td>
                  <input
                    type="checkbox"
                    aria-label={`Compare estimate ${it.number}`}
                    checked={pair.includes(it.number)}
                    onChange={() => tick(it.number)}
                  />
                </td>
                <td>
                  <Link to={keep(`${base}/${it.number}`)}>
                    {it.number} {it.name}
                  </Link>
                </td>
                <td>
                  {it.status === 'draft' ? 'draft' : `${it.status} ${displayDate(it.acceptedOn ?? it.sentOn)}`}
                  {it.chosen && <b style={{ color: 'var(--accent)' }}> · chosen</b>}
                </td>
                <td className="num">{it.lines}</td>
                <td className="num">{displayQuantity(it.hours)}</td>
                <td className="num">{show(it.cost)}</td>
                <td className="num">
                  <b>{show(it.price)}</b>
                </td>
                <td className="num">{displayPercent(it.marginRate)}</td>
                <td className="num">{displayPercent(it.markupRate)}</td>
                <td className="note">{displayDate(it.savedAt.slice(0, 10))}</td>
                <td style={{ textAlign: 'right' }}>
                  {!it.chosen && !agreed && (
                    <button
                      type="button"
                      className="button bare"
                      onClick={() => void attempt(() => choose({ job, estimate: it.number }).unwrap())}
                    >
                      Choose
                    </button>
                  )}
                  <button type="button" className="button bare" onClick={() => void begin(it.number)}>
                    Copy
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
