import type { Migration } from './migration';

/**
 * A cost entry names the entry it reverses, and the one it stands in place of where cost was moved. What was delivered and is
 * installed later, as a whole or in parts, has a row for each part.
 */
export const correctionsByEntry: Migration = {
  name: '0012-corrections-by-entry',
  statements: [
    'DROP TRIGGER cost_entry_no_update',
    'ALTER TABLE cost_entry ADD COLUMN reverses_entry_id INTEGER REFERENCES cost_entry',
    'ALTER TABLE cost_entry ADD COLUMN replaces_entry_id INTEGER REFERENCES cost_entry',
    // A reversal was written line by line in the order of what it reverses.
    `CREATE TEMP TABLE reversed_place AS SELECT id, posting_id, row_number() OVER (PARTITION BY posting_id ORDER BY id) AS place FROM cost_entry
      WHERE posting_id IN (SELECT id FROM posting WHERE reverses_id IS NOT NULL UNION SELECT reverses_id FROM posting)`,
    'CREATE INDEX temp.reversed_place_by_posting ON reversed_place (posting_id, place)',
    `UPDATE cost_entry SET reverses_entry_id = (SELECT o.id FROM reversed_place n JOIN posting p ON p.id = n.posting_id
        JOIN reversed_place o ON o.posting_id = p.reverses_id AND o.place = n.place WHERE n.posting_id = cost_entry.posting_id AND n.id = cost_entry.id)
      WHERE posting_id IN (SELECT id FROM posting WHERE reverses_id IS NOT NULL)`,
    'DROP TABLE reversed_place',
    'CREATE UNIQUE INDEX cost_entry_reversed_once ON cost_entry (reverses_entry_id) WHERE reverses_entry_id IS NOT NULL',
    'CREATE UNIQUE INDEX cost_entry_replaced_once ON cost_entry (replaces_entry_id) WHERE replaces_entry_id IS NOT NULL',
    `CREATE TABLE installation (
      id INTEGER PRIMARY KEY, cost_entry_id INTEGER NOT NULL REFERENCES cost_entry, job_id INTEGER NOT NULL REFERENCES job,
      installed_on TEXT NOT NULL, amount INTEGER NOT NULL, quantity INTEGER, undone_at TEXT)`,
    `INSERT INTO installation (cost_entry_id, job_id, installed_on, amount, quantity)
      SELECT id, job_id, installed_on, amount, quantity FROM cost_entry WHERE uninstalled = 1 AND installed_on IS NOT NULL`,
    'CREATE INDEX installation_by_job ON installation (job_id, installed_on, amount) WHERE undone_at IS NULL',
    'CREATE INDEX installation_by_entry ON installation (cost_entry_id, installed_on, amount) WHERE undone_at IS NULL',
    `CREATE TRIGGER installation_only_undone BEFORE UPDATE ON installation
      WHEN OLD.undone_at IS NOT NULL OR NEW.cost_entry_id <> OLD.cost_entry_id OR NEW.installed_on <> OLD.installed_on OR NEW.amount <> OLD.amount
      BEGIN SELECT RAISE(ABORT, 'An installation is undone, never changed'); END`,
    `CREATE TRIGGER installation_no_delete BEFORE DELETE ON installation BEGIN SELECT RAISE(ABORT, 'An installation is undone, never deleted'); END`,
    // Each part that is installed, the first with the hours of the entry, and what is left of it.
    `CREATE VIEW installed_part AS
      SELECT i.cost_entry_id, i.installed_on, i.amount, i.quantity,
          CASE WHEN i.id = (SELECT min(id) FROM installation f WHERE f.cost_entry_id = i.cost_entry_id AND f.undone_at IS NULL) THEN e.hours END AS hours
        FROM installation i JOIN cost_entry e ON e.id = i.cost_entry_id WHERE i.undone_at IS NULL
      UNION ALL SELECT e.id, NULL, e.amount - sum(i.amount), e.quantity - sum(i.quantity), NULL
        FROM installation i JOIN cost_entry e ON e.id = i.cost_entry_id WHERE i.undone_at IS NULL GROUP BY e.id HAVING e.amount <> sum(i.amount)`,
    'DROP INDEX cost_entry_uninstalled',
    'ALTER TABLE cost_entry DROP COLUMN installed_on',
    'CREATE INDEX cost_entry_uninstalled ON cost_entry (job_id, posted_on, amount) WHERE uninstalled = 1',
    `CREATE TRIGGER cost_entry_no_update BEFORE UPDATE ON cost_entry BEGIN SELECT RAISE(ABORT, 'What is posted in cost_entry is never changed'); END`,
  ],
};
