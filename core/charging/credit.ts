import { daysFrom, type MoneyReceived } from '../billing/invoiceRefusals';
import { amountBy } from '../billing/application';
import type { PlainDate } from '../calendar/plainDate';
import type { Cents } from '../money/cents';
import { isNumber } from '../money/decimal';
import { rateOf, type Rate } from '../money/rate';
import { refuse, type Refusal } from '../refusals/refusal';

/** A credit note of an invoice: amounts before tax, and its tax. */
export interface Credit {
  creditNote: string;
  dated: PlainDate;
  amount: Cents;
  tax: Cents;
  inFull: boolean;
}

/** An invoice as far as it is credited. */
export interface CreditedInvoice {
  reference: string;
  dated: PlainDate;
  amount: Cents;
  tax: Cents;
  credits: readonly Credit[];
  receipts: readonly MoneyReceived[];
}

/** What a credit in part takes off the tax. */
export const creditTax = (amount: Cents, taxRate: Rate): Cents => rateOf(taxRate, amount);

/** What a full credit takes off: what is not credited yet, and what is left of the tax. */
export function restOf({ amount, tax, credits }: Pick<CreditedInvoice, 'amount' | 'tax' | 'credits'>): {
  amount: Cents;
  tax: Cents;
} {
  return {
    amount: credits.reduce((rest, it) => rest - it.amount, amount),
    tax: credits.reduce((rest, it) => rest - it.tax, tax),
  };
}

/** The day an invoice was credited in full; null where it was not. */
export const creditedOn = (credits: readonly Credit[]): PlainDate | null => credits.find((it) => it.inFull)?.dated ?? null;

/** What credit notes take off, with tax, on their days. */
export const creditsWithTax = (credits: readonly Credit[]): MoneyReceived[] =>
  credits.map(({ dated, amount, tax }) => ({ dated, amount: amount + tax }));

/**
 * Why an invoice cannot be credited so: credited already, before its own day, beyond it, or with money on it that would be more than is
 * left to ask for, on that day or a later one (docs/rules.md §14).
 */
export function creditRefusals(invoice: CreditedInvoice, credit: Credit): Refusal[] {
  const { reference, credits, receipts } = invoice;
  const before = creditedOn(credits);
  if (before !== null) return [refuse('credited-already', 'dated', { reference, on: before })];
  const refusals: Refusal[] = [];
  if (isNumber(credit.creditNote))
    refusals.push(refuse('invoice-named-as-number', 'creditNote', { reference: credit.creditNote }));
  if (credit.dated < invoice.dated)
    refusals.push(refuse('credited-before-invoice', 'dated', { on: credit.dated, dated: invoice.dated }));
  const last = credits.map((it) => it.dated).reduce((latest, it) => (it > latest ? it : latest), '');
  if (credit.inFull && last > credit.dated) refusals.push(refuse('credited-before-part', 'dated', { on: credit.dated, last }));
  const left = restOf(invoice).amount;
  if (!credit.inFull && credit.amount <= 0) refusals.push(refuse('credit-nothing', 'amount', {}));
  else if (!credit.inFull && credit.amount > left)
    refusals.push(refuse('credit-beyond', 'amount', { amount: credit.amount, left }));
  if (refusals.length > 0) return refusals;
  const days = daysFrom(
    credit.dated,
    [...receipts, ...credits].map((it) => it.dated),
  );
  const all = creditsWithTax([...credits, credit]);
  const short = days.find((on) => {
    const [asked, received] = [invoice.amount + invoice.tax - amountBy(all, on), amountBy(receipts, on)];
    return credit.inFull ? received !== 0 : received > Math.max(0, asked);
  });
  if (short === undefined) return [];
  return [
    refuse('credit-below-received', credit.inFull ? 'dated' : 'amount', { received: amountBy(receipts, short), on: short }),
  ];
}

/**
 * Why an invoice is credited no more, in full and in part, from `on` or its last credit or receipt on: asked with the whole rest, and with
 * the least amount there is. Null where it is.
 */
export function creditOffers(
  invoice: CreditedInvoice,
  { on, creditNote, taxRate }: { on: PlainDate; creditNote: string; taxRate: Rate },
): { inFull: Refusal | null; inPart: Refusal | null } {
  const moved = [on, invoice.dated, ...invoice.credits.map((it) => it.dated), ...invoice.receipts.map((it) => it.dated)];
  const dated = moved.reduce((latest, it) => (it > latest ? it : latest));
  const why = (credit: Pick<Credit, 'amount' | 'tax' | 'inFull'>) =>
    creditRefusals(invoice, { creditNote, dated, ...credit })[0] ?? null;
  return {
    inFull: why({ ...restOf(invoice), inFull: true }),
    inPart: why({ amount: 1, tax: creditTax(1, taxRate), inFull: false }),
  };
}
