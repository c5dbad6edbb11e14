import type { EstimateView } from '../../../wire/jobs';
import { useCurrency } from '../../ground/company';
import { Fig } from '../../ground/workings/Fig';
import { Sign } from '../../kit/Signs';

/** Figures of an SOV line with the name of the workings that explain each. */
const COLUMNS = [
  ['scheduled', 'Scheduled value', 'sovLineScheduled'],
  ['billed', 'Billed to date', 'sovLineBilled'],
  ['revised', 'Revised budget', 'sovLineRevised'],
  ['actual', 'Actual', 'sovLineActual'],
  ['estimate', 'Estimate at completion', 'sovLineEstimate'],
] as const;

/** Revenue by SOV line beside the cost of the budget lines that serve it. */
export function RevenueBesideCost({ view, job }: { view: EstimateView; job: string }) {
  const { show } = useCurrency();
  const rows = view.revenue;
  const sum = (key: (typeof COLUMNS)[number][0]) => rows.reduce((total, row) => total + row[key], 0);
  if (rows.length === 0) return null;
  return (
    <>
      <h2 className="mb-1 mt-6">Revenue by SOV line, beside its cost</h2>
      <table className="ledger static-foot">
        <thead>
          <tr>
            <th>Line</th>
            <th>Description</th>
            {[...COLUMNS.map(([, title]) => title), 'Expected profit'].map((title) => (
              <th key={title} className="num">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.line}>
              <td>{row.line}</td>
              <td>{row.description}</td>
              {COLUMNS.map(([key, title, figure]) => (
                <td key={key} className="num">
                  <Fig value={row[key]} of={{ figure, job, sovLine: row.line }} label={`${title}, line ${row.line}`} />
                </td>
              ))}
              <td className="num">
                {row.scheduled < row.estimate && <Sign name="loss" bare />} {show(row.scheduled - row.estimate)}
              </td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={2}>All lines</td>
            {COLUMNS.map(([key]) => (
              <td key={key} className="num">
                {show(sum(key))}
              </td>
            ))}
            <td className="num">{show(sum('scheduled') - sum('estimate'))}</td>
          </tr>
        </tfoot>
      </table>
      <p className="note text-[12.5px]">
        Cost with no SOV line named in its budget is not in this table; where a cost line serves several SOV lines it is shared by
        their budgets.
      </p>
    </>
  );
}
