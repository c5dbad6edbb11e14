import { useState } from 'react';
import { COST_TYPES } from '../../../core/costs/costType';
import { displayExact, displayQuantity } from '../../../core/money/display';
import { profitForPrice, type EstimateTotals } from '../../../core/estimates/estimate';
import { useCurrency } from '../../ground/company';
import { markup, type Faults } from '../../kit/typed/codecs';
import type { EstimateForm } from './draft/estimateForm';
import { PriceHeadline } from './PriceHeadline';

interface FootProps {
  form: EstimateForm;
  setForm: React.Dispatch<React.SetStateAction<EstimateForm>>;
  totals: EstimateTotals;
  faults: Faults;
}

/** From cost to price: each step with its rate and its amount; a price wanted is worked back into the profit. */
export function EstimateFoot({ form, setForm, totals, faults }: FootProps) {
  const { exact, code } = useCurrency();
  const rate = (key: 'overhead' | 'profit' | 'rounding', label: string) => (
    <RateCell
      label={label}
      value={form[key]}
      fault={faults.get(key)}
      onValue={(text) => setForm((before) => ({ ...before, [key]: text }))}
    />
  );
  return (
    <aside aria-label="From cost to price">
      <PriceHeadline totals={totals} />
      <table className="ledger static-foot">
        <thead>
          <tr>
            <th>Cost</th>
            <th className="num">Markup %</th>
            <th className="num">{code}</th>
          </tr>
        </thead>
        <tbody>
          <TypeRows form={form} setForm={setForm} totals={totals} faults={faults} />
          <Row name="Cost" amount={totals.cost} strong />
          <Row name="Markup" amount={totals.markup} />
          <Row name="Overhead" amount={totals.overhead}>
            {rate('overhead', 'Overhead %')}
          </Row>
          <Row name="Profit" amount={totals.profit}>
            {rate('profit', 'Profit %')}
          </Row>
          <tr>
            <td>Rounding</td>
            <td colSpan={2} className="num typed">
              {rate('rounding', 'Rounding')}
            </td>
          </tr>
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={2}>Price</td>
            <td className="num">{exact(totals.price)}</td>
          </tr>
        </tfoot>
      </table>
      <WorkBack totals={totals} setForm={setForm} />
      <SectionMarkups form={form} setForm={setForm} faults={faults} />
      <p className="note mt-3 text-[12.5px]">
        A line’s own markup comes first, then its section’s, then the price item’s, then the cost type’s. Overhead is on cost and
        markup; profit on these and overhead.
      </p>
    </aside>
  );
}

/** Cost by type, each with its markup. */
function TypeRows({ form, setForm, totals, faults }: FootProps) {
  const { show } = useCurrency();
  return COST_TYPES.map((type) => (
    <tr key={type}>
      <td>
        {type}
        {type === 'labour' && totals.hours !== 0 && <span className="note text-[12px]"> {displayQuantity(totals.hours)} h</span>}
      </td>
      <td className="num typed">
        <RateCell
          label={`Markup on ${type}`}
          value={form.typeMarkups[type] ?? ''}
          fault={faults.get(`typeMarkups.${type}`)}
          onValue={(text) => setForm((before) => ({ ...before, typeMarkups: { ...before.typeMarkups, [type]: text } }))}
        />
      </td>
      <td className="num">{show(totals.byType[type])}</td>
    </tr>
  ));
}

function SectionMarkups({ form, setForm, faults }: Omit<FootProps, 'totals'>) {
  const sections = [...new Set(form.lines.map((row) => (row.section ?? '').trim()))].filter(Boolean);
  if (sections.length === 0) return null;
  const set = Object.values(form.sectionMarkups).some((text) => text.trim());
  return (
    <details className="mt-3">
      <summary className="cursor-pointer">Markup by section{set ? ', set' : ''}</summary>
      <table className="ledger static-foot">
        <tbody>
          {sections.map((section) => (
            <tr key={section}>
              <td>{section}</td>
              <td className="typed w-[90px]">
                <RateCell
                  label={`Markup of section ${section}`}
                  value={form.sectionMarkups[section] ?? ''}
                  fault={faults.get(`sectionMarkups.${section}`)}
                  onValue={(text) =>
                    setForm((before) => ({ ...before, sectionMarkups: { ...before.sectionMarkups, [section]: text } }))
                  }
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

function Row({
  name,
  amount,
  strong = false,
  children,
}: {
  name: string;
  amount: number;
  strong?: boolean;
  children?: React.ReactNode;
}) {
  const { show } = useCurrency();
  const weight = strong ? 'font-semibold' : '';
  return (
    <tr>
      <td className={weight}>{name}</td>
      <td className="num typed">{children}</td>
      <td className={`num ${weight}`}>{show(amount)}</td>
    </tr>
  );
}

function RateCell({
  label,
  value,
  fault,
  onValue,
}: {
  label: string;
  value: string;
  fault: string | undefined;
  onValue: (text: string) => void;
}) {
  return (
    <input
      aria-label={label}
      aria-invalid={fault ? true : undefined}
      title={fault}
      className="box num low text-right"
      value={value}
      onChange={(event) => onValue(event.target.value)}
      onFocus={(event) => event.target.select()}
      autoComplete="off"
    />
  );
}

function WorkBack({ totals, setForm }: { totals: EstimateTotals; setForm: FootProps['setForm'] }) {
  const { read, digits } = useCurrency();
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState('');
  const work = (event: React.FormEvent) => {
    event.preventDefault();
    const target = read(typed);
    if (target === null) return setFault('Expected a price such as 125,000.00');
    const worked = profitForPrice(totals, target);
    if (!worked) return setFault('There is no cost to put a profit on yet');
    if (worked.profit < -1_000_000 || worked.profit > 10_000_000)
      return setFault('That is further than a profit of −100 to 1,000 % reaches');
    setFault('');
    setTyped('');
    setForm((before) => ({
      ...before,
      profit: markup.format(worked.profit),
      rounding: worked.rounding === 0 ? '' : displayExact(worked.rounding, digits),
    }));
  };
  return (
    <form className="mt-3 flex items-end gap-2" onSubmit={work}>
      <div className="field grow">
        <label htmlFor="wanted-price">Target price</label>
        <input
          id="wanted-price"
          className="box text-right"
          value={typed}
          aria-invalid={fault ? true : undefined}
          onChange={(event) => setTyped(event.target.value)}
        />
        {fault && <span className="fault">{fault}</span>}
      </div>
      <button className="button" title="Sets profit, and puts what is unallocated into rounding">
        Solve for profit
      </button>
    </form>
  );
}
