import { useAchievedQuery } from '../../ground/api/api';
import { Link } from 'react-router';
import { displayQuantity, displayPercent } from '../../../core/money/display';
import { ratio } from '../../../core/money/rate';
import type { BuildUpInput } from '../../../wire/prices';
import { useKeepMonth } from '../../ground/asOf';
import { showUnitCostFull } from '../../kit/typed/readCells';

/** What the build-up took on finished jobs, beside what it was priced at then and is priced at now. */
export function AchievedTable({ buildUp, perUnit }: { buildUp: BuildUpInput; perUnit: { cost: number; hours: number } }) {
  const keep = useKeepMonth();
  const { data } = useAchievedQuery();
  const jobs = (data ?? []).filter((it) => it.buildUp === buildUp.code);
  return (
    <>
      <h2 className="mb-1 mt-4">Actuals on finished jobs, for one {buildUp.unit || 'unit'}</h2>
      {jobs.length === 0 ? (
        <p className="note m-0">No job that was priced with it is finished yet.</p>
      ) : (
        <table className="ledger static-foot">
          <thead>
            <tr>
              <th>Job</th>
              <th className="num">Quantity</th>
              <th className="num">Hours priced</th>
              <th className="num">Hours taken</th>
              <th className="num">Cost priced</th>
              <th className="num">Cost</th>
              <th className="num">% of estimated cost</th>
            </tr>
          </thead>
          <tbody>
            {jobs.map((it) => (
              <tr key={it.job}>
                <td>
                  <Link to={keep(`/jobs/${encodeURIComponent(it.job)}/budget`)} title={it.jobName}>
                    {it.job}
                  </Link>
                </td>
                <td className="num">
                  {displayQuantity(it.quantity)} {it.unit}
                </td>
                <td className="num">{displayQuantity(it.assumedHours)}</td>
                <td className="num">{displayQuantity(it.achievedHours)}</td>
                <td className="num">{showUnitCostFull(it.assumedCost)}</td>
                <td className="num">{showUnitCostFull(it.achievedCost)}</td>
                <td className="num">{displayPercent(ratio(it.achievedCost, it.assumedCost))}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <td colSpan={2}>The build-up now</td>
              <td className="num">{displayQuantity(perUnit.hours)}</td>
              <td />
              <td className="num">{showUnitCostFull(perUnit.cost)}</td>
              <td colSpan={2} />
            </tr>
          </tfoot>
        </table>
      )}
    </>
  );
}
