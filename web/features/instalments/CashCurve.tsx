import { displayDate, displayPeriod } from '../../../core/calendar/displayDate';
import type { Cash } from '../../../core/instalments/cashCurve';
import type { BillingScheduleView } from '../../../wire/instalments';
import { useCurrency } from '../../ground/company';
import { MonthChart } from '../../ground/MonthChart';

/** What the schedule brings in beside what the plan spends: as a curve, and as its table. */
export function CashCurve({ cash, view }: { cash: Cash; view: BillingScheduleView }) {
  const { show, exact, code } = useCurrency();
  const { months, lowest } = cash;
  if (months.length === 0 || lowest === null) return null;
  return (
    <section aria-label="Cash" className="mt-4 grid gap-8 grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <div>
        <h2 className="mb-1 flex items-baseline gap-3">
          <span className="grow">Cash, cumulative</span>
          <span className="text-[15px] font-normal">
            Lowest cash position{' '}
            <b className="figure" style={{ color: lowest.inHand < 0 ? 'var(--loss)' : undefined }}>
              {exact(lowest.inHand)}
            </b>
            , {displayPeriod(lowest.month)}
          </span>
        </h2>
        <MonthChart
          height={230}
          months={months}
          courses={[
            { key: 'billed', name: 'billed', colour: 'var(--bar-billed)', planned: true },
            { key: 'cost', name: 'planned cost', colour: 'var(--bar-cost)', planned: true },
            { key: 'received', name: 'received', colour: 'var(--bar-billed)' },
            { key: 'inHand', name: 'in hand', colour: 'var(--accent)' },
          ]}
        />
        <p className="note mb-0 mt-1 text-[12.5px]">
          Before tax. A bill is paid {view.termsDays} days after its day, less retention; cost in the month it is planned in.
          {retentionNote(cash, view, exact)}
          {cash.undated !== 0 && ` Without a day, and in no month: ${exact(cash.undated)}.`}
          {view.costs.length === 0 && ' No cost is planned: give the job or its sections a start and a finish.'}
        </p>
      </div>
      <div className="scroll self-start max-h-[300px]" tabIndex={0} role="region" aria-label="Cash by month, table">
        <table className="ledger">
          <thead>
            <tr>
              <th>Month</th>
              <th className="num">Billed, {code}</th>
              <th className="num">Received</th>
              <th className="num">Planned cost</th>
              <th className="num">In hand</th>
            </tr>
          </thead>
          <tbody>
            {months.map((it) => (
              <tr key={it.month}>
                <td>{displayPeriod(it.month)}</td>
                <td className="num">{show(it.billed)}</td>
                <td className="num">{show(it.received)}</td>
                <td className="num">{show(it.cost)}</td>
                <td className="num" style={it.inHand < 0 ? { color: 'var(--loss)' } : undefined}>
                  {show(it.inHand)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

function retentionNote(cash: Cash, view: BillingScheduleView, exact: (amount: number) => string): string {
  if (cash.retentionLeft !== 0)
    return ` Retention of ${exact(cash.retentionLeft)} stays out: the job file has no end of defects liability.`;
  return view.retentionOn ? ` Retention is due for release on ${displayDate(view.retentionOn)}.` : '';
}
