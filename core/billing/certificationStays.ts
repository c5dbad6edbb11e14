import type { Cents } from '../money/cents';
import { refuse, type Refusal } from '../refusals/refusal';

/** What happened after an application was certified, as far as it rests on that. */
export interface AfterCertification {
  number: number;
  /** There is an application after it, be it a draft. */
  next: boolean;
  /** Receipts on its invoice, reversed ones with their reversals. */
  receipts: number;
  /** Retention released on or after the day it was certified, what was reversed left out. */
  released: Cents;
}

/** Why the certification of an application cannot be reversed any more (docs/rules.md §6); null where it can. */
export function certificationStays({ number, next, receipts, released }: AfterCertification): Refusal | null {
  const because = next
    ? `application ${number + 1} follows it; delete that draft first, or put the difference right in it`
    : receipts > 0
      ? 'money was received on it; put the difference right in the next application'
      : released !== 0
        ? 'retention was released after it; reverse the release first'
        : null;
  return because === null ? null : refuse('certification-stays', 'status', { number, because });
}
