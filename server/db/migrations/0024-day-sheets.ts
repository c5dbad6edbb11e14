import type { Migration } from './migration';

/** Day sheets from the site: one a job, day and crew, with its entries and what the client signed. */
export const daySheets: Migration = {
  name: '0024-day-sheets',
  statements: [
    `CREATE TABLE day_sheet (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job(id), dated TEXT NOT NULL, crew TEXT NOT NULL,
      weather TEXT NOT NULL DEFAULT '', notes TEXT NOT NULL DEFAULT '', left_out TEXT NOT NULL DEFAULT '',
      sheet TEXT NOT NULL DEFAULT '', written_by TEXT NOT NULL, written_at TEXT NOT NULL, UNIQUE (job_id, dated, crew)
    )`,
    'CREATE INDEX day_sheet_dated ON day_sheet (dated)',
    `CREATE TABLE day_entry (
      id INTEGER PRIMARY KEY, day_sheet_id INTEGER NOT NULL REFERENCES day_sheet(id), kind TEXT NOT NULL CHECK (kind IN ('hours', 'quantities', 'equipment',
        'subcontractors', 'deliveries', 'visitors', 'incidents', 'instructions', 'photos')),
      employee_id INTEGER REFERENCES employee(id), section TEXT NOT NULL DEFAULT '', cost_code_id INTEGER REFERENCES cost_code(id),
      work_kind_id INTEGER REFERENCES work_kind(id), pay TEXT CHECK (pay IN ('regular', 'overtime', 'double')), hours INTEGER, quantity INTEGER, unit TEXT NOT NULL DEFAULT '',
      headcount INTEGER, name TEXT NOT NULL DEFAULT '', reference TEXT NOT NULL DEFAULT '', description TEXT NOT NULL DEFAULT '',
      photo TEXT NOT NULL DEFAULT '', charged INTEGER NOT NULL DEFAULT 0, signature INTEGER NOT NULL DEFAULT 0
    )`,
    'CREATE INDEX day_entry_sheet ON day_entry (day_sheet_id)',
    'CREATE INDEX day_entry_cost_code ON day_entry (cost_code_id)',
    'CREATE INDEX day_entry_employee ON day_entry (employee_id)',
    `CREATE TABLE day_signature (
      id INTEGER PRIMARY KEY, day_sheet_id INTEGER NOT NULL REFERENCES day_sheet(id), number INTEGER NOT NULL, name TEXT NOT NULL,
      office TEXT NOT NULL DEFAULT '', signed_on TEXT NOT NULL, strokes TEXT NOT NULL, UNIQUE (day_sheet_id, number)
    )`,
    `CREATE TRIGGER day_signature_stays BEFORE UPDATE ON day_signature
      BEGIN SELECT RAISE(ABORT, 'What a client signed is never changed'); END`,
    `CREATE TRIGGER day_signature_not_deleted BEFORE DELETE ON day_signature
      BEGIN SELECT RAISE(ABORT, 'What a client signed is never deleted'); END`,
  ],
};
