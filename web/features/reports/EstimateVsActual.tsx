import { useNavigate, useSearchParams } from 'react-router';
import type { EstimateView } from '../../../wire/jobs';
import { useEstimateVersusActualQuery, useListsQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { LookedLinesBar } from '../../ground/costLines/LookedLinesBar';
import { useLookedLines, type LookedLines } from '../../ground/costLines/useLookedLines';
import { Loaded } from '../../ground/Loaded';
import { ReportHead } from '../../ground/reports/ReportHead';
import { Choice } from '../../kit/choice/Choice';
import { Legend } from '../../kit/Signs';
import { Empty, Waiting } from '../../kit/States';
import { EstimateTable } from './EstimateTable';
import { RevenueBesideCost } from './RevenueBesideCost';

interface Props {
  view: EstimateView;
  job: string;
  looked: LookedLines;
  inWindow?: boolean;
}

/** The budget beside what is spent and expected, line by line, with the revenue it serves. */
export function BudgetBesideCost({ view, job, looked, inWindow = false }: Props) {
  if (view.lines.length === 0)
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
      <EstimateTable view={view} job={job} looked={looked} inWindow={inWindow} />
      <RevenueBesideCost view={view} job={job} />
    </>
  );
}

/** What the signs of the cost lines mean, and the currency. */
export function LinesLegend() {
  const { code } = useCurrency();
  return (
    <>
      <Legend names={['unbudgeted', 'overrun', 'loss']} />
      <span className="note text-[12.5px]">Amounts in {code}</span>
    </>
  );
}

function OfJob({ view, job }: { view: EstimateView; job: string }) {
  const looked = useLookedLines(view.lines);
  return (
    <>
      <LookedLinesBar looked={looked}>
        <LinesLegend />
      </LookedLinesBar>
      <BudgetBesideCost view={view} job={job} looked={looked} inWindow />
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
  const estimate = useEstimateVersusActualQuery({ job: job ?? '', asOf }, { skip: !job });
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
      <Loaded of={estimate} what={`the budget of job ${job}`}>
        {(view) => <OfJob key={job} view={view} job={job} />}
      </Loaded>
    </div>
  );
}
