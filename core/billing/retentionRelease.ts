import type { PlainDate } from '../calendar/plainDate';
import { journal, type Journal } from '../ledger/journal';
import type { Cents } from '../money/cents';

/** Retention becomes an ordinary receivable; tax falls due with it. `amount` is before tax. docs/rules.md §9. */
export function retentionReleaseJournal(on: PlainDate, amount: Cents, tax: Cents): Journal {
  return journal(on, [
    ['receivable', amount + tax],
    ['retentionReceivable', -amount],
    ['taxPayable', -tax],
  ]);
}
