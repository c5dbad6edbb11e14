import { useAwardJobMutation, useEstimateQuery, useQuotationListQuery } from '../../../ground/api/api';
import { useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { displayDate } from '../../../../core/calendar/displayDate';
import { COST_TYPES } from '../../../../core/costs/costType';
import { groupsBy, planAward, type AwardGroup, type AwardGrouping } from '../../../../core/estimates/award';
import { priceEstimate } from '../../../../core/estimates/estimate';
import { displayExact } from '../../../../core/money/display';
import type { EstimateView } from '../../../../wire/estimates';
import type { QuotationSummary } from '../../../../wire/quotations';
import { useAsOf, useKeepMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { faultOf, type ShownFault } from '../../../ground/faults';
import { Field } from '../../../kit/Field';
import { readDate } from '../../../kit/typed/readDate';
import { Refused, Waiting } from '../../../kit/States';
import { AwardGroups } from './AwardGroups';
import { contentOf } from '../draft/useEstimate';

/** The award: what was agreed, and how the estimate becomes a schedule of values and a budget. */
export function AwardPage() {
  const { number: job = '', estimate = '' } = useParams();
  const { data: view, error } = useEstimateQuery({ job, estimate: Number(estimate) }, { refetchOnMountOrArgChange: true });
  const { data: offered } = useQuotationListQuery({ job });
  if (error) return <Refused message={faultOf(error).message} />;
  if (!view || !offered) return <Waiting what={`estimate ${estimate}`} />;
  if (view.jobStatus !== 'tender') return <p>Job {job} is awarded. Its contract changes by change orders from now on.</p>;
  if (view.lines.length === 0) return <p>Estimate {estimate} has no lines yet: there is nothing to award.</p>;
  return <Award view={view} accepted={offered.find((it) => it.estimate === view.number && it.status === 'accepted')} />;
}

function Award({ view, accepted }: { view: EstimateView; accepted: QuotationSummary | undefined }) {
  const { digits, exact, show, code, read } = useCurrency();
  const { month, lastDay } = useAsOf();
  const keep = useKeepMonth();
  const navigate = useNavigate();
  const priced = useMemo(() => priceEstimate({ ...contentOf(view), prices: new Map(view.prices) }, digits), [view, digits]);
  const quoted = priced.totals.price;
  const [agreedText, setAgreedText] = useState(displayExact(quoted, digits));
  const [acceptedOn, setAcceptedOn] = useState(displayDate(accepted?.answeredOn ?? lastDay));
  const [acceptance, setAcceptance] = useState(
    accepted ? `Quotation ${accepted.number}, accepted by ${accepted.answeredBy}` : '',
  );
  const [by, setBy] = useState<AwardGrouping>(view.lines.some((it) => it.section) ? 'section' : 'line');
  const [own, setOwn] = useState(false);
  const [groups, setGroups] = useState<AwardGroup[]>(() => groupsBy(by === 'own' ? 'line' : by, view.lines));
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const [award, { isLoading }] = useAwardJobMutation();
  const agreed = read(agreedText);
  const day = readDate(acceptedOn, month);
  const filled = useMemo(() => groups.filter((it) => it.members.length > 0), [groups]);
  const weighed = useMemo(() => filled.map((it) => ({ ...it, weight: own ? (it.weight ?? 0) : null })), [filled, own]);
  const noWeight = own && weighed.every((it) => it.weight === 0);
  const plan = useMemo(
    () => planAward(view.lines, priced, noWeight ? filled.map((it) => ({ ...it, weight: null })) : weighed, agreed ?? quoted),
    [view.lines, priced, weighed, filled, noWeight, agreed, quoted],
  );
  const group = (next: AwardGrouping) => {
    setBy(next);
    if (next !== 'own') setGroups(groupsBy(next, view.lines));
  };
  const make = async () => {
    if (agreed === null) return setRefused({ message: 'Agreed price: expected an amount such as 125,000.00', faults: [] });
    if (!day) return setRefused({ message: 'Accepted on: enter a date, e.g. 30 Apr 2031', faults: [] });
    if (acceptance.trim() === '')
      return setRefused({ message: 'Give what the client accepted by: a letter, an order, a name', faults: [] });
    try {
      await award({
        job: view.job,
        estimate: view.number,
        body: {
          acceptedOn: day,
          acceptance,
          agreed,
          groups: weighed.map((it) => ({ ...it, members: [...it.members] })),
        },
      }).unwrap();
      toast(`Job ${view.job} is awarded at ${exact(agreed)}`);
      void navigate(keep(`/jobs/${encodeURIComponent(view.job)}/contract`));
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  const budget = (type: string) => plan.budget.filter((it) => it.costType === type).reduce((sum, it) => sum + it.amount, 0);
  const difference = (agreed ?? quoted) - quoted;
  return (
    <div className="grid gap-6" style={{ gridTemplateColumns: 'minmax(0, 1fr) 300px' }}>
      <div>
        <div className="mb-3 flex flex-wrap items-end gap-3">
          <Field label={`Agreed price, ${code}`} fault={agreed === null ? 'Expected an amount' : undefined}>
            <input
              value={agreedText}
              style={{ width: 140, textAlign: 'right', fontWeight: 600 }}
              onChange={(event) => setAgreedText(event.target.value)}
              onBlur={() => agreed !== null && setAgreedText(displayExact(agreed, digits))}
            />
          </Field>
          <Field label="Accepted on" fault={day ? undefined : 'Expected a day'}>
            <input value={acceptedOn} style={{ width: 120 }} onChange={(event) => setAcceptedOn(event.target.value)} />
          </Field>
          <Field label="Accepted by (letter, order, name)" className="grow">
            <input value={acceptance} onChange={(event) => setAcceptance(event.target.value)} />
          </Field>
        </div>
        <div className="mb-2 flex items-end gap-6">
          <h2 className="grow">Schedule of values</h2>
          <Field label="One SOV line for each">
            <select value={by} onChange={(event) => group(event.target.value as AwardGrouping)} style={{ width: 170 }}>
              <option value="section">section</option>
              <option value="line">estimate line</option>
              <option value="own">group of my own</option>
            </select>
          </Field>
          <Field label="Spread overhead, profit and difference">
            <select
              value={own ? 'own' : 'rata'}
              onChange={(event) => setOwn(event.target.value === 'own')}
              style={{ width: 220 }}
            >
              <option value="rata">pro rata to cost and markup</option>
              <option value="own">by weights of my own</option>
            </select>
          </Field>
        </div>
        <AwardGroups
          groups={groups}
          plan={plan}
          lines={view.lines}
          priced={priced.lines}
          weighed={own}
          onGroups={(next) => {
            setGroups(next);
            if (next.some((it, i) => it.members !== groups[i]?.members)) setBy('own');
          }}
        />
        {noWeight && (
          <p className="fault m-0 mt-1">Give at least one line a weight above 0; until then the spread is pro rata.</p>
        )}
        {refused && (
          <>
            <Refused message={refused.message} />
            {refused.faults.length > 1 && (
              <ul className="m-0 list-none p-0 text-[13px]">
                {refused.faults.map((it) => (
                  <li key={it.field + it.message}>{it.message}</li>
                ))}
              </ul>
            )}
          </>
        )}
      </div>
      <aside aria-label="Resulting contract and budget">
        <table className="ledger static-foot mb-4">
          <thead>
            <tr>
              <th>Contract</th>
              <th className="num">{code}</th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <td>Cost and markup</td>
              <td className="num">{show(priced.totals.net)}</td>
            </tr>
            <tr>
              <td>Overhead, profit, rounding</td>
              <td className="num">{show(quoted - priced.totals.net)}</td>
            </tr>
            <tr>
              <td>Quoted</td>
              <td className="num">{show(quoted)}</td>
            </tr>
            <tr>
              <td>Agreed above or below quote</td>
              <td className="num" style={{ color: difference < 0 ? 'var(--loss)' : undefined }}>
                {show(difference)}
              </td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <td>Contract sum</td>
              <td className="num">{exact(agreed ?? quoted)}</td>
            </tr>
          </tfoot>
        </table>
        <table className="ledger static-foot">
          <thead>
            <tr>
              <th>Budget, {plan.budget.length} lines</th>
              <th className="num">{code}</th>
            </tr>
          </thead>
          <tbody>
            {COST_TYPES.filter((type) => budget(type) !== 0).map((type) => (
              <tr key={type}>
                <td>{type}</td>
                <td className="num">{show(budget(type))}</td>
              </tr>
            ))}
            <tr>
              <td>Expected profit</td>
              <td className="num">{show((agreed ?? quoted) - priced.totals.cost)}</td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <td>Budget</td>
              <td className="num">{show(priced.totals.cost)}</td>
            </tr>
          </tfoot>
        </table>
        <p className="note text-[12.5px]">
          Every budget line keeps its estimate line. The original budget is frozen from then on. What was typed as schedule and
          budget of the tender is replaced.
        </p>
        <button type="button" className="button main" disabled={isLoading || noWeight} onClick={() => void make()}>
          Award job {view.job}, {exact(agreed ?? quoted)}
        </button>
      </aside>
    </div>
  );
}
