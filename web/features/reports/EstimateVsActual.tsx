import { useEstimateVersusActualQuery, useListsQuery } from '../../ground/api/api';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { useAsOf } from '../../ground/asOf';
import { faultOf } from '../../ground/faults';
import { Empty, Refused, Waiting } from '../../kit/States';
import { EstimateTable } from './EstimateTable';
import { May } from '../../ground/person';
import { Quantities } from './Quantities';
import { RevenueBesideCost } from './RevenueBesideCost';
import { Choice } from '../../kit/choice/Choice';
import { Downloads, ReportHead } from '../../ground/reports/ReportHead';

function Estimate({ job, inWindow = false }: { job: string; inWindow?: boolean }) {
  const { asOf } = useAsOf();
  const { data, error, refetch } = useEstimateVersusActualQuery({ job, asOf });
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what={`the budget of job ${job}`} />;
  if (data.lines.length === 0)
    return (
      <Empty title="No budget and no cost to date">
        <p className="note m-0">
          The budget is entered with the schedule of values, until the first application or approved change order; after that,
          budget is moved between its lines.
        </p>
      </Empty>
    );
  return (
    <>
      <EstimateTable view={data} job={job} inWindow={inWindow} />
      <RevenueBesideCost view={data} job={job} />
    </>
  );
}

/** The budget as a part of a job's page. */
export function JobBudget() {
  const { number = '' } = useParams();
  return (
    <>
      <div className="mb-2 flex items-center justify-between">
        <h2>Estimate versus actual</h2>
        <Downloads name="estimate-vs-actual" job={number} />
      </div>
      <Estimate job={number} />
      <May do="report:quantities">
        <Quantities job={number} />
      </May>
    </>
  );
}

/** Estimate versus actual as a report, of a job that is chosen. */
export function EstimateVsActualPage() {
  const [params] = useSearchParams();
  const { asOf } = useAsOf();
  const navigate = useNavigate();
  const { data: lists } = useListsQuery({ asOf });
  const job = params.get('job') ?? lists?.jobs.find((it) => it.status === 'on-site')?.number ?? lists?.jobs[0]?.number;
  if (!lists) return <Waiting what="the jobs" />;
  if (!job)
    return (
      <div className="page">
        <Empty title="No job yet" />
      </div>
    );
  const choose = (number: string) => {
    const next = new URLSearchParams(params);
    next.set('job', number);
    void navigate({ search: String(next) });
  };
  return (
    <div className="page">
      <ReportHead title="Estimate versus actual" name="estimate-vs-actual" job={job} />
      <div className="mb-2 flex items-center gap-2">
        <span className="note">Job</span>
        <Choice
          aria-label="Job"
          className="box w-[420px]"
          value={job}
          options={lists.jobs.map((it) => [it.number, `${it.number} ${it.name}`])}
          onChange={choose}
        />
      </div>
      <Estimate job={job} inWindow />
    </div>
  );
}
