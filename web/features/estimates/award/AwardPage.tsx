import { useNavigate, useParams } from 'react-router';
import { useStanding } from '../../../ground/useStanding';
import { toast } from '../../../kit/toast';
import type { AwardGrouping } from '../../../../core/estimates/award';
import type { EstimateView } from '../../../../wire/estimates';
import type { QuotationSummary } from '../../../../wire/quotations';
import { useEstimateQuery, useQuotationListQuery } from '../../../ground/api/api';
import { useWithMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { faultOf } from '../../../ground/faults';
import { Field } from '../../../kit/Field';
import { Refused, Waiting } from '../../../kit/States';
import { AwardGroups } from './AwardGroups';
import { AwardSummary } from './AwardSummary';
import { Choice } from '../../../kit/choice/Choice';
import type { Option } from '../../../kit/choice/options';
import { useAwardForm, type AwardForm } from './useAwardForm';

const GROUPINGS: readonly Option<AwardGrouping>[] = [
  ['section', 'section'],
  ['line', 'estimate line'],
  ['own', 'group of my own'],
];
const SPREADS = [
  ['rata', 'pro rata to cost and markup'],
  ['own', 'by weights of my own'],
] as const;

/** The award: what was agreed, and how the estimate becomes a schedule of values and a budget. */
export function AwardPage() {
  const { number: job = '', estimate = '' } = useParams();
  const { data: view, error } = useStanding(
    useEstimateQuery({ job, estimate: Number(estimate) }, { refetchOnMountOrArgChange: true }),
  );
  const { data: offered } = useQuotationListQuery({ job });
  if (error) return <Refused message={faultOf(error).message} />;
  if (!view || !offered) return <Waiting what={`estimate ${estimate}`} />;
  if (view.refused.award !== null) return <p>{view.refused.award}.</p>;
  return <Award view={view} accepted={offered.find((it) => it.estimate === view.number && it.status === 'accepted')} />;
}

function Award({ view, accepted }: { view: EstimateView; accepted: QuotationSummary | undefined }) {
  const form = useAwardForm(view, accepted);
  const { groups, plan, priced, own, noWeight } = form;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-6 max-[1150px]:grid-cols-1">
      <div>
        <AgreedFields form={form} />
        <GroupingFields form={form} />
        <AwardGroups
          groups={groups}
          plan={plan}
          lines={view.lines}
          priced={priced.lines}
          weighed={own}
          onGroups={form.changeGroups}
        />
        {noWeight && (
          <p className="fault m-0 mt-1">Give at least one line a weight above 0; until then the spread is pro rata.</p>
        )}
        {form.facts.refused && <Refused message={form.facts.refused} />}
      </div>
      <aside aria-label="Resulting contract and budget">
        <AwardSummary totals={priced.totals} plan={plan} agreed={form.agreed} />
        <p className="note text-[12.5px]">
          Every budget line keeps its estimate line. The original budget is frozen from then on. What was typed as schedule and
          budget of the tender is replaced.
        </p>
        <AwardButton form={form} job={view.job} />
      </aside>
    </div>
  );
}

function AgreedFields({ form: { facts } }: { form: AwardForm }) {
  const { code } = useCurrency();
  return (
    <div className="mb-3 grid grid-cols-[150px_150px_minmax(0,1fr)] items-start gap-3">
      {facts.input('agreed', `Agreed price, ${code}`)}
      {facts.input('acceptedOn', 'Accepted on')}
      {facts.input('acceptance', 'Accepted by (letter, order, name)')}
    </div>
  );
}

function GroupingFields({ form }: { form: AwardForm }) {
  return (
    <div className="mb-2 flex items-end gap-6">
      <h2 className="grow">Schedule of values</h2>
      <Field label="One SOV line for each">
        <Choice value={form.by} className="w-[170px]" options={GROUPINGS} onChange={form.groupBy} />
      </Field>
      <Field label="Spread overhead, profit and difference">
        <Choice
          value={form.own ? 'own' : 'rata'}
          className="w-[220px]"
          options={SPREADS}
          onChange={(way) => form.spreadByOwn(way === 'own')}
        />
      </Field>
    </div>
  );
}

function AwardButton({ form, job }: { form: AwardForm; job: string }) {
  const { exact } = useCurrency();
  const withMonth = useWithMonth();
  const navigate = useNavigate();
  const award = form.award((agreed) => {
    toast(`Job ${job} is awarded at ${exact(agreed)}`);
    void navigate(withMonth(`/jobs/${encodeURIComponent(job)}/contract`));
  });
  return (
    <button type="button" className="button main" disabled={form.isLoading || form.noWeight} onClick={() => award()}>
      Award job {job}, {exact(form.agreed)}
    </button>
  );
}
