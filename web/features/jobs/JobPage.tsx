import { useJobQuery } from '../../ground/api/api';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link, Outlet, useMatch, useNavigate, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { hasContract } from '../../../core/jobs/jobStatus';
import { HOLDING_PARTS } from '../../../core/jobs/jobParts';
import type { JobView } from '../../../wire/jobs';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { FoldedRow } from '../../ground/FoldedRow';
import { usePlaces } from '../../ground/places';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Fig } from '../../ground/workings/Fig';
import { useStanding } from '../../ground/useStanding';
import { Measure, SmallMeasure } from '../../kit/Measure';
import { Legend } from '../../kit/Signs';
import { Refused, Waiting } from '../../kit/States';
import { JobStatus } from './JobStatus';
import { OverUnder } from '../../ground/OverUnder';

/** What the parts of a job's page are given. */
export interface JobOutlet {
  job: JobView;
}

/** A job's one page: its measure on top, then its parts. */
export function JobPage() {
  const { number = '' } = useParams();
  const { asOf } = useAsOf();
  const { data: job, error, refetch } = useStanding(useJobQuery({ job: number, asOf }));
  const withMonth = useWithMonth();
  const navigate = useNavigate();
  const { jobParts } = usePlaces();
  const tabs = jobParts.filter((it) => !it.inner);
  const onSummary = useMatch('/jobs/:number') !== null;
  const base = `/jobs/${encodeURIComponent(number)}`;
  useHotkeys(
    '0,1,2,3,4,5,6,7,8,9',
    (event) => {
      const part = tabs[Number(event.key) - 1];
      void navigate(withMonth(part ? `${base}/${part.path}` : base));
    },
    { useKey: true },
    [base, withMonth, tabs],
  );
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!job) return <Waiting what={`job ${number}`} />;
  const unpriced = !hasContract(job.status) && job.contractSum === 0 && job.estimate === 0;
  return (
    <div className="page">
      <p className="note m-0 flex flex-wrap items-center gap-x-3">
        <Link to={withMonth('/jobs')}>Jobs</Link>
        <span>{job.clientName}</span>
        {job.contractReference && <span>{job.contractReference}</span>}
        {job.manager && <span>{job.manager}</span>}
        {job.site && <span className="truncate max-w-[300px]">{job.site}</span>}
      </p>
      <div className="mb-3 flex items-center justify-between gap-6">
        <h1 className="grow">
          <span className="text-[var(--accent)]">{job.number}</span> {job.name}
        </h1>
        <JobStatus job={job} />
      </div>
      {onSummary ? !unpriced && <JobHead job={job} /> : <JobLine job={job} />}
      <FoldedRow
        label="Parts of the job"
        title="Parts that hold nothing yet"
        links={[
          { to: base, text: 'Summary', mark: '0', end: true, aside: false },
          ...tabs.map(({ path, title }, i) => ({
            to: `${base}/${path}`,
            text: title,
            mark: i < 9 ? String(i + 1) : '',
            aside: isEmptyPart(path, job.holds),
          })),
        ]}
      />
      <Outlet context={{ job } satisfies JobOutlet} />
    </div>
  );
}

/** True of a part that holds nothing yet; one that always has something to show is none. */
function isEmptyPart(path: string, holds: JobView['holds']): boolean {
  return (HOLDING_PARTS as readonly string[]).includes(path) && !(holds as readonly string[]).includes(path);
}

/** The job on one line, above the part that is worked on: its measure and the four figures that tell most. */
function JobLine({ job }: { job: JobView }) {
  const of = (figure: string) => ({ figure, job: job.number });
  const facts: readonly (readonly [string, React.ReactNode])[] = [
    ['Contract sum', <Fig key="sum" value={job.contractSum} of={of('contractSum')} label="Contract sum" />],
    ['EAC', <Fig key="eac" value={job.estimate} of={of('estimate')} label="Estimate at completion" />],
    ['Margin %', <Fig key="margin" value={job.margin} unit="percent" of={of('margin')} label="Margin" />],
  ];
  return (
    <div className="job-line" role="group" aria-label={`Figures of job ${job.number}`}>
      <SmallMeasure figures={job} label={`Measure of ${job.number}`} />
      {facts.map(([label, value]) => (
        <span key={label}>
          <span className="note">{label}</span> {value}
        </span>
      ))}
      <span>
        <span className="note mr-1">Over / under billed</span>{' '}
        <OverUnder over={job.overbilled} under={job.underbilled} job={job.number} />
      </span>
    </div>
  );
}

function JobHead({ job }: { job: JobView }) {
  const { code } = useCurrency();
  const of = (figure: string) => ({ figure, job: job.number });
  const facts: readonly (readonly [string, React.ReactNode])[] = [
    ['Estimated profit', <Fig value={job.estimatedProfit} of={of('estimatedProfit')} label="Estimated profit" />],
    ['Margin %', <Fig value={job.margin} unit="percent" of={of('margin')} label="Margin" />],
    ['Complete %', <Fig value={job.complete} unit="percent" of={of('complete')} label="Complete" />],
    ['Profit to date', <Fig value={job.profitToDate} of={of('profitToDate')} label="Profit to date" />],
    ['Over / under billed', <OverUnder over={job.overbilled} under={job.underbilled} job={job.number} />],
    ['Backlog', <Fig value={job.backlog} of={of('backlog')} label="Backlog" />],
    ['Loss provision', <Fig value={job.lossProvision} of={of('lossProvision')} label="Loss provision" />],
    ['Outstanding, tax included', <Fig value={job.open} of={of('open')} label="Outstanding" />],
    ['Retention held', <Fig value={job.retentionHeld} of={of('retentionHeld')} label="Retention held" />],
    ['Pending change orders', <Fig value={job.pendingChanges} of={of('pendingChanges')} label="Pending change orders" />],
  ];
  return (
    <div className="sheet grid gap-8 px-4 py-3 grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
      <section aria-label="Measure">
        <Measure figures={job} figure={(key, label) => <Fig value={job[key]} of={of(key)} label={label} exact />} />
        <p className="note mb-0 mt-2 flex flex-wrap gap-x-4 text-[12.5px]">
          <span>In {code}; the vertical line is the contract sum, a tick the end of last month.</span>
          <Legend names={['over', 'under', 'loss']} />
        </p>
      </section>
      <dl className="m-0 grid content-start gap-x-4 gap-y-[2px] grid-cols-[1fr_auto]">
        {facts.map(([label, value]) => (
          <div key={label} className="contents">
            <dt className="text-[var(--soft)]">{label}</dt>
            <dd className="figure m-0">{value}</dd>
          </div>
        ))}
      </dl>
      {!job.inSchedule && (
        <p className="note m-0">
          {hasContract(job.status)
            ? `Awarded ${displayDate(job.awardedOn)}: not in the schedule of this month yet.`
            : `A job that is ${job.status} is not in the work-in-progress schedule.`}
        </p>
      )}
    </div>
  );
}
