import { displayPercent } from '../../../core/money/display';
import type { CostPreview } from '../../../wire/costs';
import { useCurrency } from '../../ground/company';
import { Journal } from '../../kit/Journal';
import { Sign } from '../../kit/Signs';

/** What posting the batch would do: to the budget lines it touches, to the jobs, and in the ledger. */
export function BatchPreview({ preview }: { preview: CostPreview }) {
  const { show, exact } = useCurrency();
  const change = ([was, now]: [number, number], text: (value: number) => string) =>
    was === now ? text(now) : `${text(was)} → ${text(now)}`;
  const overUnder = (value: number) => (value === 0 ? '–' : `${exact(Math.abs(value))} ${value > 0 ? 'over' : 'under'}`);
  return (
    <section
      aria-label="Preview"
      className="mt-4 grid gap-6"
      style={{ gridTemplateColumns: 'minmax(0, 1.7fr) minmax(300px, 1fr)' }}
    >
      <div>
        <h2 className="mb-1">Budget remaining after posting</h2>
        <table className="ledger">
          <thead>
            <tr>
              <th>Job</th>
              <th>Line</th>
              <th className="num">Revised budget</th>
              <th className="num">Cost before</th>
              <th className="num">Cost after</th>
              <th className="num">Remaining</th>
            </tr>
          </thead>
          <tbody>
            {preview.lines.map((line) => (
              <tr key={`${line.job} ${line.section} ${line.costCode} ${line.costType}`}>
                <td>{line.job}</td>
                <td>
                  {[line.section, line.costCode, line.costType].filter(Boolean).join(' · ')}
                  {line.warning && (
                    <span className="ml-2 inline-flex gap-1" style={{ color: line.budgeted ? 'var(--loss)' : 'var(--over)' }}>
                      <Sign name={line.budgeted ? 'overrun' : 'unbudgeted'} bare />
                      {line.warning}
                    </span>
                  )}
                </td>
                <td className="num">{show(line.revised)}</td>
                <td className="num">{show(line.before)}</td>
                <td className="num">{show(line.after)}</td>
                <td className="num">
                  <b>{exact(line.remaining)}</b>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <h2 className="mb-1 mt-4">Effect on jobs</h2>
        <table className="ledger">
          <thead>
            <tr>
              <th>Job</th>
              <th className="num">Estimate at completion</th>
              <th className="num">Margin %</th>
              <th className="num">Over / under billed</th>
            </tr>
          </thead>
          <tbody>
            {preview.jobs.map((job) => (
              <tr key={job.job}>
                <td>
                  {job.job} {job.name}
                  {job.warning && (
                    <span className="ml-2" style={{ color: 'var(--loss)' }}>
                      {job.warning}
                    </span>
                  )}
                </td>
                <td className="num">{change(job.estimate, exact)}</td>
                <td className="num">{change(job.margin, displayPercent)}</td>
                <td className="num">{change(job.overUnder, overUnder)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="scroll" style={{ maxHeight: 340 }} tabIndex={0} role="region" aria-label="Journals">
        <h2 className="mb-1">The journal</h2>
        {preview.journals.length === 0 ? (
          <p className="note">The amounts net to zero; only hours are posted.</p>
        ) : (
          preview.journals.map((journal) => <Journal key={journal.dated} journal={journal} show={show} />)
        )}
      </div>
    </section>
  );
}
