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
import { faultOf, type ShownFault } from '../../../ground/faults';
import { readDate } from '../../../kit/typed/readDate';
import { contentOf } from '../draft/useEstimate';

export type AwardForm = ReturnType<typeof useAwardForm>;

/** What is typed of an award, and the contract and budget it makes by the arithmetic of core. */
export function useAwardForm(view: EstimateView, accepted: QuotationSummary | undefined) {
  const { digits, read } = useCurrency();
  const { month, lastDay } = useAsOf();
  const priced = useMemo(() => priceEstimate({ ...contentOf(view), prices: new Map(view.prices) }, digits), [view, digits]);
  const [typed, setTyped] = useState({
    agreed: displayExact(priced.totals.price, digits),
    acceptedOn: displayDate(accepted?.answeredOn ?? lastDay),
    acceptance: accepted ? `Quotation ${accepted.number}, accepted by ${accepted.answeredBy}` : '',
  });
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const [send, { isLoading }] = useAwardJobMutation();
  const grouping = useGrouping(view);
  const { weighed, noWeight } = grouping;
  const agreed = read(typed.agreed);
  const day = readDate(typed.acceptedOn, month);
  const plan = useMemo(
    () =>
      planAward(
        view.lines,
        priced,
        noWeight ? weighed.map((it) => ({ ...it, weight: null })) : weighed,
        agreed ?? priced.totals.price,
      ),
    [view.lines, priced, weighed, noWeight, agreed],
  );
  const refuse = (message: string) => {
    setRefused({ message, faults: [] });
    return null;
  };
  return {
    ...grouping,
    ...{ priced, typed, agreed, day, plan, refused, isLoading },
    type: (part: Partial<typeof typed>) => setTyped((before) => ({ ...before, ...part })),
    /** Awards the job at the agreed price, and gives it back; null where it was refused, which the form then says. */
    award: async (): Promise<number | null> => {
      if (agreed === null) return refuse('Agreed price: expected an amount such as 125,000.00');
      if (!day) return refuse('Accepted on: enter a date, e.g. 30 Apr 2031');
      if (typed.acceptance.trim() === '') return refuse('Give what the client accepted by: a letter, an order, a name');
      const groups = weighed.map((it) => ({ ...it, members: [...it.members] }));
      try {
        const body = { acceptedOn: day, acceptance: typed.acceptance, agreed, groups };
        await send({ job: view.job, estimate: view.number, body }).unwrap();
        return agreed;
      } catch (error) {
        setRefused(faultOf(error));
        return null;
      }
    },
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
    ...{ by, own, groups, weighed, spreadByOwn },
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
