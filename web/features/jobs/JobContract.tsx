import { useOutletContext } from 'react-router';
import { ratio } from '../../../core/money/rate';
import { displayPercent } from '../../../core/money/display';
import { useCurrency } from '../../ground/company';
import { Fig } from '../../ground/workings/Fig';
import { Empty } from '../../kit/States';
import type { JobOutlet } from './JobPage';

/** The schedule of values as of the month. */
export function JobContract() {
  const { job } = useOutletContext<JobOutlet>();
  const { show, code } = useCurrency();
  const sum = (value: (line: (typeof job.sov)[number]) => number) => job.sov.reduce((total, line) => total + value(line), 0);
  if (job.sov.length === 0)
    return (
      <Empty title="No schedule of values">
        <p className="note m-0">A job gets its schedule when it is set up, or by importing a book.</p>
      </Empty>
    );
  return (
    <>
      <h2 className="mb-1">Schedule of values</h2>
      <table className="ledger">
        <thead>
          <tr>
            <th>Line</th>
            <th>Section</th>
            <th>Description</th>
            <th className="num">As signed</th>
            <th className="num">Changes</th>
            <th className="num">Scheduled value</th>
            <th className="num">Billed to date</th>
            <th className="num">Billed %</th>
            <th className="num">Left to bill</th>
          </tr>
        </thead>
        <tbody>
          {job.sov.map((line) => (
            <tr key={line.line}>
              <td>{line.line}</td>
              <td>{line.section}</td>
              <td>{line.description}</td>
              <td className="num">
                <Fig
                  value={line.scheduledValue}
                  of={{ figure: 'sovLineSigned', job: job.number, sovLine: line.line }}
                  label={`As signed, line ${line.line}`}
                />
              </td>
              <td className="num">{show(line.changes)}</td>
              <td className="num">
                <Fig
                  value={line.scheduledToDate}
                  of={{ figure: 'sovLineScheduled', job: job.number, sovLine: line.line }}
                  label={`Scheduled value of line ${line.line}`}
                />
              </td>
              <td className="num">
                <Fig
                  value={line.billed}
                  of={{ figure: 'sovLineBilled', job: job.number, sovLine: line.line }}
                  label={`Billed on line ${line.line}`}
                />
              </td>
              <td className="num">{displayPercent(ratio(line.billed, line.scheduledToDate))}</td>
              <td className="num">{show(line.scheduledToDate - line.billed)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={3}>Contract sum, {code}</td>
            <td className="num">{show(sum((line) => line.scheduledValue))}</td>
            <td className="num">{show(sum((line) => line.changes))}</td>
            <td className="num">
              <Fig value={job.contractSum} of={{ figure: 'contractSum', job: job.number }} label="Contract sum" />
            </td>
            <td className="num">
              <Fig value={job.billed} of={{ figure: 'billed', job: job.number }} label="Billed to date" />
            </td>
            <td className="num">{displayPercent(ratio(job.billed, job.contractSum))}</td>
            <td className="num">{show(job.contractSum - job.billed)}</td>
          </tr>
        </tfoot>
      </table>
    </>
  );
}
