import type { PlainDate } from '../calendar/plainDate';
import { accountName } from './accounts';
import type { Journal } from './journal';

/** A journal with the names of its accounts, as it is shown. */
export function journalView({ dated, lines }: Journal): {
  dated: PlainDate;
  lines: { account: string; name: string; debit: number; credit: number }[];
} {
  return { dated, lines: lines.map((line) => ({ ...line, name: accountName(line.account) })) };
}
