import { ACCOUNTS, JOB_COST_ACCOUNTS } from '../../core/ledger/accounts';
import { tieOut } from '../../core/ledger/tieOut';
import { trialBalance } from '../../core/ledger/trialBalance';
import type { Reader } from '../db/sql';
import { agedInvoices } from '../billing/invoices';
import { columns, totalRow, type Report, type ReportRequest } from './report';

const TRIAL_BALANCE = columns('account:t:Account', 'name:t:Name', 'debit:a:Debit', 'credit:a:Credit');
const TIE_OUT = columns('check:t:Check', 'subledger:a:Subledger', 'ledger:a:Ledger', 'difference:a:Difference');

interface Turnover {
  account: string;
  debit: number;
  credit: number;
}

function turnovers(sql: Reader, asOf: string): Promise<Turnover[]> {
  return sql.all<Turnover>(
    'SELECT l.account, sum(l.debit) AS debit, sum(l.credit) AS credit FROM journal j JOIN journal_line l ON l.journal_id = j.id WHERE j.dated <= $1 GROUP BY l.account',
    [asOf],
  );
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
  const accounts = new Map((await turnovers(sql, asOf)).map((it) => [it.account, it]));
  const balance = (code: string) => (accounts.get(code)?.debit ?? 0) - (accounts.get(code)?.credit ?? 0);
  const cost = await sql.get<{ amount: number | null }>('SELECT sum(amount) AS amount FROM cost_entry WHERE dated <= $1', [asOf]);
  const invoices = await agedInvoices(sql, asOf, null);
  const total = (side: 'debit' | 'credit') => [...accounts.values()].reduce((sum, it) => sum + it[side], 0);
  const rows = tieOut({
    'job-cost': {
      subledger: cost?.amount ?? 0,
      ledger: Object.values(JOB_COST_ACCOUNTS).reduce((sum, key) => sum + balance(ACCOUNTS[key].code), 0),
    },
    'accounts-receivable': {
      subledger: invoices.reduce((sum, it) => sum + it.open, 0),
      ledger: balance(ACCOUNTS.receivable.code),
    },
    'retention-receivable': {
      subledger: invoices.reduce((sum, it) => sum + it.retentionHeld, 0),
      ledger: balance(ACCOUNTS.retentionReceivable.code),
    },
    // No posting of this version leaves a bill open, so the account must stand at nothing.
    'accounts-payable': { subledger: 0, ledger: -balance(ACCOUNTS.payable.code) },
    journals: { subledger: total('debit'), ledger: total('credit') },
  });
  return { name: 'tie-out', title: 'Tie-out', columns: TIE_OUT, rows: rows.map((row) => ({ ...row })), hasTotal: false };
}
