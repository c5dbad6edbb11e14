import type { PlainDate } from '../calendar/plainDate';
import type { CostType } from './costType';
import { comparePlain } from './costType';
import { ACCOUNTS, JOB_COST_ACCOUNTS } from '../ledger/accounts';
import type { Journal, JournalLine } from '../ledger/journal';
import type { Cents } from '../money/cents';

/** Cost of one accounting day and type; several entries may stand behind it. */
export interface DatedCost {
  /** The accounting date. */
  postedOn: PlainDate;
  costType: CostType;
  amount: Cents;
}

/**
 * Job cost by type against job cost clearing, one journal a day (docs/book.md: opening cost). Costs and credits stand
 * apart, so that the turnover is the same whether a day is posted as one posting or as many. Days of nothing make none.
 */
export function costJournals(costs: readonly DatedCost[]): Journal[] {
  const days = new Map<PlainDate, DatedCost[]>();
  for (const cost of costs) {
    if (cost.amount === 0) continue;
    const day = days.get(cost.postedOn);
    if (day) day.push(cost);
    else days.set(cost.postedOn, [cost]);
  }
  return [...days].sort(([a], [b]) => comparePlain(a, b)).map(([dated, entries]) => ({ dated, lines: dayLines(entries) }));
}

function dayLines(entries: readonly DatedCost[]): JournalLine[] {
  const turnover = new Map<string, { debit: Cents; credit: Cents }>();
  const clearing = { debit: 0, credit: 0 };
  for (const { costType, amount } of entries) {
    const { code } = ACCOUNTS[JOB_COST_ACCOUNTS[costType]];
    const account = turnover.get(code) ?? { debit: 0, credit: 0 };
    account.debit += Math.max(0, amount);
    account.credit += Math.max(0, -amount);
    clearing.debit += Math.max(0, -amount);
    clearing.credit += Math.max(0, amount);
    turnover.set(code, account);
  }
  turnover.set(ACCOUNTS.costClearing.code, clearing);
  return [...turnover].flatMap(([account, { debit, credit }]) => [
    ...(debit > 0 ? [{ account, debit, credit: 0 }] : []),
    ...(credit > 0 ? [{ account, debit: 0, credit }] : []),
  ]);
}
