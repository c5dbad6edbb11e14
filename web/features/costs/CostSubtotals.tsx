import { present } from '../../../core/errors/known';
import { useCostSubtotalsQuery } from '../../ground/api/api';
import { displayPeriod } from '../../../core/calendar/displayDate';
import { lastDay } from '../../../core/calendar/plainDate';
import { displayQuantity } from '../../../core/money/display';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Refused, Waiting } from '../../kit/States';
import type { LedgerParams, SUBTOTALS } from '../../../wire/costs';
import { useSetParam } from './ledgerParams';

/** The filter each group narrows the ledger to. */
const NARROWED: Record<string, (key: string) => Record<string, string>> = {
  month: (key) => ({ from: `${key}-01`, to: lastDay(key) }),
  job: (key) => ({ job: key }),
  section: (key) => ({ section: key }),
  code: (key) => ({ code: key }),
  type: (key) => ({ type: key }),
  party: (key) => ({ party: key }),
};

/** The ledger added up by one of its columns; a group opens its entries. */
export function Subtotals({ filter, by }: { filter: LedgerParams; by: string }) {
  const { data, error, refetch } = useCostSubtotalsQuery({ ...filter, by: by as (typeof SUBTOTALS)[number] });
  const { exact, show } = useCurrency();
  const set = useSetParam();
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the subtotals" />;
  const sum = (key: 'count' | 'hours' | 'amount') => data.reduce((total, row) => total + row[key], 0);
  return (
    <div
      className="scroll"
      style={{ maxHeight: 'calc(100vh - 200px)' }}
      tabIndex={0}
      role="region"
      aria-label={`Subtotals by ${by}`}
    >
      <table className="ledger">
        <thead>
          <tr>
            <th>By {by}</th>
            <th>Name</th>
            <th className="num">Entries</th>
            <th className="num">Hours</th>
            <th className="num">Amount</th>
          </tr>
        </thead>
        <tbody>
          {data.map((row) => (
            <tr key={row.key}>
              <td>
                <button
                  type="button"
                  className="fig"
                  style={{ color: 'var(--accent)' }}
                  onClick={() => set({ by: '', ...present(NARROWED[by])(row.key) })}
                >
                  {by === 'month' ? displayPeriod(row.key) : row.key || `(no ${by})`}
                </button>
              </td>
              <td>{row.name}</td>
              <td className="num">{row.count.toLocaleString('en-GB')}</td>
              <td className="num">{displayQuantity(row.hours)}</td>
              <td className="num">{show(row.amount)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={2}>Total</td>
            <td className="num">{sum('count').toLocaleString('en-GB')}</td>
            <td className="num">{displayQuantity(sum('hours'))}</td>
            <td className="num">{exact(sum('amount'))}</td>
          </tr>
        </tfoot>
      </table>
    </div>
  );
}
