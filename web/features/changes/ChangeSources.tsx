import { Popover } from 'radix-ui';
import { useMemo, useState } from 'react';
import { displayExact } from '../../../core/money/display';
import { formatQuantity, parseMarkup, parseNeeded, rateOf } from '../../../core/money/rate';
import { itemShare, PriceBook } from '../../../core/prices/buildUp';
import type { EstimateView } from '../../../wire/jobs';
import type { PriceBookView } from '../../../wire/prices';
import { useCurrency } from '../../ground/company';
import { Field } from '../../kit/Field';
import type { GridRow } from '../../kit/grid/gridTypes';
import { pricedRows } from './changeForm';
import { withoutThousands } from '../../kit/typed/withoutThousands';

type OnRows = (rows: { price?: GridRow[]; cost: GridRow[] }) => void;
const CONTENT = 'z-50 border p-4 shadow-xl [background:var(--sheet)] [border-color:var(--rule)]';

/** Takes so much of a build-up or a price item into the cost side, and its price at a markup into the price side. */
export function FromPriceBook({ book, sections, onRows }: { book: PriceBookView; sections: readonly string[]; onRows: OnRows }) {
  const { digits } = useCurrency();
  const [form, setForm] = useState({ of: '', quantity: '', markup: '', section: sections[0] ?? '', line: '' });
  const [fault, setFault] = useState('');
  const prices = useMemo(() => new PriceBook(book.items, book.buildUps), [book]);
  const set = (key: keyof typeof form) => (event: { target: { value: string } }) =>
    setForm({ ...form, [key]: event.target.value });
  const take = (event: React.FormEvent) => {
    event.preventDefault();
    const [quantity, markup] = [parseNeeded(withoutThousands(form.quantity)), parseMarkup(form.markup.trim() || '0')];
    const buildUp = prices.buildUps.get(form.of);
    const item = prices.items.get(form.of);
    const of = buildUp ?? item;
    if (!of) return setFault('Expected a build-up or a price item of the price list');
    if (!quantity.ok || !markup.ok) return setFault('Enter a quantity such as 12.5 and a markup in %');
    const shares = 'unitCost' in of ? [itemShare(of)] : prices.unitShares(form.of);
    const { description, unit } = of;
    const rows = pricedRows(
      { description, unit, section: form.section, sovLine: form.line },
      quantity.value,
      shares,
      markup.value,
      digits,
    );
    onRows({
      cost: rows.cost,
      price:
        form.line.trim() === ''
          ? []
          : [
              {
                line: form.line.trim(),
                section: form.section,
                description,
                quantity: formatQuantity(quantity.value),
                unit,
                amount: displayExact(rows.price, digits),
              },
            ],
    });
    setFault('');
    setForm({ ...form, of: '', quantity: '' });
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="button">Take from the price list …</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={4} className={`${CONTENT} w-[420px]`}>
          <form className="grid grid-cols-2 gap-3" onSubmit={take}>
            <Field label="Build-up or item" className="col-span-2">
              <input value={form.of} onChange={set('of')} list="of-the-price-book" />
            </Field>
            <datalist id="of-the-price-book">
              {[...book.buildUps, ...book.items].map((it) => (
                <option key={it.code} value={it.code}>
                  {it.description}
                </option>
              ))}
            </datalist>
            <Field label="Quantity">
              <input value={form.quantity} onChange={set('quantity')} style={{ textAlign: 'right' }} />
            </Field>
            <Field label="Markup for the price, %">
              <input value={form.markup} onChange={set('markup')} style={{ textAlign: 'right' }} />
            </Field>
            <Field label="Section">
              <input value={form.section} onChange={set('section')} />
            </Field>
            <Field label="SOV line of the price" hint="Empty: cost only">
              <input value={form.line} onChange={set('line')} />
            </Field>
            {fault && (
              <p role="alert" className="fault col-span-2 m-0">
                {fault}
              </p>
            )}
            <button className="button main justify-self-start">Add</button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Takes cost already spent into the cost side: what a line cost beyond its budget, or all of it where it has none. */
export function FromCost({ spent, onRows }: { spent: EstimateView; onRows: OnRows }) {
  const { digits, show } = useCurrency();
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const [markup, setMarkup] = useState('');
  const [line, setLine] = useState('');
  const beyond = spent.lines
    .map((it) => ({ ...it, over: it.actual - it.revised, hoursOver: Math.max(0, it.hoursActual - it.hoursBudgeted) }))
    .filter((it) => it.over > 0);
  const rate = parseMarkup(markup.trim() || '0');
  const take = () => {
    const chosen = beyond.filter((it) => ticked.has(it.id));
    const total = chosen.reduce((sum, it) => sum + it.over, 0);
    onRows({
      cost: chosen.map((it) => ({
        section: it.section,
        code: it.costCode,
        type: it.costType,
        sovLine: line.trim(),
        description: 'Spent already',
        hours: it.costType === 'labour' && it.hoursOver > 0 ? formatQuantity(it.hoursOver) : '',
        amount: displayExact(it.over, digits),
      })),
      price:
        line.trim() === '' || !rate.ok
          ? []
          : [
              {
                line: line.trim(),
                description: 'Work done already',
                amount: displayExact(total + rateOf(rate.value, total), digits),
              },
            ],
    });
    setTicked(new Set());
  };
  const toggle = (id: number) => {
    const next = new Set(ticked);
    if (!next.delete(id)) next.add(id);
    setTicked(next);
  };
  return (
    <Popover.Root>
      <Popover.Trigger
        className="button"
        disabled={beyond.length === 0}
        title={beyond.length === 0 ? 'No line has cost beyond its budget' : undefined}
      >
        Take from cost already spent …
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={4} className={`${CONTENT} w-[520px]`}>
          <h3 className="mb-1">Cost beyond the budget of its line</h3>
          <div className="scroll mb-3" style={{ maxHeight: 230 }} tabIndex={0} role="region" aria-label="Lines over budget">
            <table className="ledger">
              <tbody>
                {beyond.map((it) => (
                  <tr key={it.id}>
                    <td style={{ width: 30 }}>
                      <input
                        type="checkbox"
                        checked={ticked.has(it.id)}
                        onChange={() => toggle(it.id)}
                        aria-label={`${it.section} ${it.costCode} ${it.costType}`}
                      />
                    </td>
                    <td>
                      {it.section} {it.costCode} {it.description}
                    </td>
                    <td>{it.costType}</td>
                    <td className="num">{show(it.over)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <div className="flex items-end gap-3">
            <Field label="SOV line of the price">
              <input value={line} onChange={(event) => setLine(event.target.value)} style={{ width: 130 }} />
            </Field>
            <Field label="Markup, %" fault={rate.ok ? undefined : 'Enter a percentage'}>
              <input
                value={markup}
                onChange={(event) => setMarkup(event.target.value)}
                style={{ width: 80, textAlign: 'right' }}
              />
            </Field>
            <button type="button" className="button main" disabled={ticked.size === 0} onClick={take}>
              Take {ticked.size || ''} in
            </button>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
