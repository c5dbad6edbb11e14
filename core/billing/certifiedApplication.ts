import type { PlainDate } from '../calendar/plainDate';
import { journal, type Journal } from '../ledger/journal';
import type { Cents } from '../money/cents';

/** To-date figures of a certified application, as they are saved with it. */
export interface CertifiedFigures {
  gross: Cents;
  retention: Cents;
  due: Cents;
  tax: Cents;
}

/** The change since the last certified application: receivable and retention against billings and tax. docs/rules.md §9. */
export function certifiedApplicationJournal(
  on: PlainDate,
  now: CertifiedFigures,
  before: Pick<CertifiedFigures, 'gross' | 'retention'>,
): Journal {
  return journal(on, [
    ['receivable', now.due + now.tax],
    ['retentionReceivable', now.retention - before.retention],
    ['billings', before.gross - now.gross],
    ['taxPayable', -now.tax],
  ]);
}
