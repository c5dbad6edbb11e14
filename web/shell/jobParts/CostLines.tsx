import { useState, type ReactNode } from 'react';
import { Link, Navigate, useParams, useSearchParams } from 'react-router';
import type { Part } from '../../../core/rights/parts';
import type { EstimateView } from '../../../wire/jobs';
import { TransfersPart } from '../../features/budget/TransfersPart';
import { JobForecast } from '../../features/forecasts/JobForecast';
import { JobHours } from '../../features/labour/HoursPages';
import { BudgetBesideCost, LinesLegend } from '../../features/reports/EstimateVsActual';
import { Quantities } from '../../features/reports/Quantities';
import { useEstimateVersusActualQuery } from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { CorrectSetupLink } from '../../ground/CorrectSetupLink';
import { LookedLinesBar } from '../../ground/costLines/LookedLinesBar';
import { useLookedLines, type LookedLines } from '../../ground/costLines/useLookedLines';
import { Loaded } from '../../ground/Loaded';
import { May, useMay } from '../../ground/person';
import { Downloads } from '../../ground/reports/ReportHead';
import { Empty } from '../../kit/States';
import { ViewSwitch } from '../../kit/ViewSwitch';

/** The views of a job's cost lines: what each is called, who may read it, and the report that takes it along. */
const VIEWS = {
  budget: { title: 'Budget', report: 'estimate-vs-actual' },
  forecast: { title: 'Forecast', report: 'estimate-vs-actual' },
  hours: { title: 'Hours', report: 'labour-progress' },
  quantities: { title: 'Quantities', report: 'quantities' },
} as const satisfies Record<string, { title: string; report: string }>;
type View = keyof typeof VIEWS;
const VIEW_NAMES = Object.keys(VIEWS) as View[];
const PARAM = 'view';

/** The cost lines of a job, in one order and under the same conditions in every view: budget, forecast, hours, quantities. */
export function CostLines() {
  const { number: job = '' } = useParams();
  const may = useMay();
  return may('report:estimate-vs-actual') ? <Looked key={job} job={job} /> : <Views job={job} estimate={null} looked={null} />;
}

function Looked({ job }: { job: string }) {
  const { asOf } = useAsOf();
  const estimate = useEstimateVersusActualQuery({ job, asOf });
  return (
    <Loaded of={estimate} what={`the cost lines of job ${job}`}>
      {(view) => <OfLines job={job} estimate={view} />}
    </Loaded>
  );
}

function OfLines({ job, estimate }: { job: string; estimate: EstimateView }) {
  return <Views job={job} estimate={estimate} looked={useLookedLines(estimate.lines)} />;
}

interface ViewsProps {
  job: string;
  /** Null where the owner has taken it from the role. */
  estimate: EstimateView | null;
  looked: LookedLines | null;
}

function Views({ job, estimate, looked }: ViewsProps) {
  const may = useMay();
  const [params, setParams] = useSearchParams();
  const views = VIEW_NAMES.filter((it) => may(`report:${VIEWS[it].report}` as Part));
  const asked = params.get(PARAM) ?? '';
  const view = views.find((it) => it === asked) ?? views[0];
  const [typed, setTyped] = useState(false);
  if (view === undefined) return <Empty title="Your role reads no view of the cost lines; the owner decides it in Roles" />;
  const show = (next: string) => {
    const after = new URLSearchParams(params);
    after.set(PARAM, next);
    setParams(after);
  };
  const titleOf = (it: View) => (it === 'forecast' && typed ? 'Forecast, not saved' : VIEWS[it].title);
  const switched = (
    <ViewSwitch label="View of the cost lines" views={views.map((it) => [it, titleOf(it)])} shown={view} onShow={show} />
  );
  const beside = (
    <>
      <Beside job={job} view={view} />
      <Downloads name={VIEWS[view].report} job={job} />
    </>
  );
  return (
    <>
      {looked ? (
        <LookedLinesBar
          looked={looked}
          look={{ ...looked.look, show: view }}
          onLook={(next) => {
            looked.setLook(next);
            if (next.show !== undefined && next.show !== view) show(next.show);
          }}
          before={switched}
        >
          {beside}
        </LookedLinesBar>
      ) : (
        <div className="mb-2 flex items-center justify-between gap-3">
          {switched}
          <span className="inline-flex items-center gap-3">{beside}</span>
        </div>
      )}
      {view === 'budget' && estimate && looked && (
        <>
          <div className="mb-1 flex items-baseline gap-4">
            <h2 className="mr-auto">Estimate versus actual</h2>
            <LinesLegend />
          </div>
          <BudgetBesideCost view={estimate} job={job} looked={looked} />
          <TransfersPart />
        </>
      )}
      <Kept shown={view === 'forecast'}>
        <JobForecast job={job} looked={looked} onChanged={setTyped} />
      </Kept>
      {view === 'hours' && <JobHours job={job} looked={looked} forecastTyped={typed} />}
      {view === 'quantities' && <Quantities job={job} looked={looked} />}
    </>
  );
}

/** What a view leads to besides. */
function Beside({ job, view }: { job: string; view: View }) {
  const withMonth = useWithMonth();
  if (view === 'budget') return <CorrectSetupLink job={job} />;
  if (view !== 'hours') return null;
  return (
    <May do="read-books">
      <Link to={withMonth(`/jobs/${encodeURIComponent(job)}/wages`)}>Statement of wages</Link>
    </May>
  );
}

/** Made when it is first shown, and kept while another view is: what is typed in it stays. */
function Kept({ shown, children }: { shown: boolean; children: ReactNode }) {
  const [made, setMade] = useState(shown);
  if (shown && !made) setMade(true);
  return made && <div hidden={!shown}>{children}</div>;
}

/** A view by an address of its own. */
function leadTo(view: View) {
  return function LeadToView() {
    const { number = '' } = useParams();
    const [params] = useSearchParams();
    const to = new URLSearchParams(params);
    to.set(PARAM, view);
    return <Navigate to={`/jobs/${encodeURIComponent(number)}/budget?${String(to)}`} replace />;
  };
}
export const ToForecast = leadTo('forecast');
export const ToHours = leadTo('hours');
export const ToQuantities = leadTo('quantities');
