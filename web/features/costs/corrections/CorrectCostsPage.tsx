import { useEffect, useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { toast } from '../../../kit/toast';
import { displayDate } from '../../../../core/calendar/displayDate';
import { MOST_CORRECTED, type CorrectionInput, type CorrectionPreview } from '../../../../wire/corrections';
import type { CostRow } from '../../../../wire/costs';
import { useCorrectCostsMutation, useCostPageQuery, usePreviewCorrectionMutation } from '../../../ground/api/api';
import { useAsOf, useWithMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { faultOf, type ShownFault } from '../../../ground/faults';
import { layOutCosts } from '../../../ground/unpostedCosts';
import { useCodecForm } from '../../../kit/form/useCodecForm';
import { PageHead } from '../../../kit/PageHead';
import { Empty, Refused, Waiting } from '../../../kit/States';
import { day, oneOf, words } from '../../../kit/typed/codecs';
import { PostingPreview } from '../../../ground/PostingPreview';
import { askedOf } from '../ledgerParams';
import { MoveTarget } from './MoveTarget';
import { PickedRows } from './PickedRows';
import { useMoveTarget } from './useMoveTarget';
import { isFree, usePicks } from './usePicks';

/** Any day later than all: entries named by their ids are shown whatever the month. */
const EVER = '2199-12';

/**
 * Reverses cost entries or moves them elsewhere, previewed before it is posted: those picked in the ledger, or those that
 * stand behind a figure, all of which are picked at first.
 */
export function CorrectCostsPage() {
  const { asOf } = useAsOf();
  const [params] = useSearchParams();
  const ids = params.get('entries') ?? '';
  const query = useMemo(() => (ids === '' ? askedOf(params, asOf) : { asOf: EVER, ids }), [ids, params, asOf]);
  const nothing = ids === '' && Object.keys(query).length === 1;
  const { data, error, refetch } = useCostPageQuery({ ...query, limit: String(MOST_CORRECTED) }, { skip: nothing });
  const moves = params.get('way') !== 'reverse';
  const title = moves ? 'Move cost' : 'Reverse cost';
  const free = useMemo(() => data?.rows.filter(isFree) ?? [], [data]);
  return (
    <div className="page">
      <PageHead title={title} />
      {error && <Refused message={faultOf(error).message} onRetry={refetch} />}
      {nothing || (data && free.length === 0) ? (
        <Empty title="No entries are picked; pick them in the cost ledger" />
      ) : (
        !error && !data && <Waiting what="the entries" />
      )}
      {data?.next && ids === '' && (
        <p className="note">These are the first {MOST_CORRECTED} entries; correct the others after them.</p>
      )}
      {free.length > 0 && <Correction key={`${title} ${JSON.stringify(query)}`} shown={free} moves={moves} />}
    </div>
  );
}

const WHEN = [
  ['own', 'each entry on its own day'],
  ['one', 'all on one day'],
] as const;

function Correction({ shown: all, moves }: { shown: readonly CostRow[]; moves: boolean }) {
  const picks = usePicks(all);
  const rows = useMemo(() => all.filter((it) => picks.has(it.id)), [all, picks]);
  const { entryDay, month } = useAsOf();
  const { exact } = useCurrency();
  const withMonth = useWithMonth();
  const navigate = useNavigate();
  const target = useMoveTarget(rows);
  const fields = useMemo(
    () => ({ when: oneOf(['own', 'one']), on: day(month), reason: words('Enter a reason; it stands with the document') }),
    [month],
  );
  const form = useCodecForm(fields, { when: 'own', on: displayDate(entryDay), reason: '' });
  const input: CorrectionInput | null =
    rows.length === 0 || (moves && target.to === null)
      ? null
      : {
          entries: rows.map((it) => it.id),
          to: moves ? target.to : null,
          on: form.text.when === 'one' ? form.valueOf('on') : null,
          reason: form.text.reason.trim(),
        };
  const shown = usePreview(input);
  const [correct, { isLoading }] = useCorrectCostsMutation();
  const count = `${rows.length} ${rows.length === 1 ? 'entry' : 'entries'}, ${exact(rows.reduce((sum, it) => sum + it.amount, 0))}`;
  const post = (again: boolean) =>
    form.submit(async ({ when, on, reason }) => {
      if (!input) return;
      const posted = await correct({ body: { ...input, on: when === 'one' ? on : null, reason } }).unwrap();
      toast(`${moves ? 'Moved' : 'Reversed'} ${count} (document ${posted.postingId})`);
      if (again) layOutCosts(rows, exact);
      void navigate(withMonth(again ? '/costs' : `/ledger/postings/${posted.postingId}`));
    }, faultOf);
  return (
    <form onSubmit={post(false)} noValidate>
      <PickedRows all={all} rows={rows} picks={picks} />
      {moves && <MoveTarget target={target} />}
      <div className="mt-3 flex flex-wrap items-start gap-3">
        {form.choice('when', moves ? 'Moved' : 'Reversed', WHEN, { className: 'w-[220px]' })}
        {form.text.when === 'one' && form.input('on', 'On the day', { className: 'w-[140px]' })}
        {form.input('reason', 'Reason', { className: 'w-[360px]', autoFocus: !moves })}
        <button className="button main mt-[20px]" disabled={isLoading || input === null || shown.refused !== null}>
          {moves ? 'Move' : 'Reverse'} {count}
        </button>
        {!moves && (
          <button type="button" className="button mt-[20px]" disabled={isLoading} onClick={() => post(true)()}>
            Reverse and enter again …
          </button>
        )}
      </div>
      {(form.refused ?? shown.refused) && <Refused message={form.refused ?? shown.refused ?? ''} />}
      {shown.preview && <PostingPreview preview={shown.preview} above={<OrdersLeft orders={shown.preview.ordersLeft} />} />}
      {!shown.preview && !shown.refused && (moves || rows.length === 0) && (
        <p className="note mt-4">
          {rows.length === 0
            ? 'Tick the entries it is about.'
            : 'Choose where the cost belongs; what the move does to budgets, jobs and ledger is shown here.'}
        </p>
      )}
    </form>
  );
}

/** What a correction would do, asked for whenever it changes. */
function usePreview(input: CorrectionInput | null) {
  const { lastDay } = useAsOf();
  const [ask] = usePreviewCorrectionMutation();
  const [shown, setShown] = useState<{ of: string; preview: CorrectionPreview | null; refused: ShownFault | null }>();
  const key = input && JSON.stringify({ ...input, reason: '', asOf: lastDay });
  useEffect(() => {
    if (key === null) return;
    let current = true;
    const take = (preview: CorrectionPreview | null, refused: ShownFault | null) =>
      current && setShown({ of: key, preview, refused });
    void ask({ body: JSON.parse(key) as CorrectionInput & { asOf: string } })
      .unwrap()
      .then(
        (preview) => take(preview, null),
        (error: unknown) => take(null, faultOf(error)),
      );
    return () => void (current = false);
  }, [key, ask]);
  return {
    preview: key === null ? null : (shown?.preview ?? null),
    refused: (shown?.of === key && shown?.refused?.message) || null,
  };
}

function OrdersLeft({ orders }: { orders: readonly string[] }) {
  if (orders.length === 0) return null;
  return (
    <p role="alert" className="mb-3 border-l-4 border-[var(--over)] bg-[var(--band)] px-3 py-2">
      <b>Is this right?</b> On another job the cost no longer counts against {orders.join(', ')}.
    </p>
  );
}
