import { Legend, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { displayPeriod } from '../../../core/calendar/displayDate';
import type { PlanView } from '../../../wire/plan';
import { useCurrency } from '../../app/company';

/** Planned cost and billing to date by month, beside what was spent and billed: as a curve, and as its table. */
export function PlanCurve({ view }: { view: PlanView }) {
  const { show, digits, code } = useCurrency();
  const scale = 10 ** digits;
  if (view.months.length === 0)
    return (
      <section aria-label="Plan by month">
        <h2>Plan by month</h2>
        <p className="note">
          Give the job, or its sections, a start and a finish: then budget and schedule lie over their months.
        </p>
      </section>
    );
  const points = view.months.map((it) => ({
    month: it.month,
    plannedCost: it.plannedCost / scale,
    plannedBilling: it.plannedBilling / scale,
    cost: it.cost === null ? null : it.cost / scale,
    billed: it.billed === null ? null : it.billed / scale,
  }));
  return (
    <section aria-label="Plan by month">
      <h2 className="mb-1">Plan by month, to date</h2>
      <div style={{ height: 200 }} aria-hidden="true">
        <ResponsiveContainer width="100%" height="100%">
          <LineChart accessibilityLayer={false} data={points} margin={{ top: 6, right: 8, bottom: 0, left: 8 }}>
            <XAxis
              dataKey="month"
              tickFormatter={displayPeriod}
              stroke="var(--rule)"
              tick={{ fill: 'var(--soft)', fontSize: 12 }}
              minTickGap={24}
            />
            <YAxis hide domain={[0, 'dataMax']} />
            <Tooltip
              formatter={(value) => show(Math.round(Number(value) * scale))}
              labelFormatter={(label) => displayPeriod(String(label))}
              contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--rule)' }}
            />
            <Legend iconType="plainline" />
            <Line
              dataKey="plannedCost"
              name="planned cost"
              dot={false}
              stroke="var(--bar-cost)"
              strokeDasharray="5 3"
              isAnimationActive={false}
            />
            <Line
              dataKey="plannedBilling"
              name="planned billing"
              dot={false}
              stroke="var(--bar-billed)"
              strokeDasharray="5 3"
              isAnimationActive={false}
            />
            <Line dataKey="cost" name="cost" dot={false} stroke="var(--bar-cost)" strokeWidth={2.5} isAnimationActive={false} />
            <Line
              dataKey="billed"
              name="billed"
              dot={false}
              stroke="var(--bar-billed)"
              strokeWidth={2.5}
              isAnimationActive={false}
            />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <div className="scroll mt-2" style={{ maxHeight: 320 }} tabIndex={0} role="region" aria-label="Plan by month, table">
        <table className="ledger">
          <thead>
            <tr>
              <th>Month</th>
              <th className="num">Planned cost, {code}</th>
              <th className="num">Cost</th>
              <th className="num">Planned billing</th>
              <th className="num">Billed</th>
            </tr>
          </thead>
          <tbody>
            {view.months.map((it) => (
              <tr key={it.month}>
                <td>{displayPeriod(it.month)}</td>
                <td className="num">{show(it.plannedCost)}</td>
                <td className="num">{it.cost === null ? '' : show(it.cost)}</td>
                <td className="num">{show(it.plannedBilling)}</td>
                <td className="num">{it.billed === null ? '' : show(it.billed)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {(view.unplannedCost !== 0 || view.unplannedBilling !== 0) && (
        <p className="note">
          Without dates, and in no month: budget of {show(view.unplannedCost)}, schedule of {show(view.unplannedBilling)} {code}.
        </p>
      )}
    </section>
  );
}
