import { useJobQuery } from '../../ground/api/api';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link, NavLink, Outlet, useMatch, useNavigate, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import type { JobView } from '../../../wire/jobs';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Fig } from '../../ground/workings/Fig';
import { Measure, SmallMeasure } from '../../kit/Measure';
import { Legend } from '../../kit/Signs';
import { Refused, Waiting } from '../../kit/States';
import { JobStatus } from './JobStatus';
import { OverUnder } from './OverUnder';

const PARTS = [
  ['estimates', 'Estimates'],
  ['contract', 'Contract'],
  ['budget', 'Budget'],
  ['changes', 'Changes'],
  ['costs', 'Costs'],
  ['billing', 'Billing'],
  ['postings', 'Postings'],
  ['file', 'Job file'],
  ['plan', 'Plan'],
] as const;

/** What the parts of a job's page are given. */
export interface JobOutlet {
  job: JobView;
}

/** A job's one page: its measure on top, then its parts. */
export function JobPage() {
  const { number = '' } = useParams();
  const { month } = useAsOf();
  const { data: job, error, refetch } = useJobQuery({ job: number, asOf: month });
  const keep = useKeepMonth();
  const navigate = useNavigate();
  // An application, an estimate or a change needs the height of the page; the measure is one key away.
  const onApplication = useMatch('/jobs/:number/billing/:application') !== null;
  const onEstimate = useMatch('/jobs/:number/estimates/:estimate/*') !== null;
  const onQuotation = useMatch('/jobs/:number/quotations/:quotation') !== null;
  const onFile = useMatch('/jobs/:number/file') !== null;
  const onPlan = useMatch('/jobs/:number/plan') !== null;
  const onChange = useMatch('/jobs/:number/changes/:change') !== null;
  const base = `/jobs/${encodeURIComponent(number)}`;
  useHotkeys(
    '0,1,2,3,4,5,6,7,8,9',
    (event) => {
      const part = PARTS[Number(event.key) - 1];
      void navigate(keep(part ? `${base}/${part[0]}` : base));
    },
    { useKey: true },
    [base, keep],
  );
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!job) return <Waiting what={`job ${number}`} />;
  const unpriced = job.status === 'tender' && job.contractSum === 0 && job.estimate === 0;
  return (
    <div className="page">
      <p className="note m-0 flex flex-wrap items-center gap-x-3">
        <Link to={keep('/jobs')}>Jobs</Link>
        <span>{job.clientName}</span>
        {job.contractReference && <span>{job.contractReference}</span>}
        {job.manager && <span>{job.manager}</span>}
        {job.site && <span className="cut max-w-[300px]">{job.site}</span>}
      </p>
      <div className="mb-3 flex items-center justify-between gap-6">
        <h1 className="grow">
          <span style={{ color: 'var(--accent)' }}>{job.number}</span> {job.name}
        </h1>
        {onApplication && <SmallMeasure figures={job} label={`Measure of ${job.number}`} />}
        {onApplication && <OverUnder over={job.overbilled} under={job.underbilled} job={job.number} />}
        <JobStatus job={job} />
      </div>
      {onApplication || onEstimate || onQuotation || onChange || onFile || onPlan || unpriced ? null : <JobHead job={job} />}
      <nav aria-label="Parts of the job" className="mb-3 mt-4 flex gap-1 border-b" style={{ borderColor: 'var(--rule)' }}>
        {[['', 'Next'] as const, ...PARTS].map(([part, name], i) => (
          <NavLink
            key={part}
            end={part === ''}
            to={keep(part ? `${base}/${part}` : base)}
            className="px-3 py-1 no-underline"
            style={({ isActive }) => ({
              color: isActive ? 'var(--accent)' : 'var(--ink)',
              boxShadow: isActive ? 'inset 0 -3px 0 var(--accent)' : 'none',
              fontWeight: isActive ? 600 : 400,
            })}
          >
            {name} <span className="note text-[11px]">{i}</span>
          </NavLink>
        ))}
      </nav>
      <Outlet context={{ job } satisfies JobOutlet} />
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
    ['Open, with tax', <Fig value={job.open} of={of('open')} label="Open" />],
    ['Retention held', <Fig value={job.retentionHeld} of={of('retentionHeld')} label="Retention held" />],
    ['Changes not approved', <Fig value={job.pendingChanges} of={of('pendingChanges')} label="Changes not approved" />],
  ];
  return (
    <div className="sheet grid gap-8 px-4 py-3" style={{ gridTemplateColumns: 'minmax(0, 1.5fr) minmax(0, 1fr)' }}>
      <section aria-label="Measure">
        <Measure figures={job} figure={(key, label) => <Fig value={job[key]} of={of(key)} label={label} exact />} />
        <p className="note mb-0 mt-2 flex flex-wrap gap-x-4 text-[12.5px]">
          <span>In {code}; the upright is the contract sum.</span>
          <Legend names={['over', 'under', 'loss']} />
        </p>
      </section>
      <dl className="m-0 grid content-start gap-x-4 gap-y-[2px]" style={{ gridTemplateColumns: '1fr auto' }}>
        {facts.map(([label, value]) => (
          <div key={label} className="contents">
            <dt style={{ color: 'var(--soft)' }}>{label}</dt>
            <dd className="sum m-0">{value}</dd>
          </div>
        ))}
      </dl>
      {!job.inSchedule && (
        <p className="note m-0">
          {job.status === 'tender'
            ? 'A tender: not in the work-in-progress schedule.'
            : `Awarded ${displayDate(job.awardedOn)}: not in the schedule of this month yet.`}
        </p>
      )}
    </div>
  );
}
