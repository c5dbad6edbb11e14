import { TURNOVERS, COST_TO_DATE } from './queries';
import { tieOut, type Turnover } from '../../core/ledger/tieOut';
import { trialBalance } from '../../core/ledger/trialBalance';
import type { Reader } from '../db/sql';
import { agedInvoices } from '../billing/invoices';
import { columns, totalRow, type Report, type ReportRequest } from '../reportFiles/report';

const TRIAL_BALANCE = columns('account:t:Account', 'name:t:Name', 'debit:a:Debit', 'credit:a:Credit');
const TIE_OUT = columns('check:t:Check', 'subledger:a:Subledger', 'ledger:a:Ledger', 'difference:a:Difference');

function turnovers(sql: Reader, asOf: string): Promise<Turnover[]> {
  return sql.all(TURNOVERS, [asOf]);
}

/** Balance of every account that has moved by the date. */
export async function trialBalanceReport(sql: Reader, { asOf }: ReportRequest): Promise<Report> {
  const rows = trialBalance(
    (await turnovers(sql, asOf)).map((it) => ({ account: it.account, balance: it.debit - it.credit })),
  ).map((row) => ({ ...row }));
  return {
    name: 'trial-balance',
    title: 'Trial balance',
    columns: TRIAL_BALANCE,
    rows: [...rows, totalRow(TRIAL_BALANCE, rows, 'account')],
    hasTotal: true,
  };
}

/** The proofs that postings and accounts agree, each side worked from its own tables. */
export async function tieOutReport(sql: Reader, { asOf }: ReportRequest): Promise<Report> {
  const cost = await sql.get(COST_TO_DATE, [asOf]);
  const invoices = await agedInvoices(sql, asOf, null);
  const rows = tieOut(
    {
      'job-cost': cost?.amount ?? 0,
      'accounts-receivable': invoices.reduce((sum, it) => sum + it.open, 0),
      'retention-receivable': invoices.reduce((sum, it) => sum + it.retentionHeld, 0),
      // No posting of this version leaves a bill open, so the account must stand at zero.
      'accounts-payable': 0,
    },
    await turnovers(sql, asOf),
  );
  return {
    name: 'tie-out',
    title: 'Tie-out',
    columns: TIE_OUT,
    rows: rows.map((row) => ({ ...row })),
    hasTotal: false,
    computed: { difference: { plus: ['subledger'], minus: ['ledger'] } },
  };
}
