import type { Migration } from './migration';

const never = (act: 'UPDATE' | 'DELETE', table: string) =>
  `CREATE TRIGGER ${table}_no_${act.toLowerCase()} BEFORE ${act} ON ${table} BEGIN SELECT RAISE(ABORT, 'What is posted in ${table} is never changed'); END`;
const filled = (table: string, column: string) =>
  `CREATE INDEX ${table}_of_${column} ON ${table} (${column}) WHERE ${column} IS NOT NULL`;

/**
 * Cost charged to the client: the mark of each entry with what is charged for it, charge rates and markups, daywork invoices with the
 * entries they took, credit notes, and jobs that have no price but what is charged. An entry also knows the unit of its quantity.
 */
export const charging: Migration = {
  name: '0038-charging',
  statements: [
    `ALTER TABLE job ADD COLUMN pricing TEXT NOT NULL DEFAULT 'fixed' CHECK (pricing IN ('fixed', 'charged'))`,
    'ALTER TABLE job ADD COLUMN charge_ceiling INTEGER',
    `ALTER TABLE cost_entry ADD COLUMN unit TEXT NOT NULL DEFAULT ''`,
    `ALTER TABLE time_line ADD COLUMN charge TEXT NOT NULL DEFAULT '' CHECK (charge IN ('', 'no', 'yes', 'hold'))`,
    'ALTER TABLE time_line ADD COLUMN charge_from TEXT',
    'ALTER TABLE time_line ADD COLUMN charge_markup INTEGER',
    `CREATE TABLE charge_mark (
      cost_entry_id INTEGER PRIMARY KEY REFERENCES cost_entry(id), job_id INTEGER NOT NULL REFERENCES job(id),
      mark TEXT NOT NULL CHECK (mark IN ('no', 'yes', 'hold')), charge_from TEXT, counts_from TEXT NOT NULL, markup INTEGER,
      charge INTEGER NOT NULL, wording TEXT NOT NULL DEFAULT '')`,
    'CREATE INDEX charge_mark_of_job ON charge_mark (job_id, counts_from)',
    `CREATE TABLE charge_rate (
      id INTEGER PRIMARY KEY, from_day TEXT NOT NULL, job_id INTEGER REFERENCES job(id), client_id INTEGER REFERENCES client(id),
      work_kind_id INTEGER REFERENCES work_kind(id), employee_id INTEGER REFERENCES employee(id), wage_class TEXT NOT NULL DEFAULT '',
      rate INTEGER NOT NULL)`,
    filled('charge_rate', 'job_id'),
    filled('charge_rate', 'client_id'),
    filled('charge_rate', 'work_kind_id'),
    filled('charge_rate', 'employee_id'),
    `CREATE TABLE charge_markup (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job(id),
      cost_type TEXT NOT NULL CHECK (cost_type IN ('labour', 'material', 'subcontract', 'equipment', 'other')),
      markup INTEGER NOT NULL, UNIQUE (job_id, cost_type))`,
    `CREATE TABLE daywork_invoice (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job(id), reference TEXT NOT NULL, dated TEXT NOT NULL,
      cut_off TEXT NOT NULL, shown TEXT NOT NULL CHECK (shown IN ('entries', 'cost-types', 'one-line')),
      status TEXT NOT NULL CHECK (status IN ('draft', 'issued')), wording TEXT NOT NULL DEFAULT '',
      amount INTEGER NOT NULL, tax INTEGER NOT NULL, posting_id INTEGER REFERENCES posting(id), UNIQUE (job_id, reference))`,
    filled('daywork_invoice', 'posting_id'),
    `CREATE TABLE daywork_line (
      daywork_invoice_id INTEGER NOT NULL REFERENCES daywork_invoice(id), cost_entry_id INTEGER NOT NULL REFERENCES cost_entry(id),
      charge INTEGER NOT NULL, PRIMARY KEY (daywork_invoice_id, cost_entry_id))`,
    'CREATE INDEX daywork_line_of_entry ON daywork_line (cost_entry_id)',
    `CREATE TABLE invoice_credit (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job(id), invoice_id INTEGER NOT NULL REFERENCES invoice(id),
      credit_note TEXT NOT NULL, dated TEXT NOT NULL, amount INTEGER NOT NULL, tax INTEGER NOT NULL, in_full INTEGER NOT NULL,
      reason TEXT NOT NULL, posting_id INTEGER NOT NULL REFERENCES posting(id), UNIQUE (job_id, credit_note))`,
    'CREATE INDEX invoice_credit_of_invoice ON invoice_credit (invoice_id, dated)',
    'CREATE INDEX invoice_credit_of_posting ON invoice_credit (posting_id)',
    never('UPDATE', 'invoice_credit'),
    never('DELETE', 'invoice_credit'),
  ],
};
