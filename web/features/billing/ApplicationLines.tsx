import { displayPercent } from '../../../core/money/display';
import { ratio } from '../../../core/money/rate';
import type { ApplicationView } from '../../../wire/billing';
import { useCurrency } from '../../ground/company';
import { Fig } from '../../ground/workings/Fig';
import { Legend } from '../../kit/Signs';
import { AgainstCost } from './AgainstCost';

/** The lines of an application that is no longer a draft. */
export function ApplicationLines({ view }: { view: ApplicationView }) {
  const { show, code } = useCurrency();
  const sum = (value: (line: ApplicationView['lines'][number]) => number) =>
    view.lines.reduce((total, line) => total + value(line), 0);
  const of = (figure: string) => ({ figure, job: view.job, application: view.number });
  const cut = view.lines.some((line) => line.appliedWork !== line.work || line.appliedMaterials !== line.materials);
  return (
    <div className="scroll" tabIndex={0} role="region" aria-label="Lines of the application">
      <table className="ledger even" style={{ fontSize: 13 }}>
        <thead>
          <tr>
            <th>Line</th>
            {[
              ['Scheduled value', 98],
              ['Earned by cost', 108],
              ['Previous', 98],
              ['This period', 88],
              ['Work to date', 98],
              ['On site', 82],
              ['%', 52],
              ['Retention', 84],
            ].map(([title, width]) => (
              <th key={title} className="num" style={{ width, whiteSpace: 'normal' }}>
                {title}
              </th>
            ))}
            <th className="num" style={{ width: 92, whiteSpace: 'normal' }}>
              {cut ? 'Applied for' : 'Balance'}
            </th>
          </tr>
        </thead>
        <tbody>
          {view.lines.map((line) => (
            <tr key={line.line}>
              <td className="truncate" title={line.description}>
                <b>{line.line}</b> {line.description}
              </td>
              <td className="num">{show(line.scheduled)}</td>
              <td className="num">
                <AgainstCost job={view.job} sovLine={line.line} billed={line.work} earned={line.earnedByCost} />
              </td>
              <td className="num">{show(line.previousWork)}</td>
              <td className="num">{show(line.work - line.previousWork)}</td>
              <td className="num">{show(line.work)}</td>
              <td className="num">{show(line.materials)}</td>
              <td className="num">{displayPercent(ratio(line.toDate, line.scheduled))}</td>
              <td className="num">
                <Fig
                  value={line.retention}
                  of={{ figure: 'sovLineRetention', job: view.job, application: view.number, sovLine: line.line }}
                  label={`Retention on line ${line.line}`}
                />
              </td>
              <td className="num">
                {!cut
                  ? show(line.scheduled - line.toDate)
                  : line.appliedWork + line.appliedMaterials === line.toDate
                    ? ''
                    : show(line.appliedWork + line.appliedMaterials)}
              </td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td>Total, {code}</td>
            <td className="num">
              <Fig value={view.summary.contractSum} of={of('contractSum')} label="Contract sum" />
            </td>
            <td className="num">{show(sum((line) => line.earnedByCost ?? 0))}</td>
            <td className="num">{show(sum((line) => line.previousWork))}</td>
            <td className="num">{show(sum((line) => line.work - line.previousWork))}</td>
            <td className="num">
              <Fig value={view.summary.work} of={of('work')} label="Work done to date" />
            </td>
            <td className="num">
              <Fig value={view.summary.materials} of={of('materials')} label="Materials on site" />
            </td>
            <td className="num">{displayPercent(ratio(view.summary.gross, view.summary.contractSum))}</td>
            <td className="num">
              <Fig value={view.summary.retention} of={of('retention')} label="Retention to date" />
            </td>
            <td className="num">
              {show(
                cut ? sum((line) => line.appliedWork + line.appliedMaterials) : view.summary.contractSum - view.summary.gross,
              )}
            </td>
          </tr>
        </tfoot>
      </table>
      <p className="note text-[12.5px]">
        Earned by cost: scheduled value times cost over estimate of the budget lines that serve the line.{' '}
        <Legend names={['over', 'under']} />
      </p>
    </div>
  );
}
