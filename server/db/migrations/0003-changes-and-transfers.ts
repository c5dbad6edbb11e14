import type { Migration } from './migration';

/**
 * Change orders with who asked, who decided and what was asked for; budget transfers. The two change order tables are built
 * anew, the lines first taken aside, since SQLite cannot widen a CHECK in place; a table of counts refuses to lose a row.
 */
export const changesAndTransfers: Migration = {
  name: '0003-changes-and-transfers',
  statements: [
    'CREATE TABLE change_order_aside AS SELECT * FROM change_order',
    'CREATE TABLE change_order_line_aside AS SELECT * FROM change_order_line',
    'DROP TABLE change_order_line',
    'DROP TABLE change_order',
    `CREATE TABLE change_order (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, number TEXT NOT NULL, title TEXT NOT NULL,
      status TEXT NOT NULL CHECK (status IN ('draft', 'issued', 'approved', 'rejected', 'withdrawn')), raised_on TEXT NOT NULL, issued_on TEXT,
      decided_on TEXT, reference TEXT NOT NULL, reason TEXT NOT NULL DEFAULT '', asked_by TEXT NOT NULL DEFAULT '', days_asked INTEGER, days_granted INTEGER,
      decided_by TEXT NOT NULL DEFAULT '', decision TEXT NOT NULL DEFAULT '', version INTEGER NOT NULL DEFAULT 1, saved_by TEXT NOT NULL DEFAULT '',
      saved_at TEXT NOT NULL DEFAULT '', UNIQUE (job_id, number), CHECK (status IN ('draft', 'issued') OR decided_on IS NOT NULL))`,
    `CREATE TABLE change_order_line (
      id INTEGER PRIMARY KEY, change_order_id INTEGER NOT NULL REFERENCES change_order, side TEXT NOT NULL CHECK (side IN ('price', 'cost')),
      sov_line_id INTEGER REFERENCES sov_line, cost_line_id INTEGER REFERENCES cost_line, description TEXT NOT NULL, section TEXT NOT NULL,
      quantity INTEGER, unit TEXT NOT NULL, hours INTEGER, amount INTEGER NOT NULL, asked INTEGER,
      CHECK (side <> 'price' OR sov_line_id IS NOT NULL), CHECK (side <> 'cost' OR cost_line_id IS NOT NULL))`,
    `INSERT INTO change_order (id, job_id, number, title, status, raised_on, issued_on, decided_on, reference)
      SELECT id, job_id, number, title, status, raised_on, issued_on, decided_on, reference FROM change_order_aside`,
    `INSERT INTO change_order_line (id, change_order_id, side, sov_line_id, cost_line_id, description, section, quantity, unit, hours, amount)
      SELECT id, change_order_id, side, sov_line_id, cost_line_id, description, section, quantity, unit, hours, amount FROM change_order_line_aside`,
    'CREATE TABLE kept_rows (lost INTEGER NOT NULL CHECK (lost = 0))',
    'INSERT INTO kept_rows SELECT (SELECT count(*) FROM change_order_aside) - (SELECT count(*) FROM change_order)',
    'INSERT INTO kept_rows SELECT (SELECT count(*) FROM change_order_line_aside) - (SELECT count(*) FROM change_order_line)',
    'DROP TABLE kept_rows',
    'DROP TABLE change_order_aside',
    'DROP TABLE change_order_line_aside',
    `CREATE INDEX change_order_line_by_order ON change_order_line (change_order_id)`,
    `CREATE INDEX change_order_line_by_cost_line ON change_order_line (cost_line_id) WHERE cost_line_id IS NOT NULL`,
    `CREATE TRIGGER decided_change_kept BEFORE UPDATE ON change_order WHEN OLD.status NOT IN ('draft', 'issued')
      BEGIN SELECT RAISE(ABORT, 'A change order that is decided is never changed'); END`,
    `CREATE TRIGGER decided_change_not_deleted BEFORE DELETE ON change_order WHEN OLD.status <> 'draft'
      BEGIN SELECT RAISE(ABORT, 'A change order that was issued is never deleted'); END`,
    ...['UPDATE', 'DELETE'].map(
      (act) => `CREATE TRIGGER decided_change_line_no_${act.toLowerCase()} BEFORE ${act} ON change_order_line
        WHEN (SELECT status FROM change_order WHERE id = OLD.change_order_id) NOT IN ('draft', 'issued')
        BEGIN SELECT RAISE(ABORT, 'A change order that is decided is never changed'); END`,
    ),
    `CREATE TABLE budget_transfer (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, number INTEGER NOT NULL, dated TEXT NOT NULL, reason TEXT NOT NULL,
      actor TEXT NOT NULL, recorded_at TEXT NOT NULL, UNIQUE (job_id, number))`,
    `CREATE TABLE budget_transfer_line (
      id INTEGER PRIMARY KEY, transfer_id INTEGER NOT NULL REFERENCES budget_transfer, cost_line_id INTEGER NOT NULL REFERENCES cost_line,
      amount INTEGER NOT NULL, hours INTEGER)`,
    `CREATE INDEX budget_transfer_line_by_cost_line ON budget_transfer_line (cost_line_id)`,
    `CREATE INDEX budget_transfer_line_by_transfer ON budget_transfer_line (transfer_id)`,
    ...['budget_transfer', 'budget_transfer_line'].flatMap((table) =>
      ['UPDATE', 'DELETE'].map(
        (act) => `CREATE TRIGGER ${table}_no_${act.toLowerCase()} BEFORE ${act} ON ${table}
          BEGIN SELECT RAISE(ABORT, 'A budget transfer is never changed'); END`,
      ),
    ),
  ],
};
