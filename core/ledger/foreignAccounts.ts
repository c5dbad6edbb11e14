import { ACCOUNTS } from './accounts';
import { postingOfKind, type PostingKind } from './posting';

/** The accounts of journals that a kind of posting may not post to, by code: there are none, or the program is wrong. */
export function foreignAccounts(kind: PostingKind, journals: readonly { lines: readonly { account: string }[] }[]): string[] {
  const { accounts } = postingOfKind(kind);
  if (accounts === null) return [];
  const own = new Set<string>(accounts.map((it) => ACCOUNTS[it].code));
  return [...new Set(journals.flatMap((it) => it.lines.map((line) => line.account)))].filter((it) => !own.has(it));
}
