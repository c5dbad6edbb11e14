import { present } from '../../../core/errors/known';
import { useMovePricesMutation, usePreviewPriceMoveMutation, useSessionQuery } from '../../ground/api/api';
import { useState } from 'react';
import { toast } from 'sonner';
import { COST_TYPES, type CostType } from '../../../core/costs/costType';
import { formatPercentShortest, parseMarkup } from '../../../core/money/rate';
import { MINUS } from '../../../core/money/display';
import type { PriceMoveInput, PriceMoves } from '../../../wire/prices';
import type { Lists } from '../../../wire/company';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Field } from '../../kit/Field';
import { showUnitCost } from '../../kit/typed/readCells';
import { Refused } from '../../kit/States';

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
    <section aria-label="Move prices" className="sheet mb-3 px-3 py-3">
      <form className="flex flex-wrap items-end gap-3" onSubmit={(event) => void show(event)}>
        <Field label="By %">
          <input value={form.by} onChange={set('by')} style={{ width: 80 }} autoFocus />
        </Field>
        <Field label="Of vendor">
          <select value={form.vendor} onChange={set('vendor')} style={{ width: 170 }}>
            <option value="">any</option>
            {lists.vendors.map((it) => (
              <option key={it.code} value={it.code}>
                {it.name}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Of type">
          <select value={form.costType} onChange={set('costType')} style={{ width: 110 }}>
            <option value="">any</option>
            {COST_TYPES.map((it) => (
              <option key={it}>{it}</option>
            ))}
          </select>
        </Field>
        <Field label="Of cost code">
          <select value={form.costCode} onChange={set('costCode')} style={{ width: 150 }}>
            <option value="">any</option>
            {lists.costCodes.map((it) => (
              <option key={it.code} value={it.code}>
                {it.code} {it.description}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Reason, for the history" className="grow">
          <input value={form.reason} onChange={set('reason')} />
        </Field>
        <button className="button">Show what moves</button>
      </form>
      {fault && <Refused message={fault} />}
      {shown && (
        <>
          <div className="mt-3 grid gap-6" style={{ gridTemplateColumns: '1fr 1fr' }}>
            <Moves title="Prices that move" rows={shown.moves.items} />
            <Moves title="Build-ups that follow, cost of one unit" rows={shown.moves.buildUps} />
          </div>
          <p className="mb-0 mt-3 flex items-center gap-3">
            <button
              type="button"
              className="button main"
              disabled={shown.moves.items.length === 0 || isLoading}
              onClick={() => void make()}
            >
              Adjust {shown.moves.items.length} {shown.moves.items.length === 1 ? 'price' : 'prices'} by{' '}
              {formatPercentShortest(shown.of.by).replace('-', MINUS)} %
            </button>
            <span className="note">Estimates keep the prices they have until they are repriced.</span>
          </p>
        </>
      )}
    </section>
  );
}

function Moves({ title, rows }: { title: string; rows: PriceMoves['items'] }) {
  const { digits } = useCurrency();
  return (
    <div>
      <h3>{title}</h3>
      {rows.length === 0 ? (
        <p className="note m-0">None.</p>
      ) : (
        <div className="scroll" style={{ maxHeight: 190 }} tabIndex={0} role="region" aria-label={title}>
          <table className="ledger">
            <tbody>
              {rows.map((it) => (
                <tr key={it.code}>
                  <td>{it.code}</td>
                  <td className="truncate" style={{ maxWidth: 160 }}>
                    {it.description}
                  </td>
                  <td className="num note">{showUnitCost(it.before, digits)}</td>
                  <td className="num">{showUnitCost(it.after, digits)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}
