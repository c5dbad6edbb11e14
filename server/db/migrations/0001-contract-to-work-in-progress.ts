import type { Migration } from './migration';

/**
 * The first schema. Money in minor units, rates in millionths, quantities and hours in ten-thousandths,
 * dates as YYYY-MM-DD. Whatever is posted is guarded by triggers: no update, no delete.
 */
export const contractToWorkInProgress: Migration = {
  name: '0001-contract-to-work-in-progress',
  statements: [
    `CREATE TABLE company (
      id INTEGER PRIMARY KEY CHECK (id = 1), name TEXT NOT NULL, currency TEXT NOT NULL, tax_name TEXT NOT NULL,
      tax_rate INTEGER NOT NULL, year_start_month INTEGER NOT NULL CHECK (year_start_month BETWEEN 1 AND 12), address TEXT NOT NULL)`,
    `CREATE TABLE customer (
      id INTEGER PRIMARY KEY, code TEXT NOT NULL UNIQUE, name TEXT NOT NULL, contact TEXT NOT NULL, email TEXT NOT NULL,
      phone TEXT NOT NULL, address TEXT NOT NULL, terms_days INTEGER CHECK (terms_days >= 0))`,
    `CREATE TABLE vendor (
      id INTEGER PRIMARY KEY, code TEXT NOT NULL UNIQUE, name TEXT NOT NULL, kind TEXT NOT NULL CHECK (kind IN ('supplier', 'subcontractor', '')),
      contact TEXT NOT NULL, email TEXT NOT NULL, phone TEXT NOT NULL, address TEXT NOT NULL, terms_days INTEGER CHECK (terms_days >= 0))`,
    `CREATE TABLE cost_code (id INTEGER PRIMARY KEY, code TEXT NOT NULL UNIQUE, description TEXT NOT NULL, unit TEXT NOT NULL)`,
    `CREATE TABLE job (
      id INTEGER PRIMARY KEY, number TEXT NOT NULL UNIQUE, name TEXT NOT NULL, customer_id INTEGER NOT NULL REFERENCES customer,
      contract_reference TEXT NOT NULL, status TEXT NOT NULL CHECK (status IN ('tender', 'awarded', 'on-site', 'closing-out', 'closed')),
      awarded_on TEXT, starts_on TEXT, finishes_on TEXT, finished_on TEXT, manager TEXT NOT NULL, site TEXT NOT NULL,
      revenue_method TEXT NOT NULL CHECK (revenue_method IN ('cost-to-cost', 'hours', 'physical', 'completed')),
      retention_rate INTEGER NOT NULL, retention_materials_rate INTEGER, retention_step_at INTEGER, retention_step_to INTEGER,
      retention_step_applies TEXT NOT NULL CHECK (retention_step_applies IN ('all', 'further')), retention_cap INTEGER,
      tax_rate INTEGER NOT NULL, terms_days INTEGER CHECK (terms_days >= 0), locked INTEGER NOT NULL DEFAULT 0,
      CHECK (status = 'tender' OR awarded_on IS NOT NULL))`,
    `CREATE TABLE job_draft (id INTEGER PRIMARY KEY, content TEXT NOT NULL, actor TEXT NOT NULL, saved_at TEXT NOT NULL)`,
    `CREATE TABLE sov_line (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, line TEXT NOT NULL, position INTEGER NOT NULL, original INTEGER NOT NULL,
      section TEXT NOT NULL, description TEXT NOT NULL, scheduled_value INTEGER NOT NULL, quantity INTEGER, unit TEXT NOT NULL, retention_rate INTEGER,
      UNIQUE (job_id, line), CHECK (original = 1 OR scheduled_value = 0))`,
    `CREATE TABLE cost_line (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, section TEXT NOT NULL, cost_code_id INTEGER NOT NULL REFERENCES cost_code,
      cost_type TEXT NOT NULL CHECK (cost_type IN ('labour', 'material', 'subcontract', 'equipment', 'other')),
      UNIQUE (job_id, section, cost_code_id, cost_type))`,
    `CREATE TABLE budget_line (
      id INTEGER PRIMARY KEY, cost_line_id INTEGER NOT NULL REFERENCES cost_line, sov_line_id INTEGER REFERENCES sov_line,
      description TEXT NOT NULL, quantity INTEGER, unit TEXT NOT NULL, hours INTEGER, amount INTEGER NOT NULL)`,
    `CREATE INDEX budget_line_by_cost_line ON budget_line (cost_line_id, amount, hours)`,
    `CREATE TABLE change_order (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, number TEXT NOT NULL, title TEXT NOT NULL,
      status TEXT NOT NULL CHECK (status IN ('draft', 'issued', 'approved', 'rejected')), raised_on TEXT NOT NULL, issued_on TEXT,
      decided_on TEXT, reference TEXT NOT NULL, UNIQUE (job_id, number), CHECK (status NOT IN ('approved', 'rejected') OR decided_on IS NOT NULL))`,
    `CREATE TABLE change_order_line (
      id INTEGER PRIMARY KEY, change_order_id INTEGER NOT NULL REFERENCES change_order, side TEXT NOT NULL CHECK (side IN ('price', 'cost')),
      sov_line_id INTEGER REFERENCES sov_line, cost_line_id INTEGER REFERENCES cost_line, description TEXT NOT NULL, section TEXT NOT NULL,
      quantity INTEGER, unit TEXT NOT NULL, hours INTEGER, amount INTEGER NOT NULL,
      CHECK (side <> 'price' OR sov_line_id IS NOT NULL), CHECK (side <> 'cost' OR cost_line_id IS NOT NULL))`,
    `CREATE INDEX change_order_line_by_order ON change_order_line (change_order_id)`,
    `CREATE TABLE commitment (
      id INTEGER PRIMARY KEY, number TEXT NOT NULL UNIQUE, kind TEXT NOT NULL CHECK (kind IN ('purchase-order', 'subcontract')),
      vendor_id INTEGER NOT NULL REFERENCES vendor, dated TEXT NOT NULL, retention_rate INTEGER)`,
    `CREATE TABLE commitment_line (
      id INTEGER PRIMARY KEY, commitment_id INTEGER NOT NULL REFERENCES commitment, line TEXT NOT NULL, cost_line_id INTEGER NOT NULL REFERENCES cost_line,
      description TEXT NOT NULL, quantity INTEGER, unit TEXT NOT NULL, amount INTEGER NOT NULL, closed_on TEXT, UNIQUE (commitment_id, line))`,
    `CREATE INDEX commitment_line_by_cost_line ON commitment_line (cost_line_id)`,
    `CREATE TABLE paper (
      id INTEGER PRIMARY KEY, kind TEXT NOT NULL, job_id INTEGER REFERENCES job, reference TEXT NOT NULL, dated TEXT NOT NULL,
      actor TEXT NOT NULL, recorded_at TEXT NOT NULL, reverses_id INTEGER UNIQUE REFERENCES paper, note TEXT NOT NULL)`,
    `CREATE INDEX paper_by_job ON paper (job_id, dated)`,
    `CREATE TABLE cost_entry (
      id INTEGER PRIMARY KEY, paper_id INTEGER NOT NULL REFERENCES paper, job_id INTEGER NOT NULL REFERENCES job,
      cost_line_id INTEGER NOT NULL REFERENCES cost_line, dated TEXT NOT NULL, amount INTEGER NOT NULL, quantity INTEGER, hours INTEGER,
      reference TEXT NOT NULL, party TEXT NOT NULL, description TEXT NOT NULL, commitment_line_id INTEGER REFERENCES commitment_line,
      uninstalled INTEGER NOT NULL DEFAULT 0, installed_on TEXT)`,
    `CREATE INDEX cost_entry_by_job ON cost_entry (job_id, dated)`,
    // Carries what the ledger totals add up, so that a total over a million entries reads the index alone.
    `CREATE INDEX cost_entry_by_date ON cost_entry (dated, id, amount, hours)`,
    `CREATE INDEX cost_entry_on_commitment ON cost_entry (commitment_line_id, dated, amount) WHERE commitment_line_id IS NOT NULL`,
    `CREATE INDEX cost_entry_uninstalled ON cost_entry (job_id, dated, installed_on, amount) WHERE uninstalled = 1`,
    // Cost, hours and number of entries of a line up to the end of each month it moved in; kept in the transaction that posts.
    `CREATE TABLE cost_total (
      cost_line_id INTEGER NOT NULL REFERENCES cost_line, month INTEGER NOT NULL, cost INTEGER NOT NULL, hours INTEGER NOT NULL, entries INTEGER NOT NULL,
      PRIMARY KEY (cost_line_id, month)) WITHOUT ROWID`,
    `CREATE TABLE application (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, number INTEGER NOT NULL, dated TEXT NOT NULL,
      status TEXT NOT NULL CHECK (status IN ('draft', 'submitted', 'certified')), certified_on TEXT, reference TEXT NOT NULL,
      paper_id INTEGER REFERENCES paper, gross INTEGER, retention INTEGER, due INTEGER, tax INTEGER, UNIQUE (job_id, number),
      CHECK (status <> 'certified' OR (certified_on IS NOT NULL AND paper_id IS NOT NULL AND gross IS NOT NULL AND retention IS NOT NULL AND due IS NOT NULL AND tax IS NOT NULL)))`,
    `CREATE TABLE application_line (
      application_id INTEGER NOT NULL REFERENCES application, sov_line_id INTEGER NOT NULL REFERENCES sov_line, work INTEGER NOT NULL, materials INTEGER NOT NULL,
      certified_work INTEGER, certified_materials INTEGER, PRIMARY KEY (application_id, sov_line_id)) WITHOUT ROWID`,
    `CREATE TABLE retention_release (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, dated TEXT NOT NULL, amount INTEGER NOT NULL, tax INTEGER NOT NULL,
      reference TEXT NOT NULL, paper_id INTEGER NOT NULL REFERENCES paper, UNIQUE (job_id, reference))`,
    `CREATE TABLE receipt (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, application_id INTEGER REFERENCES application, release_id INTEGER REFERENCES retention_release,
      dated TEXT NOT NULL, amount INTEGER NOT NULL, reference TEXT NOT NULL, paper_id INTEGER NOT NULL REFERENCES paper,
      CHECK ((application_id IS NULL) <> (release_id IS NULL)))`,
    `CREATE INDEX receipt_by_application ON receipt (application_id, dated, amount)`,
    `CREATE INDEX receipt_by_release ON receipt (release_id, dated, amount)`,
    `CREATE TABLE forecast (
      id INTEGER PRIMARY KEY, cost_line_id INTEGER NOT NULL REFERENCES cost_line, as_of TEXT NOT NULL,
      method TEXT NOT NULL CHECK (method IN ('to-complete', 'percent', 'hours')), value INTEGER NOT NULL, note TEXT NOT NULL, UNIQUE (cost_line_id, as_of))`,
    `CREATE TABLE journal (id INTEGER PRIMARY KEY, paper_id INTEGER NOT NULL REFERENCES paper, dated TEXT NOT NULL)`,
    `CREATE INDEX journal_by_paper ON journal (paper_id)`,
    `CREATE INDEX journal_by_date ON journal (dated)`,
    `CREATE TABLE journal_line (
      id INTEGER PRIMARY KEY, journal_id INTEGER NOT NULL REFERENCES journal, account TEXT NOT NULL, debit INTEGER NOT NULL CHECK (debit >= 0),
      credit INTEGER NOT NULL CHECK (credit >= 0), CHECK ((debit = 0) <> (credit = 0)))`,
    `CREATE INDEX journal_line_by_journal ON journal_line (journal_id, account, debit, credit)`,
    `CREATE TABLE audit (id INTEGER PRIMARY KEY, at TEXT NOT NULL, actor TEXT NOT NULL, command TEXT NOT NULL, subject TEXT NOT NULL, detail TEXT NOT NULL)`,
    ...['paper', 'cost_entry', 'journal', 'journal_line', 'retention_release', 'receipt', 'audit'].flatMap(keptForEver),
    `CREATE TRIGGER certified_application_kept BEFORE UPDATE ON application WHEN OLD.status = 'certified'
      BEGIN SELECT RAISE(ABORT, 'A certified application is never changed'); END`,
    `CREATE TRIGGER certified_application_not_deleted BEFORE DELETE ON application WHEN OLD.status = 'certified'
      BEGIN SELECT RAISE(ABORT, 'A certified application is never deleted'); END`,
  ],
};

function keptForEver(table: string): string[] {
  return ['UPDATE', 'DELETE'].map(
    (act) =>
      `CREATE TRIGGER ${table}_no_${act.toLowerCase()} BEFORE ${act} ON ${table} BEGIN SELECT RAISE(ABORT, 'What is posted in ${table} is never changed'); END`,
  );
}
