import type { PlainDate } from '../calendar/plainDate';
import { journal, type Journal } from '../ledger/journal';
import type { Cents } from '../money/cents';

/** Money in against the receivable; a refund is negative. docs/rules.md §9. */
export function receiptJournal(on: PlainDate, amount: Cents): Journal {
  return journal(on, [
    ['bank', amount],
    ['receivable', -amount],
  ]);
}
