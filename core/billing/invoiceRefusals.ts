import type { PlainDate } from '../calendar/plainDate';
import { LAST_DAY } from '../calendar/plainDate';
import type { Cents } from '../money/cents';
import { isNumber } from '../money/decimal';
import { refuse, type Refusal } from '../refusals/refusal';
import { releasedBy, retentionHeld, valueApplication, type Application, type BillingJob } from './application';

/** An invoice as far as money is set on it. */
export interface PayableInvoice {
  /** The day it was certified or released. */
  since: PlainDate;
  /** Tax included. */
  payable: Cents;
  /** Received on it so far. */
  received: Cents;
}

/** Why money cannot be received on an invoice: what is received stays between zero and what it asks for. */
export function receiptRefusals(
  { since, payable, received }: PayableInvoice,
  receipt: { dated: PlainDate; amount: Cents },
): Refusal[] {
  const refusals: Refusal[] = [];
  const { dated, amount } = receipt;
  if (dated < since) refusals.push(refuse('receipt-too-early', 'dated', { on: dated, since }));
  const total = received + amount;
  if (total > Math.max(0, payable) || total < Math.min(0, payable))
    refusals.push(refuse('receipt-beyond', 'amount', { amount, outstanding: payable - received }));
  return refusals;
}

/** Why retention cannot be released: never more than is held on its day, nor on any later one. */
export function releaseRefusals(job: BillingJob, release: { dated: PlainDate; amount: Cents; reference: string }): Refusal[] {
  const { dated, amount, reference } = release;
  const refusals: Refusal[] = [];
  const held = Math.min(retentionHeld(job, dated), retentionHeld(job, LAST_DAY));
  if (amount <= 0) refusals.push(refuse('release-nothing', 'amount', {}));
  else if (amount > held) refusals.push(refuse('release-beyond-held', 'amount', { amount, held, on: dated }));
  if (isNumber(reference)) refusals.push(refuse('release-named-as-number', 'reference', { reference }));
  return refusals;
}

/**
 * Why an application cannot be certified: retention to date would fall below what has been released by its day, releases of
 * that day included. `application` carries its certified figures and day.
 */
export function certificationRefusal(job: BillingJob, application: Application): Refusal | null {
  const on = application.certifiedOn ?? LAST_DAY;
  const retention = valueApplication(job, { ...application, status: 'certified' }, on).retention.total;
  const released = releasedBy(job.releases, on);
  return retention < released ? refuse('certified-below-released', 'status', { retention, released }) : null;
}
