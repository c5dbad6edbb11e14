import { at, present } from '../errors/known';
import { planAward, groupsBy } from '../estimates/award';
import type { EstimateLine, PricedEstimate } from '../estimates/estimate';
import { allocate } from '../money/allocate';
import { sum, type Cents } from '../money/cents';
import { rateOf, WHOLE, type Quantity, type Rate } from '../money/rate';
import { unitCostOf, type UnitCost } from '../prices/unitCost';

/** How much of an estimate the client sees: one price, a price a section, or a price a line. */
export const PRESENTATIONS = ['lump-sum', 'section', 'line'] as const;
export type Presentation = (typeof PRESENTATIONS)[number];

/** A line as a client reads it. There is no cost in it, and no markup: only prices, with overhead and profit inside. */
export interface ClientLine {
  line: string;
  section: string;
  description: string;
  quantity: Quantity | null;
  unit: string;
  /** Unit price unit, four decimals; the amount governs. */
  unitPrice: UnitCost | null;
  /** null where only the whole has a price. */
  amount: Cents | null;
}

export interface ClientPayment {
  name: string;
  /** A day, or what has to be reached. */
  when: string;
  amount: Cents;
}

/** A payment in words: what it is called, and when it is due. */
export function paymentName({ name, when }: ClientPayment): string {
  return when === '' ? name : `${name}: ${when}`;
}

/** What goes to a client, whole: the one thing PDF, DOCX, message and answer page are made from. */
export interface ClientDocument {
  kind: 'quotation' | 'change';
  title: string;
  reference: string;
  dated: string;
  /** `lines` stand under the address; `logo` is a data URL. */
  company: { name: string; address: string; lines?: string[] | undefined; logo?: string | undefined };
  client: { name: string; contact: string };
  job: { number: string; name: string; site: string };
  currency: string;
  /** Decimals of the currency. */
  digits: number;
  introduction: string;
  lines: ClientLine[];
  total: Cents;
  alternates: { name: string; amount: Cents }[];
  exclusions: string[];
  payments: ClientPayment[];
  /** Extension requested, days for, of a change. */
  days: number | null;
  validUntil: string | null;
  terms: string;
}

/**
 * The lines of an estimate as a client sees them. Overhead, profit and rounding are inside the prices, spread as at an award,
 * so that the lines come to the price to the penny.
 */
export function clientLines(
  lines: readonly EstimateLine[],
  priced: PricedEstimate,
  show: { presentation: Presentation; quantities: boolean; unitPrices: boolean },
  digits: number,
): ClientLine[] {
  const { price } = priced.totals;
  if (show.presentation === 'section')
    return planAward(lines, priced, groupsBy('section', lines), price).sov.map((it) => ({
      line: it.line,
      section: '',
      description: it.description,
      quantity: null,
      unit: '',
      unitPrice: null,
      amount: it.scheduledValue,
    }));
  const amounts = planAward(lines, priced, groupsBy('line', lines), price).sov.map((it) => it.scheduledValue);
  return lines.map((it, i) => {
    const byLine = show.presentation === 'line';
    return {
      line: it.line,
      section: it.section,
      description: it.description,
      quantity: show.quantities ? it.quantity : null,
      unit: show.quantities ? it.unit : '',
      unitPrice: byLine && show.quantities && show.unitPrices ? unitCostOf(at(amounts, i), it.quantity, digits) : null,
      amount: byLine ? at(amounts, i) : null,
    };
  });
}

/** A part of the price: a percent of it, or an amount. */
export interface PaymentShare {
  rate: Rate | null;
  amount: Cents | null;
}

/**
 * The amounts of a payment schedule. Where every part is a percent and they come to 100 %, the price is split by largest
 * remainders; else each percent is rounded. `difference` is what the schedule leaves of the price: it must be nothing.
 */
export function paymentAmounts(price: Cents, shares: readonly PaymentShare[]): { amounts: Cents[]; difference: Cents } {
  const rates = shares.map((it) => it.rate);
  const whole = shares.length > 0 && rates.every((it) => it !== null) && sum(rates as number[]) === WHOLE;
  const amounts = whole
    ? allocate(
        price,
        rates.map((it) => BigInt(present(it))),
      )
    : shares.map((it) => it.amount ?? rateOf(it.rate ?? 0, price));
  return { amounts, difference: price - sum(amounts) };
}

/** The headings of a client's document below its lines, alike in PDF, DOCX and on the screen. */
export const DOCUMENT_PARTS = {
  alternates: 'Alternates (add or deduct)',
  payments: 'Payment',
  exclusions: 'Exclusions',
  terms: 'Terms',
} as const;

/** What a change order says of time, where it asks for days. */
export function extensionText(days: number): string {
  return `Extension of time requested: ${days} ${days === 1 ? 'day' : 'days'}.`;
}
