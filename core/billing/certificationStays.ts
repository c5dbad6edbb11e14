import { displayDate } from '../calendar/displayDate';
import type { PlainDate } from '../calendar/plainDate';
import { amountBy } from './application';
import type { MoneyReceived } from './invoiceRefusals';
import { refuse, type Refusal } from '../refusals/refusal';

/** What happened after an application was certified, as far as it rests on that. */
export interface AfterCertification {
  number: number;
  certifiedOn: PlainDate;
  /** The last day that is closed; null where none is. */
  closedTo: PlainDate | null;
  /** There is an application after it, be it a draft. */
  next: boolean;
  /** Receipts on its invoice, reversed ones with their reversals. */
  receipts: readonly MoneyReceived[];
  /** Retention released on or after the day it was certified, reversed releases with their reversals. */
  releases: readonly MoneyReceived[];
}

/** The first day at whose end something stands; null where every day comes to zero, as when each was reversed on its own day. */
function standsOn(moved: readonly MoneyReceived[]): PlainDate | null {
  const days = [...new Set(moved.map((it) => it.dated))].sort();
  return days.find((day) => amountBy(moved, day) !== 0) ?? null;
}

/** Why the certification of an application cannot be reversed any more (docs/rules.md §6); null where it can. */
export function certificationStays({
  number,
  certifiedOn,
  closedTo,
  next,
  receipts,
  releases,
}: AfterCertification): Refusal | null {
  const [receivedOn, releasedOn] = [standsOn(receipts), standsOn(releases)];
  const because = next
    ? `application ${number + 1} follows it; delete that draft first, or correct the difference in it`
    : receivedOn !== null
      ? `money was received on it on ${displayDate(receivedOn)}; reverse the receipt on its own day, or correct the difference in the next application`
      : releasedOn !== null
        ? `retention was released on ${displayDate(releasedOn)}; reverse the release on its own day first`
        : closedTo !== null && certifiedOn <= closedTo
          ? `${displayDate(certifiedOn)}, when it was certified, is in the books that are closed up to ${displayDate(closedTo)}; have them opened again first, or correct the difference in the next application`
          : null;
  return because === null ? null : refuse('certification-stays', 'status', { number, because });
}
