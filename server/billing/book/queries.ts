import { ACCOUNTS } from '../../../core/ledger/accounts';

/** What an account has on its credit side in the journals of a posting, less its debit side. */
const credited = (account: keyof typeof ACCOUNTS) =>
  `coalesce((SELECT sum(l.credit - l.debit) FROM journal_line l JOIN journal n ON n.id = l.journal_id
    WHERE n.posting_id = p.id AND l.account = '${ACCOUNTS[account].code}'), 0)`;

/** Certifications that were reversed, each with what it posted. */
export const REVERSED_CERTIFICATIONS = `SELECT p.id, j.number AS job, CAST(p.reference AS INTEGER) AS application,
      row_number() OVER (PARTITION BY p.job_id, p.reference ORDER BY p.id) AS number, p.dated, p.posted_on AS certified_on,
      ${credited('billings')} AS billed, -${credited('retentionReceivable')} AS retained, ${credited('taxPayable')} AS tax, r.note AS reason
    FROM posting p JOIN posting r ON r.reverses_id = p.id JOIN job j ON j.id = p.job_id WHERE p.kind = 'application'`;
