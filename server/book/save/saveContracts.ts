import type { BookBilling } from '../checks/billingOfBook';
import { bookTaxRate } from '../checks/billingOfBook';
import type { BookCheck } from '../checks/checkBook';
import { joinKey } from '../checks/keys';
import { type Sql } from '../../db/sql';
import type { CostLines } from '../../costs/costEntries';
import type { Actor } from '../../ledger/audit';
import { bulkInsert, saveKeyed, type BookIds } from './saveKeyed';
import type { BookContents } from '../bookContents';
import { saveJobFiles, saveBillingSchedules, savePlans, saveTemplates } from './saveJobFiles';
import { saveOffers } from './saveOffers';
import { saveChangeOrders, saveTransfers } from './saveChanges';
import { saveQuotations } from './saveQuotations';
import { acceptedEstimates, saveAwards, saveEstimates, savePrices } from './savePricing';

/** Saves everything of a checked book that is set up rather than posted. */
export async function saveContracts(
  sql: Sql,
  actor: Actor,
  check: BookCheck,
  ids: BookIds,
  billing: Map<string, BookBilling>,
  costLines: CostLines,
  contents: BookContents,
): Promise<void> {
  await saveCompany(sql, check);
  await saveParties(sql, check, ids);
  await savePrices(sql, actor, check, ids);
  await saveJobs(sql, check, ids);
  await saveTemplates(sql, actor, check);
  await saveJobFiles(sql, actor, check, ids, contents.sizes);
  await saveEstimates(sql, actor, check, ids);
  await saveQuotations(sql, actor, check, ids);
  await saveSchedules(sql, check, ids, billing);
  await saveBudgets(sql, check, ids, costLines);
  await saveAwards(sql, check, ids);
  await savePlans(sql, check, ids, costLines);
  await saveBillingSchedules(sql, check, ids);
  await saveChangeOrders(sql, actor, check, ids, costLines);
  await saveOffers(sql, check, ids, contents.outboxNames);
  await saveTransfers(sql, actor, check, ids, costLines);
  await saveCommitments(sql, check, ids, costLines);
  await saveForecasts(sql, check, ids, costLines);
}

async function saveCompany(sql: Sql, { rows, existing }: BookCheck): Promise<void> {
  const row = rows.company[0];
  if (!row || existing.company) return;
  await sql.run(
    'INSERT INTO company (id, name, currency, tax_name, tax_rate, year_start_month, address, job_number_pattern) VALUES (1, $1, $2, $3, $4, $5, $6, $7)',
    [
      row.name,
      row.currency,
      row.tax_name ?? '',
      row.tax_percent ?? 0,
      row.year_start_month ?? 1,
      row.address ?? '',
      row.job_number_pattern ?? '',
    ],
  );
}

async function saveParties(sql: Sql, { rows }: BookCheck, ids: BookIds): Promise<void> {
  const contact = ['contact', 'email', 'phone', 'address', 'terms_days'];
  const contactOf = (row: {
    contact?: string | null;
    email?: string | null;
    phone?: string | null;
    address?: string | null;
    terms_days?: number | null;
  }) => [row.contact ?? '', row.email ?? '', row.phone ?? '', row.address ?? '', row.terms_days ?? null];
  await saveKeyed(
    sql,
    'client',
    ['code', 'name', ...contact],
    rows.customers,
    ids.customers,
    (row) => row.customer!,
    (row) => [row.customer, row.name, ...contactOf(row)],
  );
  await saveKeyed(
    sql,
    'vendor',
    ['code', 'name', 'kind', ...contact],
    rows.vendors,
    ids.vendors,
    (row) => row.vendor!,
    (row) => [row.vendor, row.name, row.kind ?? '', ...contactOf(row)],
  );
  await saveKeyed(
    sql,
    'cost_code',
    ['code', 'description', 'unit'],
    rows.cost_codes,
    ids.costCodes,
    (row) => row.cost_code!,
    (row) => [row.cost_code, row.description, row.unit ?? ''],
  );
}

export const JOB_COLUMNS = [
  'number',
  'name',
  'client_id',
  'contract_reference',
  'status',
  'awarded_on',
  'starts_on',
  'finishes_on',
  'finished_on',
  'manager',
  'site',
  'revenue_method',
  'retention_rate',
  'retention_materials_rate',
  'retention_step_at',
  'retention_step_to',
  'retention_step_applies',
  'retention_cap',
  'tax_rate',
  'terms_days',
  'estimator',
  'defects_end',
  'no_retention',
] as const;

async function saveJobs(sql: Sql, { rows, existing }: BookCheck, ids: BookIds): Promise<void> {
  const taxRate = bookTaxRate(rows, existing.companyTaxRate);
  await saveKeyed(
    sql,
    'job',
    [...JOB_COLUMNS, 'locked'],
    rows.jobs,
    ids.jobs,
    (row) => row.job!,
    (row) => [
      row.job,
      row.name,
      ids.customers.get(row.customer!),
      row.contract_reference ?? '',
      row.status ?? 'awarded',
      row.awarded_on ?? null,
      row.starts_on ?? null,
      row.finishes_on ?? null,
      row.finished_on ?? null,
      row.manager ?? '',
      row.site ?? '',
      row.revenue_method ?? 'cost-to-cost',
      row.retention_percent ?? 0,
      row.retention_on_materials_percent ?? null,
      row.retention_step_at_percent ?? null,
      row.retention_step_to_percent ?? null,
      row.retention_step_applies ?? 'all',
      row.retention_cap_percent ?? null,
      row.tax_percent ?? taxRate,
      row.terms_days ?? null,
      row.estimator ?? '',
      row.defects_end ?? null,
      row.no_retention ? 1 : 0,
      row.locked ? 1 : 0,
    ],
  );
}

/** The lines in SOV order: as the book lists them, then those its change orders bring. */
async function saveSchedules(sql: Sql, { existing }: BookCheck, ids: BookIds, billing: Map<string, BookBilling>): Promise<void> {
  const rows = [...billing].flatMap(([job, { sovLines }]) =>
    sovLines
      .map((line, position) => ({ job, line, position }))
      .filter((it) => !existing.sovLines.has(joinKey(job, it.line.line))),
  );
  await saveKeyed(
    sql,
    'sov_line',
    ['job_id', 'line', 'position', 'original', 'section', 'description', 'scheduled_value', 'quantity', 'unit', 'retention_rate'],
    rows,
    ids.sovLines,
    ({ job, line }) => joinKey(job, line.line),
    ({ job, line, position }) => [
      ids.jobs.get(job),
      line.line,
      position,
      line.original ? 1 : 0,
      line.section,
      line.description,
      line.scheduledValue,
      line.quantity,
      line.unit,
      line.retentionRate,
    ],
  );
}

async function saveBudgets(sql: Sql, check: BookCheck, ids: BookIds, costLines: CostLines): Promise<void> {
  const { rows } = check;
  const accepted = acceptedEstimates(check);
  const toSave = rows.budget.map((row) => [
    costLines.idOf(ids.jobs.get(row.job!)!, row.section ?? '', ids.costCodes.get(row.cost_code!)!, row.cost_type!),
    row.sov_line ? ids.sovLines.get(joinKey(row.job!, row.sov_line)) : null,
    row.description ?? '',
    row.quantity ?? null,
    row.unit ?? '',
    row.hours ?? null,
    row.amount,
    row.estimate_line ? ids.estimateLines.get(joinKey(row.job!, accepted.get(row.job!)!, row.estimate_line)) : null,
  ]);
  await costLines.flush();
  await bulkInsert(
    sql,
    'budget_line',
    ['cost_line_id', 'sov_line_id', 'description', 'quantity', 'unit', 'hours', 'amount', 'estimate_line_id'],
    toSave,
  );
}

async function saveCommitments(sql: Sql, { rows, existing }: BookCheck, ids: BookIds, costLines: CostLines): Promise<void> {
  const firsts = new Map(rows.commitments.toReversed().map((row) => [row.commitment!, row]));
  const fresh = [...firsts.values()].toReversed().filter((row) => !existing.commitments.has(row.commitment!));
  await saveKeyed(
    sql,
    'commitment',
    ['number', 'kind', 'vendor_id', 'dated', 'retention_rate'],
    fresh,
    ids.commitments,
    (row) => row.commitment!,
    (row) => [row.commitment, row.kind, ids.vendors.get(row.vendor!), row.dated, row.retention_percent ?? null],
  );
  const lines = rows.commitments.map((row) => ({
    row,
    costLine: costLines.idOf(ids.jobs.get(row.job!)!, row.section ?? '', ids.costCodes.get(row.cost_code!)!, row.cost_type!),
  }));
  await costLines.flush();
  await saveKeyed(
    sql,
    'commitment_line',
    ['commitment_id', 'line', 'cost_line_id', 'description', 'quantity', 'unit', 'amount', 'closed_on'],
    lines,
    ids.commitmentLines,
    ({ row }) => joinKey(row.commitment!, row.line!),
    ({ row, costLine }) => [
      ids.commitments.get(row.commitment!),
      row.line,
      costLine,
      row.description ?? '',
      row.quantity ?? null,
      row.unit ?? '',
      row.amount,
      row.closed_on ?? null,
    ],
  );
}

async function saveForecasts(sql: Sql, check: BookCheck, ids: BookIds, costLines: CostLines): Promise<void> {
  const toSave = check.rows.forecasts.map((row) => [
    costLines.idOf(ids.jobs.get(row.job!)!, row.section ?? '', ids.costCodes.get(row.cost_code!)!, row.cost_type!),
    row.as_of,
    row.method,
    check.forecastValues.get(row.row),
    row.note ?? '',
  ]);
  await costLines.flush();
  await bulkInsert(sql, 'forecast', ['cost_line_id', 'as_of', 'method', 'value', 'note'], toSave);
}
