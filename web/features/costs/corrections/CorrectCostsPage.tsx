import { useEffect, useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { displayDate } from '../../../../core/calendar/displayDate';
import type { CorrectionInput, CorrectionPreview } from '../../../../wire/corrections';
import type { CostRow } from '../../../../wire/costs';
import { useCorrectCostsMutation, useCostPageQuery, usePreviewCorrectionMutation } from '../../../ground/api/api';
import { useAsOf, useKeepMonth } from '../../../ground/asOf';
import { useColumnKinds } from '../../../ground/columnKinds';
import { useCurrency } from '../../../ground/company';
import { faultOf, type ShownFault } from '../../../ground/faults';
import { layOutCosts } from '../../../ground/unpostedCosts';
import { Choice } from '../../../kit/choice/Choice';
import { Field } from '../../../kit/Field';
import { useCodecForm } from '../../../kit/form/useCodecForm';
import { PageHead } from '../../../kit/PageHead';
import { Empty, Refused, Waiting } from '../../../kit/States';
import { Table } from '../../../kit/table/Table';
import { day, oneOf, words } from '../../../kit/typed/codecs';
import { PostingPreview } from '../BatchPreview';
import { useMoveTarget } from './useMoveTarget';

/** Any day later than all: the entries are shown whatever the month. */
const EVER = '2199-12';

/** Reverses picked cost entries or moves them elsewhere, previewed before it is posted. */
export function CorrectCostsPage() {
  const [params] = useSearchParams();
  const ids = params.get('entries') ?? '';
  const query = { asOf: EVER, ids, limit: '500' };
  const { data, error, refetch } = useCostPageQuery(query, { skip: ids === '' });
  const moves = params.get('way') !== 'reverse';
  const title = moves ? 'Move cost' : 'Reverse cost';
  return (
    <div className="page">
      <PageHead title={title} />
      {error && <Refused message={faultOf(error).message} onRetry={refetch} />}
      {ids === '' || data?.rows.length === 0 ? (
        <Empty title="No entries are picked; pick them in the cost ledger" />
      ) : (
        !error && !data && <Waiting what="the entries" />
      )}
      {data && data.rows.length > 0 && <Correction key={`${title} ${ids}`} rows={data.rows} moves={moves} />}
    </div>
  );
}

const WHEN = [
  ['own', 'each entry on its own day'],
  ['one', 'all on one day'],
] as const;

function Correction({ rows, moves }: { rows: readonly CostRow[]; moves: boolean }) {
  const { entryDay, month } = useAsOf();
  const { exact } = useCurrency();
  const keep = useKeepMonth();
  const navigate = useNavigate();
  const target = useMoveTarget(rows);
  const fields = useMemo(
    () => ({ when: oneOf(['own', 'one']), on: day(month), reason: words('Enter a reason; it stands with the document') }),
    [month],
  );
  const form = useCodecForm(fields, { when: 'own', on: displayDate(entryDay), reason: '' });
  const input: CorrectionInput | null =
    moves && target.to === null
      ? null
      : {
          ...{ entries: rows.map((it) => it.id), to: moves ? target.to : null },
          ...{ on: form.text.when === 'one' ? form.valueOf('on') : null, reason: form.text.reason.trim() },
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
      void navigate(keep(again ? '/costs' : `/ledger/postings/${posted.postingId}`));
    }, faultOf);
  return (
    <form onSubmit={post(false)} noValidate>
      <PickedRows rows={rows} />
      {moves && <Target target={target} />}
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
      {!shown.preview && !shown.refused && moves && (
        <p className="note mt-4">Choose where the cost belongs; what the move does to budgets, jobs and ledger is shown here.</p>
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

function Target({ target }: { target: ReturnType<typeof useMoveTarget> }) {
  const { chosen, options, budget, set } = target;
  const choice = (name: keyof typeof chosen, label: string, width: string) => (
    <Field label={label} className={width}>
      <Choice value={chosen[name]} options={options[name]} onChange={(value) => set({ [name]: value })} />
    </Field>
  );
  return (
    <fieldset className="mt-3 flex flex-wrap items-start gap-3">
      <legend className="sr-only">Move to</legend>
      {choice('job', 'To job', 'w-[240px]')}
      {budget.length > 0 && (
        <Field label="SOV line and budget line" className="w-[260px]">
          <Choice
            value=""
            options={[['', 'Choose, or fill in beside'], ...budget.map((it, i) => [String(i), it.title] as const)]}
            onChange={(value) => {
              const line = budget[Number(value)];
              if (value !== '' && line) set({ section: line.section, costCode: line.costCode, costType: line.costType });
            }}
          />
        </Field>
      )}
      {choice('section', 'Section', 'w-[150px]')}
      {choice('costCode', 'Cost code', 'w-[200px]')}
      {choice('costType', 'Cost type', 'w-[130px]')}
    </fieldset>
  );
}

function PickedRows({ rows }: { rows: readonly CostRow[] }) {
  const kinds = useColumnKinds();
  const { exact } = useCurrency();
  const columns = useMemo(
    () => [
      kinds.day<CostRow>('posted', 'Date', (it) => it.postedOn),
      kinds.text<CostRow>('job', 'Job', (it) => it.job),
      kinds.text<CostRow>('section', 'Section', (it) => it.section),
      kinds.text<CostRow>('code', 'Code', (it) => it.costCode),
      kinds.text<CostRow>('type', 'Type', (it) => it.costType),
      kinds.text<CostRow>('reference', 'Reference', (it) => it.reference),
      kinds.text<CostRow>('party', 'Supplier / payee', (it) => it.party),
      kinds.text<CostRow>('description', 'Description', (it) => it.description),
      kinds.amount<CostRow>('amount', 'Amount', (it) => it.amount),
      kinds.link<CostRow>(
        'posting',
        'Document',
        (it) => String(it.postingId),
        (it) => `/ledger/postings/${it.postingId}`,
      ),
    ],
    [kinds],
  );
  return (
    <Table
      label="Entries picked"
      columns={columns}
      rows={rows}
      rowKey={(it) => String(it.id)}
      height={rows.length > 8 ? 260 : undefined}
      foot={{
        label: `${rows.length} ${rows.length === 1 ? 'entry' : 'entries'}`,
        cells: { amount: exact(rows.reduce((sum, it) => sum + it.amount, 0)) },
      }}
    />
  );
}
