import type { Reader } from '../../db/sql';
import { joinKey } from './keys';

export interface ExistingCommitment {
  kind: string;
  vendor: string;
  dated: string;
  retentionRate: number | null;
}

/** What the database already has, as far as a book may refer to it or collide with it. Keys → ids. */
export interface Existing {
  company: Record<string, unknown> | null;
  currency: string | null;
  companyTaxRate: number;
  customers: Map<string, number>;
  vendors: Map<string, number>;
  costCodes: Map<string, number>;
  priceItems: Map<string, number>;
  buildUps: Map<string, number>;
  jobs: Map<string, ExistingJob>;
  /** job + number. */
  estimates: Map<string, number>;
  /** Postings that went to clients, by their link. */
  offers: Map<string, number>;
  checkTemplates: Map<string, number>;
  jobTemplates: Map<string, number>;
  /** job + number. */
  quotations: Map<string, number>;
  terms: Map<string, number>;
  /** job → the number of its accepted estimate. */
  acceptedEstimates: Map<string, number>;
  /** job + line. */
  sovLines: Map<string, number>;
  /** job + number. */
  changeOrders: Map<string, number>;
  /** job + name. */
  sections: Map<string, number>;
  /** job + section + code + type. */
  plannedLines: Map<string, number>;
  /** Jobs that have a billing schedule. */
  scheduled: Map<string, number>;
  /** job + number. */
  transfers: Map<string, number>;
  commitments: Map<string, ExistingCommitment & { id: number }>;
  /** commitment + line → job number. */
  commitmentLines: Map<string, { id: number; job: string }>;
  /** job + number. */
  applications: Map<string, { id: number; dated: string }>;
  /** job + reference. */
  releases: Map<string, number>;
  /** job + as_of + section + code + type. */
  forecasts: Map<string, number>;
}

export interface ExistingJob {
  id: number;
  status: string;
  awardedOn: string | null;
  lastApplicationOn: string | null;
  locked: boolean;
  /** There is an original budget, or there is none yet. */
  budgeted: boolean;
}

type Row = Record<string, string & number>;

/** Reads all keys of the database. */
export async function readExisting(sql: Reader): Promise<Existing> {
  const company = (await sql.anyRows('SELECT * FROM company'))[0] ?? null;
  const byKey = async <T>(query: string, columns: readonly string[], value: (row: Row) => T) =>
    new Map(((await sql.anyRows(query)) as Row[]).map((row) => [joinKey(...columns.map((it) => row[it]!)), value(row)]));
  const id = (row: Row): number => row.id!;
  return {
    company,
    currency: (company?.currency as string) ?? null,
    companyTaxRate: (company?.tax_rate as number) ?? 0,
    customers: await byKey('SELECT id, code FROM client', ['code'], id),
    vendors: await byKey('SELECT id, code FROM vendor', ['code'], id),
    costCodes: await byKey('SELECT id, code FROM cost_code', ['code'], id),
    priceItems: await byKey('SELECT id, code FROM price_item', ['code'], id),
    buildUps: await byKey('SELECT id, code FROM build_up', ['code'], id),
    estimates: await byKey(
      'SELECT e.id, job.number AS job, e.number FROM estimate e JOIN job ON job.id = e.job_id',
      ['job', 'number'],
      id,
    ),
    quotations: await byKey(
      'SELECT q.id, job.number AS job, q.number FROM quotation q JOIN job ON job.id = q.job_id',
      ['job', 'number'],
      id,
    ),
    offers: await byKey('SELECT id, token FROM offer', ['token'], id),
    checkTemplates: await byKey('SELECT id, name FROM check_template', ['name'], id),
    jobTemplates: await byKey('SELECT id, name FROM job_template', ['name'], id),
    terms: await byKey('SELECT id, name FROM terms_text', ['name'], id),
    acceptedEstimates: await byKey(
      `SELECT job.number AS job, e.number FROM estimate e JOIN job ON job.id = e.job_id WHERE e.status = 'accepted'`,
      ['job'],
      (row) => row.number! as number,
    ),
    jobs: await byKey(
      `SELECT job.*, (SELECT max(dated) FROM application WHERE job_id = job.id) AS last_application,
        EXISTS (SELECT 1 FROM budget_line b JOIN cost_line l ON l.id = b.cost_line_id WHERE l.job_id = job.id) AS budgeted FROM job`,
      ['number'],
      (row): ExistingJob => ({
        id: row.id!,
        status: row.status!,
        awardedOn: row.awarded_on ?? null,
        lastApplicationOn: row.last_application ?? null,
        locked: row.locked === 1,
        budgeted: row.budgeted === 1,
      }),
    ),
    sovLines: await byKey(
      'SELECT s.id, job.number, s.line FROM sov_line s JOIN job ON job.id = s.job_id',
      ['number', 'line'],
      id,
    ),
    changeOrders: await byKey(
      'SELECT c.id, job.number AS job, c.number FROM change_order c JOIN job ON job.id = c.job_id',
      ['job', 'number'],
      id,
    ),
    sections: await byKey(
      'SELECT s.id, job.number AS job, s.name FROM job_section s JOIN job ON job.id = s.job_id',
      ['job', 'name'],
      id,
    ),
    plannedLines: await byKey(
      `SELECT l.id, j.number, l.section, c.code, l.cost_type FROM cost_line_plan p JOIN cost_line l ON l.id = p.cost_line_id
        JOIN job j ON j.id = l.job_id JOIN cost_code c ON c.id = l.cost_code_id`,
      ['number', 'section', 'code', 'cost_type'],
      id,
    ),
    scheduled: await byKey('SELECT DISTINCT j.id, j.number FROM instalment i JOIN job j ON j.id = i.job_id', ['number'], id),
    transfers: await byKey(
      'SELECT t.id, job.number AS job, t.number FROM budget_transfer t JOIN job ON job.id = t.job_id',
      ['job', 'number'],
      id,
    ),
    commitments: await byKey(
      'SELECT c.*, v.code AS vendor FROM commitment c JOIN vendor v ON v.id = c.vendor_id',
      ['number'],
      (row) => ({
        id: row.id!,
        kind: row.kind!,
        vendor: row.vendor!,
        dated: row.dated!,
        retentionRate: row.retention_rate ?? null,
      }),
    ),
    commitmentLines: await byKey(
      `SELECT l.id, c.number, l.line, job.number AS job FROM commitment_line l JOIN commitment c ON c.id = l.commitment_id
        JOIN cost_line k ON k.id = l.cost_line_id JOIN job ON job.id = k.job_id`,
      ['number', 'line'],
      (row) => ({ id: row.id!, job: row.job! as string }),
    ),
    applications: await byKey(
      'SELECT a.id, a.dated, job.number AS job, a.number FROM application a JOIN job ON job.id = a.job_id',
      ['job', 'number'],
      (row) => ({ id: row.id!, dated: row.dated! as string }),
    ),
    releases: await byKey(
      'SELECT r.id, job.number, r.reference FROM retention_release r JOIN job ON job.id = r.job_id',
      ['number', 'reference'],
      id,
    ),
    forecasts: await byKey(
      `SELECT f.id, job.number, f.as_of, k.section, c.code, k.cost_type FROM forecast f JOIN cost_line k ON k.id = f.cost_line_id
        JOIN job ON job.id = k.job_id JOIN cost_code c ON c.id = k.cost_code_id`,
      ['number', 'as_of', 'section', 'code', 'cost_type'],
      id,
    ),
  };
}
