import { at } from '../../../core/errors/known';
import { useStartEstimateMutation } from '../../ground/api/api';
import { Fragment, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { COST_TYPES } from '../../../core/costs/costType';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayQuantity } from '../../../core/money/display';
import { formatPercentShortest, formatQuantity } from '../../../core/money/rate';
import { partCost, priceEstimate } from '../../../core/estimates/estimate';
import type { EstimateView } from '../../../wire/estimates';
import { useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { showUnitCost } from '../../kit/typed/readCells';
import { Refused } from '../../kit/States';
import { contentOf } from './draft/useEstimate';
import { PriceHeadline } from './PriceHeadline';

/** An estimate that was sent: as it stood, line by line, each openable down to what it is made of. */
export function EstimateRead({ view }: { view: EstimateView }) {
  const { digits, show, exact, code } = useCurrency();
  const keep = useKeepMonth();
  const navigate = useNavigate();
  const [open, setOpen] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [start] = useStartEstimateMutation();
  const prices = new Map(view.prices);
  const { lines, totals } = priceEstimate({ ...contentOf(view), prices }, digits);
  const base = `/jobs/${encodeURIComponent(view.job)}/estimates`;
  const copy = async () => {
    try {
      const { number } = await start({
        job: view.job,
        body: { name: `${view.name}, copy`, copyOf: { job: view.job, estimate: view.number } },
      }).unwrap();
      void navigate(keep(`${base}/${number}`));
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <div className="grid gap-6" style={{ gridTemplateColumns: 'minmax(0, 1fr) 300px' }}>
      <div>
        <div className="mb-2 flex items-center gap-3">
          <h2>{view.name}</h2>
          <span className="note">
            Estimate {view.number}, sent {displayDate(view.sentOn)}
            {view.reference && `, ${view.reference}`}
            {view.acceptedOn && `, accepted ${displayDate(view.acceptedOn)}: ${view.acceptance}`}
          </span>
          <div className="ml-auto flex gap-2">
            <button type="button" className="button" onClick={() => void copy()}>
              Copy and change the copy
            </button>
            {view.jobStatus === 'tender' && (
              <Link className="button main" to={keep(`${base}/${view.number}/award`)}>
                Award …
              </Link>
            )}
          </div>
        </div>
        {fault && <Refused message={fault} />}
        <table className="ledger">
          <thead>
            <tr>
              <th>Line</th>
              <th>Section</th>
              <th>Description</th>
              <th className="num">Quantity</th>
              <th>Unit</th>
              <th>Build-up</th>
              <th className="num">Cost</th>
              <th className="num">Markup</th>
              <th className="num">Cost and markup</th>
            </tr>
          </thead>
          <tbody>
            {view.lines.map((line, i) => (
              <Fragment key={line.line}>
                <tr>
                  <td>{line.line}</td>
                  <td>{line.section}</td>
                  <td>
                    <button
                      type="button"
                      className="fig"
                      aria-expanded={open === line.line}
                      onClick={() => setOpen(open === line.line ? null : line.line)}
                    >
                      {line.description}
                    </button>
                  </td>
                  <td className="num">{displayQuantity(line.quantity)}</td>
                  <td>{line.unit}</td>
                  <td>{line.buildUp}</td>
                  <td className="num">{show(at(lines, i).cost)}</td>
                  <td className="num">{show(at(lines, i).markup)}</td>
                  <td className="num">{show(at(lines, i).net)}</td>
                </tr>
                {open === line.line && (
                  <tr>
                    <td />
                    <td colSpan={8} className="note" style={{ paddingBottom: 6 }}>
                      {(prices.get(line.buildUp) ?? []).map((it) => (
                        <div key={it.costCode + it.costType + it.markup}>
                          {line.buildUp}: {it.costType} {it.costCode}, {formatQuantity(line.quantity)} ×{' '}
                          {showUnitCost(it.cost, digits)}
                          {it.hours > 0 && `, ${displayQuantity(it.hours)} h each`}
                        </div>
                      ))}
                      {line.parts.map((part, k) => (
                        <div key={k}>
                          {part.item || 'On this line'}: {part.description} {part.costType} {part.costCode},{' '}
                          {formatQuantity(part.quantity)} {part.unit} {part.basis === 'in-all' ? 'in all' : 'each'} ×{' '}
                          {showUnitCost(part.unitCost, digits)} = {show(partCost(line.quantity, part, digits))}
                        </div>
                      ))}
                    </td>
                  </tr>
                )}
              </Fragment>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <td colSpan={6}>Total, {code}</td>
              <td className="num">{show(totals.cost)}</td>
              <td className="num">{show(totals.markup)}</td>
              <td className="num">{show(totals.net)}</td>
            </tr>
          </tfoot>
        </table>
      </div>
      <aside aria-label="From cost to price">
        <PriceHeadline totals={totals} />
        <table className="ledger static-foot">
          <tbody>
            {[
              ...COST_TYPES.map((type) => [type, totals.byType[type]] as const),
              ['Cost', totals.cost] as const,
              ['Markup', totals.markup] as const,
              [`Overhead, ${formatPercentShortest(view.overhead)} %`, totals.overhead] as const,
              [`Profit, ${formatPercentShortest(view.profit)} %`, totals.profit] as const,
              ['Rounding', totals.rounding] as const,
            ].map(([name, amount]) => (
              <tr key={name}>
                <td>{name}</td>
                <td className="num">{show(amount)}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <td>Price</td>
              <td className="num">{exact(totals.price)}</td>
            </tr>
          </tfoot>
        </table>
      </aside>
    </div>
  );
}
