import { displayPeriod } from '../../../core/calendar/displayDate';
import type { PlanView } from '../../../wire/plan';
import { useCurrency } from '../../ground/company';
import { MonthChart } from '../../ground/MonthChart';

/** Planned cost and billing to date by month, beside what was spent and billed: as a curve, and as its table. */
export function PlanCurve({ view }: { view: PlanView }) {
  const { show, code } = useCurrency();
  if (view.months.length === 0)
    return (
      <section aria-label="Plan by month">
        <h2>Plan by month</h2>
        <p className="note">
          Give the job, or its sections, a start and a finish: then budget and schedule lie over their months.
        </p>
      </section>
    );
  return (
    <section aria-label="Plan by month">
      <h2 className="mb-1">Plan by month, cumulative</h2>
      <MonthChart
        height={210}
        months={view.months}
        courses={[
          { key: 'plannedCost', name: 'planned cost', colour: 'var(--bar-cost)', planned: true },
          { key: 'plannedBilling', name: 'planned billing', colour: 'var(--bar-billed)', planned: true },
          { key: 'cost', name: 'cost', colour: 'var(--bar-cost)' },
          { key: 'billed', name: 'billed', colour: 'var(--bar-billed)' },
        ]}
      />
      <div className="scroll mt-2 max-h-[320px]" tabIndex={0} role="region" aria-label="Plan by month, table">
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
