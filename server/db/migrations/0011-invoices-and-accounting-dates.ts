import type { Migration } from './migration';

const never = (act: 'UPDATE' | 'DELETE', table: string) =>
  `CREATE TRIGGER ${table}_no_${act.toLowerCase()} BEFORE ${act} ON ${table} BEGIN SELECT RAISE(ABORT, 'What is posted in ${table} is never changed'); END`;

/**
 * An invoice has an identity, whatever asked for the money: receipts refer to it, and it keeps the day it falls due. A posting and a
 * cost entry have an accounting date, `posted_on`, which every report counts, beside the date of the document, `dated`: the same, so
 * far. Views name what many queries ask for.
 */
export const invoicesAndAccountingDates: Migration = {
  name: '0011-invoices-and-accounting-dates',
  statements: [
    `CREATE TABLE invoice (
      id INTEGER PRIMARY KEY, kind TEXT NOT NULL, job_id INTEGER NOT NULL REFERENCES job, reference TEXT NOT NULL, dated TEXT NOT NULL,
      posted_on TEXT NOT NULL, due_on TEXT NOT NULL, payable INTEGER NOT NULL, posting_id INTEGER NOT NULL UNIQUE REFERENCES posting,
      UNIQUE (job_id, reference))`,
    `INSERT INTO invoice (kind, job_id, reference, dated, posted_on, due_on, payable, posting_id)
      SELECT it.kind, it.job_id, it.reference, it.dated, it.posted_on,
        date(it.posted_on, '+' || coalesce(job.terms_days, client.terms_days, 30) || ' days'), it.payable, it.posting_id
        FROM (SELECT 'application' AS kind, job_id, CAST(number AS TEXT) AS reference, dated, certified_on AS posted_on, due + tax AS payable, posting_id
                FROM application WHERE status = 'certified'
              UNION ALL SELECT 'release', job_id, reference, dated, dated, amount + tax, posting_id FROM retention_release) it
        JOIN job ON job.id = it.job_id JOIN client ON client.id = job.client_id ORDER BY it.posting_id`,
    `CREATE TABLE receipt_on_invoice (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, invoice_id INTEGER NOT NULL REFERENCES invoice, dated TEXT NOT NULL,
      amount INTEGER NOT NULL, reference TEXT NOT NULL, posting_id INTEGER NOT NULL REFERENCES posting)`,
    `INSERT INTO receipt_on_invoice SELECT r.id, r.job_id, i.id, r.dated, r.amount, r.reference, r.posting_id
      FROM receipt r LEFT JOIN application a ON a.id = r.application_id LEFT JOIN retention_release l ON l.id = r.release_id
      JOIN invoice i ON i.posting_id = coalesce(a.posting_id, l.posting_id)`,
    // Stops here, with all as it was, where a receipt found no invoice.
    'CREATE TEMP TABLE receipts_moved (missing INTEGER CHECK (missing = 0))',
    'INSERT INTO receipts_moved SELECT (SELECT count(*) FROM receipt) - (SELECT count(*) FROM receipt_on_invoice)',
    'DROP TABLE receipts_moved',
    'DROP TABLE receipt',
    'ALTER TABLE receipt_on_invoice RENAME TO receipt',
    'CREATE INDEX receipt_by_invoice ON receipt (invoice_id, dated, amount)',
    'CREATE INDEX receipt_by_job ON receipt (job_id, dated)',
    ...[never('UPDATE', 'receipt'), never('DELETE', 'receipt'), never('UPDATE', 'invoice'), never('DELETE', 'invoice')],

    'DROP TRIGGER cost_entry_no_update',
    'ALTER TABLE cost_entry RENAME COLUMN dated TO posted_on',
    `ALTER TABLE cost_entry ADD COLUMN dated TEXT NOT NULL DEFAULT ''`,
    'UPDATE cost_entry SET dated = posted_on',
    never('UPDATE', 'cost_entry'),
    'DROP TRIGGER posting_no_update',
    'ALTER TABLE posting RENAME COLUMN dated TO posted_on',
    `ALTER TABLE posting ADD COLUMN dated TEXT NOT NULL DEFAULT ''`,
    'UPDATE posting SET dated = posted_on',
    `CREATE TRIGGER posting_no_update BEFORE UPDATE ON posting BEGIN SELECT RAISE(ABORT, 'A posting is never changed'); END`,

    `CREATE VIEW named_cost_line AS SELECT l.id, l.job_id, j.number AS job, l.section, c.code AS cost_code, l.cost_type
      FROM cost_line l JOIN job j ON j.id = l.job_id JOIN cost_code c ON c.id = l.cost_code_id`,
    `CREATE VIEW approved_change_line AS SELECT l.id, o.job_id, o.id AS change_order_id, o.number, o.title, o.decided_on, l.side,
      l.sov_line_id, l.cost_line_id, l.amount, l.hours
      FROM change_order_line l JOIN change_order o ON o.id = l.change_order_id WHERE o.status = 'approved'`,
    `CREATE VIEW certified_application AS SELECT id, job_id, number, dated, certified_on, gross, retention, due, tax, posting_id
      FROM application WHERE status = 'certified'`,
  ],
};
