import type { AwardPlan } from '../../../../core/estimates/award';
import type { EstimateTotals } from '../../../../core/estimates/estimate';
import { COST_TYPES } from '../../../../core/costs/costType';
import { useCurrency } from '../../../ground/company';

type Row = readonly [title: string, value: number];

/** What the award makes: from cost to contract sum, and the budget by type of cost. Amounts in minor units. */
export function AwardSummary({ totals, plan, agreed }: { totals: EstimateTotals; plan: AwardPlan; agreed: number }) {
  const { exact } = useCurrency();
  const budget = COST_TYPES.map((type): Row => [
    type,
    plan.budget.filter((it) => it.costType === type).reduce((sum, it) => sum + it.amount, 0),
  ]);
  return (
    <>
      <Amounts
        title="Contract"
        rows={[
          ['Cost and markup', totals.net],
          ['Overhead, profit, rounding', totals.price - totals.net],
          ['Quoted', totals.price],
          ['Agreed above or below quote', agreed - totals.price],
        ]}
        foot={['Contract sum', exact(agreed)]}
      />
      <Amounts
        title={`Budget, ${plan.budget.length} lines`}
        rows={budget.filter(([, value]) => value !== 0)}
        foot={['Budget', exact(totals.cost)]}
        after={['Expected profit', agreed - totals.cost]}
      />
    </>
  );
}

interface AmountsProps {
  title: string;
  rows: readonly Row[];
  foot: readonly [string, string];
  /** What follows from the total. */
  after?: Row;
}

function Amounts({ title, rows, foot, after }: AmountsProps) {
  const { show, code } = useCurrency();
  return (
    <table className="ledger static-foot mb-4">
      <thead>
        <tr>
          <th>{title}</th>
          <th className="num">{code}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, value]) => (
          <tr key={name}>
            <td>{name}</td>
            <td className={`num ${value < 0 ? 'text-[color:var(--loss)]' : ''}`}>{show(value)}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td>{foot[0]}</td>
          <td className="num">{foot[1]}</td>
        </tr>
        {after && (
          <tr>
            <td>{after[0]}</td>
            <td className={`num ${after[1] < 0 ? 'loss' : ''}`}>{show(after[1])}</td>
          </tr>
        )}
      </tfoot>
    </table>
  );
}
