import type { Cents } from '../money/cents';
import { ACCOUNTS, type Account, type Subledger } from './accounts';

/** The proofs that the books tie, in the order they are shown (docs/book.md: tie-out). */
export const TIE_OUT_CHECKS = [
  'job-cost',
  'accounts-receivable',
  'retention-receivable',
  'accounts-payable',
  'journals',
] as const satisfies readonly (Subledger | 'journals')[];
export type TieOutCheck = (typeof TIE_OUT_CHECKS)[number];

export interface TieOutRow {
  check: TieOutCheck;
  /** Subledger; for journals: all debits. */
  subledger: Cents;
  /** General ledger; for journals: all credits. */
  ledger: Cents;
  difference: Cents;
}

/** All debits and credits of an account to a date. */
export interface Turnover {
  account: string;
  debit: Cents;
  credit: Cents;
}

/** Both sides of every proof, and their difference: 0 where the books tie. An account says itself which subledger stands behind it. */
export function tieOut(subledgers: Record<Subledger, Cents>, turnovers: readonly Turnover[]): TieOutRow[] {
  const byAccount = new Map(turnovers.map((it) => [it.account, it.debit - it.credit]));
  const total = (side: 'debit' | 'credit') => turnovers.reduce((sum, it) => sum + it[side], 0);
  return TIE_OUT_CHECKS.map((check) => {
    const [subledger, ledger] =
      check === 'journals' ? [total('debit'), total('credit')] : [subledgers[check], balanceOf(check, byAccount)];
    return { check, subledger, ledger, difference: subledger - ledger };
  });
}

/** What the accounts of a subledger stand at, each on the side of its type. */
function balanceOf(subledger: Subledger, byAccount: ReadonlyMap<string, Cents>): Cents {
  return Object.values<Account>(ACCOUNTS)
    .filter((it) => it.subledger === subledger)
    .reduce((sum, it) => sum + onItsSide(it, byAccount.get(it.code) ?? 0), 0);
}

/** Assets and cost stand on the debit side, liabilities and revenue on the credit side. */
function onItsSide({ type }: Account, balance: Cents): Cents {
  return type === 'asset' || type === 'cost' ? balance : 0 - balance;
}
