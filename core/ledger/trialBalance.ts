import { comparePlain } from '../costs/costType';
import type { Cents } from '../money/cents';
import { accountName } from './accounts';

export interface TrialBalanceRow {
  account: string;
  name: string;
  debit: Cents;
  credit: Cents;
}

/** Each account with its balance on the side it falls, by account. `balances`: debit positive. Settled accounts stay, as zeros. */
export function trialBalance(balances: readonly { account: string; balance: Cents }[]): TrialBalanceRow[] {
  return balances
    .map(({ account, balance }) => ({
      account,
      name: accountName(account),
      debit: Math.max(0, balance),
      credit: Math.max(0, -balance),
    }))
    .sort((a, b) => comparePlain(a.account, b.account));
}
