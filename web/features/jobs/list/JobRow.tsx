import { Link } from 'react-router';
import { totalProgress } from '../../../../core/progress/workInProgress';
import type { JobListRow } from '../../../../wire/jobs';
import { useKeepMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { Fig } from '../../../ground/workings/Fig';
import { SmallMeasure } from '../../../kit/Measure';
import { Sign } from '../../../kit/Signs';
import { OverUnder } from '../../../ground/OverUnder';

export function JobRow({ job }: { job: JobListRow }) {
  const keep = useKeepMonth();
  const of = (figure: string) => ({ figure, job: job.number });
  return (
    <tr style={{ color: job.inSchedule ? 'inherit' : 'var(--soft)' }}>
      <td>
        <Link to={keep(`/jobs/${encodeURIComponent(job.number)}`)}>
          <b>{job.number}</b>
        </Link>
      </td>
      <td className="truncate" title={job.name}>
        <Link to={keep(`/jobs/${encodeURIComponent(job.number)}`)} style={{ color: 'var(--ink)' }}>
          {job.name}
        </Link>
      </td>
      <td>{job.contractSum !== 0 && <SmallMeasure figures={job} label={`Measure of ${job.number}`} />}</td>
      <td className="note">{job.status}</td>
      <td className="truncate" title={job.clientName}>
        {job.clientName}
      </td>
      <td className="truncate">{job.manager}</td>
      <td className="num">
        <Fig value={job.contractSum} of={of('contractSum')} label="Contract sum" />
      </td>
      <td className="num">
        <Fig value={job.estimate} of={of('estimate')} label="Estimate at completion" />
      </td>
      <td className="num">
        {job.margin < 0 && <Sign name="loss" bare />} <Fig value={job.margin} unit="percent" of={of('margin')} label="Margin" />
      </td>
      <td className="num">
        <Fig value={job.complete} unit="percent" of={of('complete')} label="Complete" />
      </td>
      <td className="num">
        <OverUnder over={job.overbilled} under={job.underbilled} job={job.number} />
      </td>
    </tr>
  );
}

export function JobTotals({ jobs, all }: { jobs: readonly JobListRow[]; all: boolean }) {
  const { show } = useCurrency();
  const counted = jobs.filter((job) => job.inSchedule);
  const total = totalProgress(counted);
  // The workings of a total are those of all jobs: a filtered list shows plain sums.
  const figure = (key: 'contractSum' | 'estimate' | 'margin' | 'complete', label: string, unit: 'money' | 'percent' = 'money') =>
    all ? (
      <Fig value={total[key]} unit={unit} of={{ figure: key }} label={label} />
    ) : unit === 'percent' ? (
      (total[key] / 10_000).toFixed(1)
    ) : (
      show(total[key])
    );
  return (
    <tfoot>
      <tr>
        <td colSpan={2}>
          {counted.length} {counted.length === 1 ? 'job' : 'jobs'} in the schedule
        </td>
        <td>
          <SmallMeasure figures={{ ...total, received: 0 }} label="Measure of all jobs" />
        </td>
        <td colSpan={3} />
        <td className="num">{figure('contractSum', 'Contract sums')}</td>
        <td className="num">{figure('estimate', 'Estimates at completion')}</td>
        <td className="num">{figure('margin', 'Margin', 'percent')}</td>
        <td className="num">{figure('complete', 'Complete', 'percent')}</td>
        <td className="num">
          <span className="inline-flex flex-col items-end py-1 leading-tight">
            <span className="inline-flex items-center gap-2">
              <Sign name="over" bare />
              {all ? <Fig value={total.overbilled} of={{ figure: 'overbilled' }} label="Overbilled" /> : show(total.overbilled)}
            </span>
            <span className="inline-flex items-center gap-2">
              <Sign name="under" bare />
              {all ? (
                <Fig value={total.underbilled} of={{ figure: 'underbilled' }} label="Underbilled" />
              ) : (
                show(total.underbilled)
              )}
            </span>
          </span>
        </td>
      </tr>
    </tfoot>
  );
}
