import { useEstimateQuery } from '../../ground/api/api';
import { Link, useParams } from 'react-router';
import { COST_TYPES } from '../../../core/costs/costType';
import { compareEstimates } from '../../../core/estimates/compare';
import { priceEstimate, type EstimateTotals } from '../../../core/estimates/estimate';
import { displayPercent, displayQuantity } from '../../../core/money/display';
import type { EstimateView } from '../../../wire/estimates';
import { useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Refused, Waiting } from '../../kit/States';
import { contentOf } from './draft/useEstimate';

/** Two estimates of a job side by side: lines only one has, lines that differ, and both totals. */
export function ComparePage() {
  const { number: job = '', left = '', right = '' } = useParams();
  const one = useEstimateQuery({ job, estimate: Number(left) });
  const two = useEstimateQuery({ job, estimate: Number(right) });
  const error = one.error ?? two.error;
  if (error) return <Refused message={faultOf(error).message} />;
  if (!one.data || !two.data) return <Waiting what="both estimates" />;
  return <Beside left={one.data} right={two.data} />;
}

function Beside({ left, right }: { left: EstimateView; right: EstimateView }) {
  const { digits, show, code } = useCurrency();
  const keep = useKeepMonth();
  const estimateOf = (it: EstimateView) => ({ ...contentOf(it), prices: new Map(it.prices) });
  const [a, b] = [estimateOf(left), estimateOf(right)];
  const lines = compareEstimates(a, b, digits);
  const [before, after] = [priceEstimate(a, digits).totals, priceEstimate(b, digits).totals];
  const name = (it: EstimateView) => (
    <Link to={keep(`/jobs/${encodeURIComponent(it.job)}/estimates/${it.number}`)}>
      {it.number} {it.name}
    </Link>
  );
  const same = lines.filter((it) => it.left && it.right && it.differs.length === 0).length;
  return (
    <>
      <h2 className="mb-1">
        Estimates {left.number} and {right.number} side by side
      </h2>
      <table className="ledger">
        <thead>
          <tr>
            <th>Line</th>
            <th>Description</th>
            <th>Differs in</th>
            <th className="num">Quantity</th>
            <th className="num">{name(left)}</th>
            <th className="num">Quantity</th>
            <th className="num">{name(right)}</th>
            <th className="num">Difference</th>
          </tr>
        </thead>
        <tbody>
          {lines
            .filter((it) => !it.left || !it.right || it.differs.length > 0)
            .map((it) => (
              <tr key={it.line}>
                <td>{it.line}</td>
                <td>{it.description}</td>
                <td>{!it.right ? `only in ${left.number}` : !it.left ? `only in ${right.number}` : it.differs.join(', ')}</td>
                <td className="num note">{it.left && `${displayQuantity(it.left.quantity)} ${it.left.unit}`}</td>
                <td className="num">{it.left && show(it.left.net)}</td>
                <td className="num note">{it.right && `${displayQuantity(it.right.quantity)} ${it.right.unit}`}</td>
                <td className="num">{it.right && show(it.right.net)}</td>
                <td className="num">{show((it.right?.net ?? 0) - (it.left?.net ?? 0))}</td>
              </tr>
            ))}
          {same > 0 && (
            <tr>
              <td />
              <td colSpan={7} className="note">
                {same} {same === 1 ? 'line is' : 'lines are'} the same in both.
              </td>
            </tr>
          )}
          {totalRows(before, after).map(([label, l, r]) => (
            <tr key={label}>
              <td />
              <td colSpan={3}>{label}</td>
              <td className="num">{show(l)}</td>
              <td />
              <td className="num">{show(r)}</td>
              <td className="num">{show(r - l)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={4}>Price, {code}</td>
            <td className="num">{show(before.price)}</td>
            <td />
            <td className="num">{show(after.price)}</td>
            <td className="num">{show(after.price - before.price)}</td>
          </tr>
        </tfoot>
      </table>
      <p className="note">
        Lines show cost and markup. Margin of the price {displayPercent(before.marginRate)} % and{' '}
        {displayPercent(after.marginRate)} %; markup on the cost {displayPercent(before.markupRate)} % and{' '}
        {displayPercent(after.markupRate)} %.
      </p>
    </>
  );
}

function totalRows(before: EstimateTotals, after: EstimateTotals): [string, number, number][] {
  return [
    ...COST_TYPES.filter((type) => before.byType[type] !== 0 || after.byType[type] !== 0).map(
      (type): [string, number, number] => [`Cost of ${type}`, before.byType[type], after.byType[type]],
    ),
    ['Cost', before.cost, after.cost],
    ['Markup', before.markup, after.markup],
    ['Overhead', before.overhead, after.overhead],
    ['Profit', before.profit, after.profit],
    ['Rounding', before.rounding, after.rounding],
  ];
}
