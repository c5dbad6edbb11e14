import type { Migration } from './migration';

const COST_TYPE = `TEXT NOT NULL CHECK (cost_type IN ('labour', 'material', 'subcontract', 'equipment', 'other'))`;

/**
 * The price book, estimates, and what an award took from an estimate. Unit costs in ten-thousandths of the currency's
 * main unit. The lines of an estimate that is not a draft any more are guarded: what was offered stays as it was.
 */
export const priceToAward: Migration = {
  name: '0002-price-to-award',
  statements: [
    `CREATE TABLE price_item (
      id INTEGER PRIMARY KEY, code TEXT NOT NULL UNIQUE, description TEXT NOT NULL, unit TEXT NOT NULL, cost_type ${COST_TYPE},
      cost_code_id INTEGER NOT NULL REFERENCES cost_code, wage_class TEXT NOT NULL, unit_cost INTEGER NOT NULL, markup_rate INTEGER,
      vendor_id INTEGER REFERENCES vendor, checked_on TEXT)`,
    `CREATE TABLE price_change (
      id INTEGER PRIMARY KEY, price_item_id INTEGER NOT NULL REFERENCES price_item ON DELETE CASCADE, dated TEXT NOT NULL, unit_cost INTEGER NOT NULL, reason TEXT NOT NULL,
      actor TEXT NOT NULL)`,
    `CREATE INDEX price_change_by_item ON price_change (price_item_id, dated)`,
    `CREATE TABLE build_up (id INTEGER PRIMARY KEY, code TEXT NOT NULL UNIQUE, description TEXT NOT NULL, unit TEXT NOT NULL)`,
    `CREATE TABLE build_up_component (
      id INTEGER PRIMARY KEY, build_up_id INTEGER NOT NULL REFERENCES build_up ON DELETE CASCADE, price_item_id INTEGER REFERENCES price_item,
      component_id INTEGER REFERENCES build_up, quantity INTEGER NOT NULL, waste_rate INTEGER NOT NULL,
      CHECK ((price_item_id IS NULL) <> (component_id IS NULL)))`,
    `CREATE INDEX build_up_component_by_build_up ON build_up_component (build_up_id)`,
    `CREATE TABLE estimate (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, number INTEGER NOT NULL, name TEXT NOT NULL,
      status TEXT NOT NULL CHECK (status IN ('draft', 'sent', 'accepted')), chosen INTEGER NOT NULL DEFAULT 0, overhead_rate INTEGER NOT NULL,
      profit_rate INTEGER NOT NULL, rounding INTEGER NOT NULL, sent_on TEXT, reference TEXT NOT NULL, accepted_on TEXT, acceptance TEXT NOT NULL,
      version INTEGER NOT NULL DEFAULT 1, saved_by TEXT NOT NULL, saved_at TEXT NOT NULL, UNIQUE (job_id, number),
      CHECK (status = 'draft' OR sent_on IS NOT NULL), CHECK (status <> 'accepted' OR accepted_on IS NOT NULL))`,
    `CREATE TABLE estimate_markup (
      id INTEGER PRIMARY KEY, estimate_id INTEGER NOT NULL REFERENCES estimate ON DELETE CASCADE, cost_type TEXT, section TEXT, rate INTEGER NOT NULL,
      UNIQUE (estimate_id, cost_type, section), CHECK ((cost_type IS NULL) <> (section IS NULL)))`,
    `CREATE TABLE estimate_line (
      id INTEGER PRIMARY KEY, estimate_id INTEGER NOT NULL REFERENCES estimate ON DELETE CASCADE, line TEXT NOT NULL, section TEXT NOT NULL, description TEXT NOT NULL,
      quantity INTEGER NOT NULL, unit TEXT NOT NULL, build_up TEXT NOT NULL, markup_rate INTEGER, UNIQUE (estimate_id, line))`,
    `CREATE TABLE estimate_part (
      id INTEGER PRIMARY KEY, estimate_line_id INTEGER NOT NULL REFERENCES estimate_line ON DELETE CASCADE, price_item TEXT NOT NULL, description TEXT NOT NULL,
      cost_code_id INTEGER NOT NULL REFERENCES cost_code, cost_type ${COST_TYPE}, basis TEXT NOT NULL CHECK (basis IN ('per-unit', 'in-all')),
      quantity INTEGER NOT NULL, unit TEXT NOT NULL, unit_cost INTEGER NOT NULL, markup_rate INTEGER)`,
    `CREATE INDEX estimate_part_by_line ON estimate_part (estimate_line_id)`,
    `CREATE TABLE estimate_price (
      id INTEGER PRIMARY KEY, estimate_id INTEGER NOT NULL REFERENCES estimate ON DELETE CASCADE, build_up TEXT NOT NULL, cost_code_id INTEGER NOT NULL REFERENCES cost_code,
      cost_type ${COST_TYPE}, markup_rate INTEGER, unit_cost INTEGER NOT NULL, hours INTEGER NOT NULL)`,
    `CREATE INDEX estimate_price_by_estimate ON estimate_price (estimate_id)`,
    ...['estimate_line', 'estimate_price', 'estimate_markup'].flatMap((table) =>
      ['UPDATE', 'DELETE'].map(
        (act) => `CREATE TRIGGER ${table}_no_${act.toLowerCase()}_once_sent BEFORE ${act} ON ${table}
          WHEN (SELECT status FROM estimate WHERE id = OLD.estimate_id) <> 'draft'
          BEGIN SELECT RAISE(ABORT, 'An estimate that was sent is never changed'); END`,
      ),
    ),
    `ALTER TABLE budget_line ADD COLUMN estimate_line_id INTEGER REFERENCES estimate_line`,
    `CREATE INDEX budget_line_by_estimate_line ON budget_line (estimate_line_id) WHERE estimate_line_id IS NOT NULL`,
    `CREATE TABLE award (
      sov_line_id INTEGER PRIMARY KEY REFERENCES sov_line, estimate_id INTEGER NOT NULL REFERENCES estimate,
      net INTEGER NOT NULL, spread INTEGER NOT NULL, difference INTEGER NOT NULL)`,
    `CREATE TABLE award_line (
      estimate_line_id INTEGER PRIMARY KEY REFERENCES estimate_line, sov_line_id INTEGER NOT NULL REFERENCES award)`,
  ],
};
