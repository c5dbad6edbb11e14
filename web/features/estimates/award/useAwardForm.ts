import { useMemo, useState } from 'react';
import { displayDate } from '../../../../core/calendar/displayDate';
import { groupsBy, planAward, type AwardGroup, type AwardGrouping } from '../../../../core/estimates/award';
import { priceEstimate } from '../../../../core/estimates/estimate';
import { displayExact } from '../../../../core/money/display';
import type { EstimateView } from '../../../../wire/estimates';
import type { QuotationSummary } from '../../../../wire/quotations';
import { useAwardJobMutation } from '../../../ground/api/api';
import { useAsOf } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { faultOf } from '../../../ground/faults';
import { useCodecForm } from '../../../kit/form/useCodecForm';
import { amount, day, words } from '../../../kit/typed/codecs';
import { contentOf } from '../draft/useEstimate';

export type AwardForm = ReturnType<typeof useAwardForm>;

/** What is typed of an award, and the contract and budget it makes by the arithmetic of core. */
export function useAwardForm(view: EstimateView, accepted: QuotationSummary | undefined) {
  const { digits } = useCurrency();
  const { month, entryDay } = useAsOf();
  const priced = useMemo(() => priceEstimate({ ...contentOf(view), prices: new Map(view.prices) }, digits), [view, digits]);
  const fields = useMemo(
    () => ({
      agreed: amount(digits),
      acceptedOn: day(month),
      acceptance: words('Give what the client accepted by: a letter, an order, a name'),
    }),
    [digits, month],
  );
  const facts = useCodecForm(fields, {
    agreed: displayExact(priced.totals.price, digits),
    acceptedOn: displayDate(accepted?.answeredOn ?? entryDay),
    acceptance: accepted ? `Quotation ${accepted.number}, accepted by ${accepted.answeredBy}` : '',
  });
  const [send, { isLoading }] = useAwardJobMutation();
  const grouping = useGrouping(view);
  const { weighed, noWeight } = grouping;
  const agreed = facts.valueOf('agreed') ?? priced.totals.price;
  const plan = useMemo(
    () => planAward(view.lines, priced, noWeight ? weighed.map((it) => ({ ...it, weight: null })) : weighed, agreed),
    [view.lines, priced, weighed, noWeight, agreed],
  );
  return {
    ...grouping,
    priced,
    facts,
    agreed,
    plan,
    isLoading,
    /** Awards the job at the agreed price, and tells it; what is refused stands on the form. */
    award: (onAwarded: (agreed: number) => void) =>
      facts.submit(async (values) => {
        const groups = weighed.map((it) => ({ ...it, members: [...it.members] }));
        await send({ job: view.job, estimate: view.number, body: { ...values, groups } }).unwrap();
        onAwarded(values.agreed);
      }, faultOf),
  };
}

/** Which estimate lines make one SOV line, and what the spread goes by. */
function useGrouping(view: EstimateView) {
  const [by, setBy] = useState<AwardGrouping>(view.lines.some((it) => it.section) ? 'section' : 'line');
  const [own, spreadByOwn] = useState(false);
  const [groups, setGroups] = useState<AwardGroup[]>(() => groupsBy(by === 'own' ? 'line' : by, view.lines));
  const weighed = useMemo(
    () => groups.filter((it) => it.members.length > 0).map((it) => ({ ...it, weight: own ? (it.weight ?? 0) : null })),
    [groups, own],
  );
  return {
    by,
    own,
    groups,
    weighed,
    spreadByOwn,
    noWeight: own && weighed.every((it) => it.weight === 0),
    groupBy: (next: AwardGrouping) => {
      setBy(next);
      if (next !== 'own') setGroups(groupsBy(next, view.lines));
    },
    changeGroups: (next: AwardGroup[]) => {
      setGroups(next);
      if (next.some((it, i) => it.members !== groups[i]?.members)) setBy('own');
    },
  };
}
