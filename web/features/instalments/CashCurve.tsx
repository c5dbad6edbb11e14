import { Legend, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { displayDate, displayPeriod } from '../../../core/calendar/displayDate';
import type { Cash } from '../../../core/instalments/cashCurve';
import type { BillingScheduleView } from '../../../wire/instalments';
import { useCurrency } from '../../app/company';

/** What the schedule brings in beside what the plan spends: as a curve, and as its table. */
export function CashCurve({ cash, view }: { cash: Cash; view: BillingScheduleView }) {
  const { show, exact, digits, code } = useCurrency();
  const scale = 10 ** digits;
  const { months, lowest } = cash;
  if (months.length === 0 || lowest === null) return null;
  const points = months.map((it) => ({
    ...{ month: it.month, billed: it.billed / scale, received: it.received / scale, cost: it.cost / scale },
    inHand: it.inHand / scale,
  }));
  const lines: readonly (readonly [keyof Omit<(typeof points)[0], 'month'>, string, object])[] = [
    ['billed', 'billed', { stroke: 'var(--bar-billed)', strokeDasharray: '5 3' }],
    ['received', 'received', { stroke: 'var(--bar-billed)', strokeWidth: 2.5 }],
    ['cost', 'planned cost', { stroke: 'var(--bar-cost)', strokeDasharray: '5 3' }],
    ['inHand', 'in hand', { stroke: 'var(--accent)', strokeWidth: 2.5 }],
  ];
  return (
    <section aria-label="Cash" className="mt-4 grid gap-8" style={{ gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)' }}>
      <div>
        <h2 className="mb-1 flex items-baseline gap-3">
          <span className="grow">Cash, to date</span>
          <span className="text-[15px] font-normal">
            Least in hand{' '}
            <b className="sum" style={{ color: lowest.inHand < 0 ? 'var(--loss)' : undefined }}>
              {exact(lowest.inHand)}
            </b>
            , {displayPeriod(lowest.month)}
          </span>
        </h2>
        <div style={{ height: 230 }} aria-hidden="true">
          <ResponsiveContainer width="100%" height="100%">
            <LineChart accessibilityLayer={false} data={points} margin={{ top: 6, right: 8, bottom: 0, left: 8 }}>
              <XAxis
                dataKey="month"
                tickFormatter={displayPeriod}
                stroke="var(--rule)"
                tick={{ fill: 'var(--soft)', fontSize: 12 }}
                minTickGap={24}
              />
              <YAxis hide domain={['dataMin', 'dataMax']} />
              <ReferenceLine y={0} stroke="var(--rule)" />
              <Tooltip
                formatter={(value) => show(Math.round(Number(value) * scale))}
                labelFormatter={(label) => displayPeriod(String(label))}
                contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--rule)' }}
              />
              <Legend iconType="plainline" />
              {lines.map(([key, name, look]) => (
                <Line key={key} dataKey={key} name={name} dot={false} isAnimationActive={false} {...look} />
              ))}
            </LineChart>
          </ResponsiveContainer>
        </div>
        <p className="note mb-0 mt-1 text-[12.5px]">
          Before tax. A bill is paid {view.termsDays} days after its day, less retention; cost in the month it is planned in.
          {retentionNote(cash, view, exact)}
          {cash.undated !== 0 && ` Without a day, and in no month: ${exact(cash.undated)}.`}
          {view.costs.length === 0 && ' No cost is planned: give the job or its sections a start and a finish.'}
        </p>
      </div>
      <div className="scroll self-start" style={{ maxHeight: 300 }} tabIndex={0} role="region" aria-label="Cash by month, table">
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
  return view.retentionOn ? ` Retention is released on ${displayDate(view.retentionOn)}.` : '';
}
