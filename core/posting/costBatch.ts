import type { PlainDate } from '../calendar/plainDate';
import type { CostType } from '../cost/costType';
import { comparePlain } from '../cost/costType';
import { JOB_COST_ACCOUNTS } from '../ledger/accounts';
import { journal, type Journal } from '../ledger/journal';
import type { Cents } from '../money/cents';

/** Cost of one day and type; several entries may stand behind it. */
export interface DatedCost {
  dated: PlainDate;
  costType: CostType;
  amount: Cents;
}

/** Job cost by type against job cost clearing, one journal a day (docs/book.md: opening cost). Days that net to nothing make none. */
export function costJournals(costs: readonly DatedCost[]): Journal[] {
  const days = new Map<PlainDate, DatedCost[]>();
  for (const cost of costs) {
    const day = days.get(cost.dated);
    if (day) day.push(cost);
    else days.set(cost.dated, [cost]);
  }
  return [...days]
    .sort(([a], [b]) => comparePlain(a, b))
    .map(([dated, entries]) =>
      journal(
        dated,
        entries.flatMap(
          ({ costType, amount }) =>
            [
              [JOB_COST_ACCOUNTS[costType], amount],
              ['costClearing', -amount],
            ] as const,
        ),
      ),
    )
    .filter((it) => it.lines.length > 0);
}
