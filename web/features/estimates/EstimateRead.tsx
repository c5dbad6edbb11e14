import { Fragment, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { COST_TYPES } from '../../../core/costs/costType';
import { at } from '../../../core/errors/known';
import { partCost, priceEstimate, type PricedEstimate } from '../../../core/estimates/estimate';
import { displayQuantity } from '../../../core/money/display';
import { formatPercentShortest, formatQuantity } from '../../../core/money/rate';
import type { EstimateView } from '../../../wire/estimates';
import { useStartEstimateMutation } from '../../ground/api/api';
import { useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { HistoryLink } from '../../ground/HistoryLink';
import { useAttempt } from '../../ground/useAttempt';
import { Refused } from '../../kit/States';
import { showUnitCost } from '../../kit/typed/unitCosts';
import { contentOf } from './draft/useEstimate';
import { PriceHeadline } from './PriceHeadline';

/** An estimate that was sent: as it stood, line by line, each openable down to what it is made of. */
export function EstimateRead({ view }: { view: EstimateView }) {
  const { digits } = useCurrency();
  const priced = priceEstimate({ ...contentOf(view), prices: new Map(view.prices) }, digits);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-6 max-[1150px]:grid-cols-1">
      <div>
        <Head view={view} />
        <Lines view={view} priced={priced} />
      </div>
      <FromCostToPrice view={view} totals={priced.totals} />
    </div>
  );
}

function Head({ view }: { view: EstimateView }) {
  const withMonth = useWithMonth();
  const navigate = useNavigate();
  const { refused, attempt } = useAttempt();
  const [start] = useStartEstimateMutation();
  const base = `/jobs/${encodeURIComponent(view.job)}/estimates`;
  const copy = () =>
    attempt(async () => {
      const body = { name: `${view.name}, copy`, copyOf: { job: view.job, estimate: view.number } };
      const { number } = await start({ job: view.job, body }).unwrap();
      void navigate(withMonth(`${base}/${number}`));
    });
  return (
    <>
      <div className="mb-2 flex items-center gap-3">
        <h2>{view.name}</h2>
        <span className="note">
          Estimate {view.number}, sent {displayDate(view.sentOn)}
          {view.reference && `, ${view.reference}`}
          {view.acceptedOn && `, accepted ${displayDate(view.acceptedOn)}: ${view.acceptance}`}
        </span>
        <div className="ml-auto flex items-baseline gap-2">
          <HistoryLink subject={`${view.job}/${view.number}`} about="estimate" />
          <button type="button" className="button" onClick={() => void copy()}>
            Copy and change the copy
          </button>
          {view.refused.award === null && (
            <Link className="button main" to={withMonth(`${base}/${view.number}/award`)}>
              Award …
            </Link>
          )}
        </div>
      </div>
      {refused && <Refused message={refused.message} />}
    </>
  );
}

function Lines({ view, priced: { lines, totals } }: { view: EstimateView; priced: PricedEstimate }) {
  const { show, code } = useCurrency();
  const [open, setOpen] = useState<string | null>(null);
  return (
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
            <LineRow
              line={line}
              priced={at(lines, i)}
              open={open === line.line}
              onOpen={() => setOpen(open === line.line ? null : line.line)}
            />
            {open === line.line && <MadeOf view={view} line={line} />}
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
  );
}

type Line = EstimateView['lines'][number];

function LineRow({
  line,
  priced,
  open,
  onOpen,
}: {
  line: Line;
  priced: PricedEstimate['lines'][number];
  open: boolean;
  onOpen: () => void;
}) {
  const { show } = useCurrency();
  return (
    <tr>
      <td>{line.line}</td>
      <td>{line.section}</td>
      <td>
        <button type="button" className="fig" aria-expanded={open} onClick={onOpen}>
          {line.description}
        </button>
      </td>
      <td className="num">{displayQuantity(line.quantity)}</td>
      <td>{line.unit}</td>
      <td>{line.buildUp}</td>
      <td className="num">{show(priced.cost)}</td>
      <td className="num">{show(priced.markup)}</td>
      <td className="num">{show(priced.net)}</td>
    </tr>
  );
}

/** What a line is made of: its build-up's unit costs, and the parts on it alone. */
function MadeOf({ view, line }: { view: EstimateView; line: Line }) {
  const { digits, show } = useCurrency();
  const shares = new Map(view.prices).get(line.buildUp) ?? [];
  return (
    <tr>
      <td />
      <td colSpan={8} className="note pb-1.5">
        {shares.map((it) => (
          <div key={it.costCode + it.costType + it.markup}>
            {line.buildUp}: {it.costType} {it.costCode}, {formatQuantity(line.quantity)} × {showUnitCost(it.cost, digits)}
            {it.hours > 0 && `, ${displayQuantity(it.hours)} h each`}
          </div>
        ))}
        {line.parts.map((part, k) => (
          <div key={k}>
            {part.item || 'On this line'}: {part.description} {part.costType} {part.costCode}, {formatQuantity(part.quantity)}{' '}
            {part.unit} {part.basis === 'in-all' ? 'in all' : 'each'} × {showUnitCost(part.unitCost, digits)} ={' '}
            {show(partCost(line.quantity, part, digits))}
          </div>
        ))}
      </td>
    </tr>
  );
}

function FromCostToPrice({ view, totals }: { view: EstimateView; totals: PricedEstimate['totals'] }) {
  const { show, exact } = useCurrency();
  const steps: readonly (readonly [string, number])[] = [
    ...COST_TYPES.map((type) => [type, totals.byType[type]] as const),
    ['Cost', totals.cost],
    ['Markup', totals.markup],
    [`Overhead, ${formatPercentShortest(view.overhead)} %`, totals.overhead],
    [`Profit, ${formatPercentShortest(view.profit)} %`, totals.profit],
    ['Rounding', totals.rounding],
  ];
  return (
    <aside aria-label="From cost to price">
      <PriceHeadline totals={totals} />
      <table className="ledger static-foot">
        <tbody>
          {steps.map(([name, amount]) => (
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
  );
}
