import { Link } from 'react-router';
import { displayPercent } from '../../../../core/money/display';
import type { Rate } from '../../../../core/money/rate';
import { PROGRESS_FIGURES } from '../../../../core/progress/figures';
import { totalProgress } from '../../../../core/progress/workInProgress';
import type { JobListRow } from '../../../../wire/jobs';
import { useKeepMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { Fig } from '../../../ground/workings/Fig';
import { SmallMeasure } from '../../../kit/Measure';
import { Sign } from '../../../kit/Signs';
import { LISTED_FIGURES, type ListedFigure } from './listedFigures';
import { OverUnder } from '../../../ground/OverUnder';

export function JobRow({ job }: { job: JobListRow }) {
  const keep = useKeepMonth();
  return (
    <tr style={{ color: job.inSchedule ? 'inherit' : 'var(--soft)' }}>
      <td>
        <Link to={keep(`/jobs/${encodeURIComponent(job.number)}`)}>
          <b>{job.number}</b>
        </Link>
      </td>
      <td className="truncate" title={job.name}>
        <Link to={keep(`/jobs/${encodeURIComponent(job.number)}`)} className="text-[var(--ink)]">
          {job.name}
        </Link>
      </td>
      <td>{job.contractSum !== 0 && <SmallMeasure figures={job} label={`Measure of ${job.number}`} />}</td>
      <td className="note">{job.status}</td>
      <td className="truncate" title={job.clientName}>
        {job.clientName}
      </td>
      <td className="truncate">{job.manager}</td>
      {LISTED_FIGURES.map(([key]) => (
        <td key={key} className="num">
          {key === 'margin' && job.margin < 0 && <Sign name="loss" bare />} <ListFigure of={key} figures={job} job={job.number} />
        </td>
      ))}
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
  const plain = (key: ListedFigure) =>
    PROGRESS_FIGURES[key].unit === 'percent' ? displayPercent(total[key] as Rate) : show(total[key]);
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
        {LISTED_FIGURES.map(([key]) => (
          <td key={key} className="num">
            {/* The workings of a total are those of all jobs: a filtered list shows plain sums. */}
            {all ? <ListFigure of={key} figures={total} /> : plain(key)}
          </td>
        ))}
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

/** A figure of a job, or of all of them, with its workings. */
function ListFigure({ of, figures, job }: { of: ListedFigure; figures: Record<ListedFigure, number>; job?: string }) {
  const { title, unit } = PROGRESS_FIGURES[of];
  return <Fig value={figures[of]} unit={unit} of={{ figure: of, ...(job !== undefined && { job }) }} label={title} />;
}
