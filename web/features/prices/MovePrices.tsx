import { present } from '../../../core/errors/known';
import { useMovePricesMutation, usePreviewPriceMoveMutation, useSessionQuery } from '../../ground/api/api';
import { useState } from 'react';
import { toast } from '../../kit/toast';
import { COST_TYPES, type CostType } from '../../../core/costs/costType';
import { formatPercentShortest, parseMarkup } from '../../../core/money/rate';
import { MINUS } from '../../../core/money/display';
import type { PriceMoveInput, PriceMoves } from '../../../wire/prices';
import type { Lists } from '../../../wire/company';
import { PriceChanges } from '../../ground/prices/PriceChanges';
import { faultOf } from '../../ground/faults';
import { Field } from '../../kit/Field';
import { Refused } from '../../kit/States';
import { Choice } from '../../kit/choice/Choice';

/** Moves many prices by a percentage, after showing what it does to items and build-ups. */
export function MovePrices({ lists, onDone }: { lists: Lists; onDone: () => void }) {
  const { data: session } = useSessionQuery();
  const [form, setForm] = useState({ by: '', vendor: '', costType: '', costCode: '', reason: '' });
  const [shown, setShown] = useState<{ of: PriceMoveInput; moves: PriceMoves } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [preview] = usePreviewPriceMoveMutation();
  const [move, { isLoading }] = useMovePricesMutation();
  const set = (key: keyof typeof form) => (event: { target: { value: string } }) => {
    setForm({ ...form, [key]: event.target.value });
    setShown(null);
  };
  const by = parseMarkup(
    form.by
      .trim()
      .replaceAll(MINUS, '-')
      .replace(/^\+|\s*%$/g, ''),
  );
  const show = async (event: React.FormEvent) => {
    event.preventDefault();
    if (!by.ok || by.value === 0) return setFault('Expected a percentage such as 4.5 or -2');
    const of: PriceMoveInput = {
      by: by.value,
      vendor: form.vendor,
      costType: (form.costType || null) as CostType | null,
      costCode: form.costCode,
      on: present(session).today,
      reason: form.reason,
    };
    try {
      setShown({ of, moves: await preview({ body: of }).unwrap() });
      setFault(null);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  const make = async () => {
    if (!shown) return;
    try {
      const { count } = await move({ body: { ...shown.of, seen: shown.moves.seen } }).unwrap();
      toast(`${count} ${count === 1 ? 'price' : 'prices'} moved by ${formatPercentShortest(shown.of.by)} %`);
      onDone();
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <section aria-label="Adjust prices" className="sheet mb-3 px-3 py-3">
      <form className="flex flex-wrap items-end gap-3" onSubmit={(event) => void show(event)}>
        <WhichPrices lists={lists} form={form} set={set} />
        <button className="button">Show what moves</button>
      </form>
      {fault && <Refused message={fault} />}
      {shown && <Preview {...shown} busy={isLoading} onMove={() => void make()} />}
    </section>
  );
}

const ANY = ['', 'any'] as const;

type MoveForm = Record<'by' | 'vendor' | 'costType' | 'costCode' | 'reason', string>;

/** Which prices move, and by how much. */
function WhichPrices({
  lists,
  form,
  set,
}: {
  lists: Lists;
  form: MoveForm;
  set: (key: keyof MoveForm) => (event: { target: { value: string } }) => void;
}) {
  const put = (key: keyof MoveForm) => (value: string) => set(key)({ target: { value } });
  return (
    <>
      <Field label="By %" className="w-[80px]">
        <input value={form.by} onChange={set('by')} autoFocus />
      </Field>
      <Field label="Of vendor" className="w-[170px]">
        <Choice
          value={form.vendor}
          options={[ANY, ...lists.vendors.map((it) => [it.code, it.name] as const)]}
          onChange={put('vendor')}
        />
      </Field>
      <Field label="Of type" className="w-[110px]">
        <Choice value={form.costType} options={[ANY, ...COST_TYPES]} onChange={put('costType')} />
      </Field>
      <Field label="Of cost code" className="w-[150px]">
        <Choice
          value={form.costCode}
          options={[ANY, ...lists.costCodes.map((it) => [it.code, `${it.code} ${it.description}`] as const)]}
          onChange={put('costCode')}
        />
      </Field>
      <Field label="Reason, for the history" className="grow">
        <input value={form.reason} onChange={set('reason')} />
      </Field>
    </>
  );
}

/** What the move does to items and build-ups, before it is made. */
function Preview({ of, moves, busy, onMove }: { of: PriceMoveInput; moves: PriceMoves; busy: boolean; onMove: () => void }) {
  const count = moves.items.length;
  return (
    <>
      <div className="mt-3 grid grid-cols-2 gap-6">
        <PriceChanges title="Prices that move" rows={moves.items} />
        <PriceChanges title="Build-ups that follow, cost of one unit" rows={moves.buildUps} />
      </div>
      <p className="mb-0 mt-3 flex items-center gap-3">
        <button type="button" className="button main" disabled={count === 0 || busy} onClick={onMove}>
          Adjust {count} {count === 1 ? 'price' : 'prices'} by {formatPercentShortest(of.by).replace('-', MINUS)} %
        </button>
        <span className="note">Estimates keep the prices they have until they are repriced.</span>
      </p>
    </>
  );
}
