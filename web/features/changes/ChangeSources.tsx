import { Pop } from '../../kit/Pop';
import { useMemo, useState, type ReactNode } from 'react';
import { displayExact } from '../../../core/money/display';
import { formatQuantity, rateOf } from '../../../core/money/rate';
import { itemShare, PriceList } from '../../../core/prices/buildUp';
import type { EstimateView } from '../../../wire/jobs';
import type { PriceListView } from '../../../wire/prices';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import type { GridRow } from '../../kit/grid/gridTypes';
import { markup, needed, optional, words } from '../../kit/typed/codecs';
import { pricedRows } from './changeForm';

type OnRows = (rows: { price?: GridRow[]; cost: GridRow[] }) => void;

const TAKEN = {
  of: words('Expected a build-up or a price item of the price list'),
  quantity: needed,
  markup: optional(markup, 0),
  section: words(),
  line: words(),
};

/** Takes so much of a build-up or a price item into the cost side, and its price at a markup into the price side. */
export function FromPriceList({ book, sections, onRows }: { book: PriceListView; sections: readonly string[]; onRows: OnRows }) {
  const { digits } = useCurrency();
  const prices = useMemo(() => new PriceList(book.items, book.buildUps), [book]);
  const form = useCodecForm(
    TAKEN,
    { of: '', quantity: '', markup: '', section: sections[0] ?? '', line: '' },
    { partOfPage: true },
  );
  const take = form.submit(async (it) => {
    const of = prices.buildUps.get(it.of) ?? prices.items.get(it.of);
    if (!of) return form.refuse({ message: '', faults: [{ field: 'of', message: `The price list has no ${it.of}` }] });
    const shares = 'unitCost' in of ? [itemShare(of)] : prices.unitShares(it.of);
    const { description, unit } = of;
    const { section, line } = it;
    const rows = pricedRows({ description, unit, section, sovLine: line }, it.quantity, shares, it.markup, digits);
    const price = {
      line,
      section,
      description,
      quantity: formatQuantity(it.quantity),
      unit,
      amount: displayExact(rows.price, digits),
    };
    onRows({ cost: rows.cost, price: line === '' ? [] : [price] });
    form.set('of', '');
    form.set('quantity', '');
  }, faultOf);
  return (
    <Source label="Take from the price list …" className="w-[420px]">
      <form className="grid grid-cols-2 items-start gap-3" onSubmit={take} noValidate>
        <div className="col-span-2">{form.input('of', 'Build-up or item', { list: 'of-the-price-book' })}</div>
        <datalist id="of-the-price-book">
          {[...book.buildUps, ...book.items].map((it) => (
            <option key={it.code} value={it.code}>
              {it.description}
            </option>
          ))}
        </datalist>
        {form.input('quantity', 'Quantity')}
        {form.input('markup', 'Markup for the price, %')}
        {form.input('section', 'Section')}
        {form.input('line', 'SOV line of the price', { hint: 'Empty: cost only' })}
        <button className="button main justify-self-start">Add</button>
      </form>
    </Source>
  );
}

interface SourceProps {
  label: string;
  className: string;
  /** Why there is nothing to take. */
  off?: string;
  children: ReactNode;
}

function Source({ label, className, off, children }: SourceProps) {
  return (
    <Pop button={<>{label}</>} className={`p-4 ${className}`} disabled={off !== undefined} title={off}>
      {children}
    </Pop>
  );
}

const SPENT = { line: words(), markup: optional(markup, 0) };

/** Takes cost already spent into the cost side: what a line cost beyond its budget, or all of it where it has none. */
export function FromCost({ spent, onRows }: { spent: EstimateView; onRows: OnRows }) {
  const { digits } = useCurrency();
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const form = useCodecForm(SPENT, { line: '', markup: '' }, { partOfPage: true });
  const beyond = linesBeyond(spent);
  const take = form.submit(async ({ line, markup }) => {
    const chosen = beyond.filter((it) => ticked.has(it.id));
    const total = chosen.reduce((sum, it) => sum + it.over, 0);
    const price = { line, description: 'Work done already', amount: displayExact(total + rateOf(markup, total), digits) };
    onRows({
      cost: chosen.map((it) => ({
        section: it.section,
        costCode: it.costCode,
        costType: it.costType,
        sovLine: line,
        description: 'Spent already',
        hours: it.costType === 'labour' && it.hoursOver > 0 ? formatQuantity(it.hoursOver) : '',
        amount: displayExact(it.over, digits),
      })),
      price: line === '' ? [] : [price],
    });
    setTicked(new Set());
  }, faultOf);
  const off = beyond.length === 0 ? 'No line has cost beyond its budget' : undefined;
  return (
    <Source label="Take from cost already spent …" className="w-[520px]" off={off}>
      <form onSubmit={take} noValidate>
        <h3 className="mb-1">Cost beyond the budget of its line</h3>
        <BeyondBudget lines={beyond} ticked={ticked} onTicked={setTicked} />
        <div className="flex items-start gap-3">
          {form.input('line', 'SOV line of the price', { className: 'w-[140px]' })}
          {form.input('markup', 'Markup, %', { className: 'w-[90px]' })}
          <button className="button main mt-[20px]" disabled={ticked.size === 0}>
            Take {ticked.size || ''} in
          </button>
        </div>
      </form>
    </Source>
  );
}

/** Lines with cost beyond their revised budget, and by how much. */
function linesBeyond(spent: EstimateView) {
  return spent.lines
    .map((it) => ({ ...it, over: it.actual - it.revised, hoursOver: Math.max(0, it.hoursActual - it.hoursBudgeted) }))
    .filter((it) => it.over > 0);
}

interface BeyondProps {
  lines: ReturnType<typeof linesBeyond>;
  ticked: ReadonlySet<number>;
  onTicked: (ticked: ReadonlySet<number>) => void;
}

function BeyondBudget({ lines, ticked, onTicked }: BeyondProps) {
  const { show } = useCurrency();
  const toggle = (id: number) => {
    const next = new Set(ticked);
    if (!next.delete(id)) next.add(id);
    onTicked(next);
  };
  return (
    <div className="scroll mb-3 max-h-[230px]" tabIndex={0} role="region" aria-label="Lines over budget">
      <table className="ledger">
        <tbody>
          {lines.map((it) => (
            <tr key={it.id}>
              <td className="w-[30px]">
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
  );
}
