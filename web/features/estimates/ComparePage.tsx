import { useEstimateQuery } from '../../ground/api/api';
import { Link, useParams } from 'react-router';
import { COST_TYPES } from '../../../core/costs/costType';
import { compareEstimates } from '../../../core/estimates/compare';
import { priceEstimate, type EstimateTotals } from '../../../core/estimates/estimate';
import { displayPercent, displayQuantity } from '../../../core/money/display';
import type { EstimateView } from '../../../wire/estimates';
import { useWithMonth } from '../../ground/asOf';
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

interface BesideProps {
  left: EstimateView;
  right: EstimateView;
}

function Beside({ left, right }: BesideProps) {
  const { digits, show, code } = useCurrency();
  const estimateOf = (it: EstimateView) => ({ ...contentOf(it), prices: new Map(it.prices) });
  const [a, b] = [estimateOf(left), estimateOf(right)];
  const [before, after] = [priceEstimate(a, digits).totals, priceEstimate(b, digits).totals];
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
            <th className="num">
              <EstimateLink of={left} />
            </th>
            <th className="num">Quantity</th>
            <th className="num">
              <EstimateLink of={right} />
            </th>
            <th className="num">Difference</th>
          </tr>
        </thead>
        <tbody>
          <LineRows left={left} right={right} lines={compareEstimates(a, b, digits)} />
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

function EstimateLink({ of }: { of: EstimateView }) {
  const withMonth = useWithMonth();
  return (
    <Link to={withMonth(`/jobs/${encodeURIComponent(of.job)}/estimates/${of.number}`)}>
      {of.number} {of.name}
    </Link>
  );
}

/** Lines that differ, each with what differs, and how many are the same. */
function LineRows({ left, right, lines }: BesideProps & { lines: ReturnType<typeof compareEstimates> }) {
  const { show } = useCurrency();
  const isSame = (it: (typeof lines)[number]) => it.left !== null && it.right !== null && it.differs.length === 0;
  const same = lines.filter(isSame).length;
  return (
    <>
      {lines
        .filter((it) => !isSame(it))
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
