import type { PlainDate } from '../calendar/plainDate';
import type { Cents } from '../money/cents';
import { ACCOUNTS, type AccountKey } from './accounts';

export interface JournalLine {
  /** Account code. */
  account: string;
  debit: Cents;
  credit: Cents;
}

/** One dated, balanced set of lines. */
export interface Journal {
  dated: PlainDate;
  lines: JournalLine[];
}

/**
 * A journal from signed amounts, debit positive. Amounts on one account are netted and empty lines left out.
 * Throws where it does not balance: that is a fault of ours, never the user's.
 */
export function journal(dated: PlainDate, amounts: readonly (readonly [AccountKey, Cents])[]): Journal {
  const net = new Map<string, Cents>();
  for (const [key, amount] of amounts) {
    const { code } = ACCOUNTS[key];
    net.set(code, (net.get(code) ?? 0) + amount);
  }
  const lines = [...net].filter(([, amount]) => amount !== 0).map(([account, amount]) => line(account, amount));
  if (lines.reduce((total, it) => total + it.debit - it.credit, 0) !== 0) throw new Error(`Journal of ${dated} does not balance`);
  return { dated, lines };
}

function line(account: string, amount: Cents): JournalLine {
  return amount > 0 ? { account, debit: amount, credit: 0 } : { account, debit: 0, credit: -amount };
}

/** The journal that takes another back, on the same day: debits and credits change sides. */
export function oppositeOf({ dated, lines }: Journal): Journal {
  return { dated, lines: lines.map(({ account, debit, credit }) => ({ account, debit: credit, credit: debit })) };
}
