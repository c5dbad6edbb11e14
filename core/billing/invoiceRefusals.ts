import type { PlainDate } from '../calendar/plainDate';
import { LAST_DAY } from '../calendar/plainDate';
import type { Cents } from '../money/cents';
import { isNumber } from '../money/decimal';
import { refuse, type Refusal } from '../refusals/refusal';
import { amountBy, retentionHeld, type Application, type BillingJob } from './application';

/** An invoice as far as money is set on it. */
export interface PayableInvoice {
  /** The day it was certified or released. */
  since: PlainDate;
  /** Tax included. */
  payable: Cents;
  /** What was received on it, in any order; a refund is below zero. */
  receipts: readonly MoneyReceived[];
  /** What credit notes take off it, tax included, each from its day on. */
  credits?: readonly MoneyReceived[];
}

export interface MoneyReceived {
  dated: PlainDate;
  amount: Cents;
}

/** The days on which something moves from `from` on, and `from` itself, in order. */
export function daysFrom(from: PlainDate, days: readonly PlainDate[]): PlainDate[] {
  return [...new Set([from, ...days.filter((it) => it > from)])].sort();
}

/**
 * Why money cannot be received on an invoice: at the end of its day and of every later one, what is received lies between zero and
 * what the invoice asks for, and before it was certified or released nothing is received.
 */
export function receiptRefusals(invoice: PayableInvoice, receipt: MoneyReceived): Refusal[] {
  const { since, payable, receipts, credits = [] } = invoice;
  const { dated, amount } = receipt;
  const all = [...receipts, receipt];
  const refusals: Refusal[] = [];
  if (dated < since && amountBy(all, dated) !== 0) refusals.push(refuse('receipt-too-early', 'dated', { on: dated, since }));
  const days = daysFrom(
    dated,
    [...receipts, ...credits].map((it) => it.dated),
  );
  const asked = (on: PlainDate) => payable - amountBy(credits, on);
  const beyond = days
    .map((on) => ({ on, total: amountBy(all, on) }))
    .find(({ on, total }) => total < Math.min(0, asked(on)) || total > Math.max(0, asked(on)));
  if (!beyond) return refusals;
  const { on, total } = beyond;
  const outstanding = asked(on) - (total - amount);
  const isMore = amount > 0 === payable > 0;
  refusals.push(
    isMore
      ? refuse('receipt-beyond', 'amount', { amount, outstanding, on })
      : refuse('receipt-below-zero', 'amount', { amount, received: total - amount, on }),
  );
  return refusals;
}

/** What may still be received on an invoice on `dated`: what is left on the day, of that one and all later, on which least is left. */
export function receivable({ payable, receipts, credits = [] }: Omit<PayableInvoice, 'since'>, dated: PlainDate): Cents {
  const days = daysFrom(
    dated,
    [...receipts, ...credits].map((it) => it.dated),
  );
  const left = days.map((day) => payable - amountBy(credits, day) - amountBy(receipts, day));
  return payable < 0 ? Math.max(...left) : Math.min(...left);
}

/** The least retention held on any day from `from` on, and the first day it is that. */
export function leastHeld(job: BillingJob, from: PlainDate): { held: Cents; on: PlainDate } {
  const days = daysFrom(from, [...job.applications.flatMap((it) => it.certifiedOn ?? []), ...job.releases.map((it) => it.dated)]);
  return days.map((on) => ({ on, held: retentionHeld(job, on) })).reduce((least, it) => (it.held < least.held ? it : least));
}

/** Why retention cannot be released: never more than is held on its day, nor on any later one. */
export function releaseRefusals(job: BillingJob, release: { dated: PlainDate; amount: Cents; reference: string }): Refusal[] {
  const { dated, amount, reference } = release;
  const refusals: Refusal[] = [];
  const { held, on } = leastHeld(job, dated);
  if (amount <= 0) refusals.push(refuse('release-nothing', 'amount', {}));
  else if (amount > held) refusals.push(refuse('release-beyond-held', 'amount', { amount, held, on }));
  if (isNumber(reference)) refusals.push(refuse('release-named-as-number', 'reference', { reference }));
  return refusals;
}

/**
 * Why an application cannot be certified: on its day or a later one retention to date would fall below what has been released by
 * then. `application` carries its certified figures and day; `job` those certified before it.
 */
export function certificationRefusal(job: BillingJob, application: Application): Refusal | null {
  const certified: Application = { ...application, status: 'certified' };
  const others = job.applications.filter((it) => it.number < application.number);
  const { held, on } = leastHeld({ ...job, applications: [...others, certified] }, application.certifiedOn ?? LAST_DAY);
  if (held >= 0) return null;
  const released = amountBy(job.releases, on);
  return refuse('certified-below-released', 'status', { retention: held + released, released });
}
