import { shape, t } from '../db/fields';
import { copyFileSync, createWriteStream, existsSync, mkdirSync, type WriteStream } from 'node:fs';
import { once } from 'node:events';
import { join } from 'node:path';
import { formatCents } from '../../core/money/cents';
import { formatPercentShortest, formatQuantity } from '../../core/money/rate';
import { formatUnitCost } from '../../core/prices/unitCost';
import { contentName, type Stores } from '../attachments/contents';
import { csvText } from '../reports/reportCsv';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import { BOOK_FILE_NAMES, columnsOf, type AnyColumn, type BookFileName } from './format/bookFiles';

/** One query a file: its result columns bear docs/book.md's names; `id` orders and pages it. */
const QUERIES: Record<BookFileName, string> = {
  company:
    'SELECT id, name, currency, tax_name, tax_rate AS tax_percent, year_start_month, address, job_number_pattern FROM company',
  customers: 'SELECT id, code AS customer, name, contact, email, phone, address, terms_days FROM client',
  vendors: 'SELECT id, code AS vendor, name, kind, contact, email, phone, address, terms_days FROM vendor',
  cost_codes: 'SELECT id, code AS cost_code, description, unit FROM cost_code',
  terms: 'SELECT id, name, body FROM terms_text',
  checklist_templates: `SELECT t.id * 1000000 + i.key AS id, t.name AS template, i.value AS item FROM check_template t, json_each(t.items) i`,
  job_templates: 'SELECT id, name AS template, content FROM job_template',
  quotations: `SELECT q.id, j.number AS job, q.number AS quotation, e.number AS estimate, q.title, q.presentation, q.quantities, q.unit_prices, q.contact, q.email, q.introduction,
    q.exclusions, q.terms, q.valid_until, q.status, q.sent_on, q.answered_on, q.answered_by FROM quotation q JOIN job j ON j.id = q.job_id JOIN estimate e ON e.id = q.estimate_id`,
  quotation_alternates: `SELECT a.id, j.number AS job, q.number AS quotation, a.name, a.amount
    FROM quotation_alternate a JOIN quotation q ON q.id = a.quotation_id JOIN job j ON j.id = q.job_id`,
  quotation_payments: `SELECT p.id, j.number AS job, q.number AS quotation, p.name, p.rate AS percent, p.amount, p.due_on, p.stage
    FROM quotation_payment p JOIN quotation q ON q.id = p.quotation_id JOIN job j ON j.id = q.job_id`,
  price_items: `SELECT p.id, p.code AS price_item, p.description, p.unit, p.cost_type, c.code AS cost_code, p.wage_class, p.unit_cost, p.markup_rate AS markup_percent,
    v.code AS vendor, p.checked_on FROM price_item p JOIN cost_code c ON c.id = p.cost_code_id LEFT JOIN vendor v ON v.id = p.vendor_id`,
  price_history:
    'SELECT h.id, p.code AS price_item, h.dated, h.unit_cost, h.reason FROM price_change h JOIN price_item p ON p.id = h.price_item_id',
  build_ups: 'SELECT id, code AS build_up, description, unit FROM build_up',
  build_up_components: `SELECT x.id, b.code AS build_up, p.code AS price_item, s.code AS component, x.quantity, nullif(x.waste_rate, 0) AS waste_percent
    FROM build_up_component x JOIN build_up b ON b.id = x.build_up_id LEFT JOIN price_item p ON p.id = x.price_item_id LEFT JOIN build_up s ON s.id = x.component_id`,
  estimates: `SELECT e.id, j.number AS job, e.number AS estimate, e.name, e.status, e.chosen, nullif(e.overhead_rate, 0) AS overhead_percent, nullif(e.profit_rate, 0) AS profit_percent,
    nullif(e.rounding, 0) AS rounding, e.sent_on, e.reference, e.accepted_on, e.acceptance FROM estimate e JOIN job j ON j.id = e.job_id`,
  estimate_markups: `SELECT m.id, j.number AS job, e.number AS estimate, m.cost_type, m.section, m.rate AS markup_percent
    FROM estimate_markup m JOIN estimate e ON e.id = m.estimate_id JOIN job j ON j.id = e.job_id`,
  estimate_lines: `SELECT l.id, j.number AS job, e.number AS estimate, l.line AS estimate_line, l.section, l.description, l.quantity, l.unit, l.build_up, l.markup_rate AS markup_percent
    FROM estimate_line l JOIN estimate e ON e.id = l.estimate_id JOIN job j ON j.id = e.job_id`,
  estimate_parts: `SELECT p.id, j.number AS job, e.number AS estimate, l.line AS estimate_line, p.price_item, p.description, c.code AS cost_code, p.cost_type,
    nullif(p.basis, 'per-unit') AS basis, p.quantity, p.unit, p.unit_cost, p.markup_rate AS markup_percent
    FROM estimate_part p JOIN estimate_line l ON l.id = p.estimate_line_id JOIN estimate e ON e.id = l.estimate_id JOIN job j ON j.id = e.job_id JOIN cost_code c ON c.id = p.cost_code_id`,
  estimate_prices: `SELECT p.id, j.number AS job, e.number AS estimate, p.build_up, c.code AS cost_code, p.cost_type, p.markup_rate AS markup_percent, p.unit_cost, nullif(p.hours, 0) AS hours
    FROM estimate_price p JOIN estimate e ON e.id = p.estimate_id JOIN job j ON j.id = e.job_id JOIN cost_code c ON c.id = p.cost_code_id`,
  awards: `SELECT a.sov_line_id AS id, j.number AS job, s.line AS sov_line, a.net, a.spread, a.difference
    FROM award a JOIN sov_line s ON s.id = a.sov_line_id JOIN job j ON j.id = s.job_id`,
  award_lines: `SELECT a.estimate_line_id AS id, j.number AS job, l.line AS estimate_line, s.line AS sov_line
    FROM award_line a JOIN estimate_line l ON l.id = a.estimate_line_id JOIN sov_line s ON s.id = a.sov_line_id JOIN job j ON j.id = s.job_id`,
  jobs: `SELECT j.id, j.number AS job, j.name, c.code AS customer, contract_reference, status, awarded_on, starts_on, finishes_on, finished_on, manager, site, revenue_method,
    retention_rate AS retention_percent, retention_materials_rate AS retention_on_materials_percent, retention_step_at AS retention_step_at_percent,
    retention_step_to AS retention_step_to_percent, retention_step_applies, retention_cap AS retention_cap_percent, tax_rate AS tax_percent, j.terms_days, j.estimator, j.defects_end, j.no_retention, j.locked
    FROM job j JOIN client c ON c.id = j.client_id`,
  job_sections:
    'SELECT s.id, j.number AS job, s.name AS section, s.starts_on, s.finishes_on, s.started_on, s.finished_on FROM job_section s JOIN job j ON j.id = s.job_id',
  cost_plan: `SELECT p.cost_line_id AS id, j.number AS job, l.section, c.code AS cost_code, l.cost_type, p.starts_on, p.finishes_on
    FROM cost_line_plan p JOIN cost_line l ON l.id = p.cost_line_id JOIN job j ON j.id = l.job_id JOIN cost_code c ON c.id = l.cost_code_id`,
  billing_instalments: `SELECT i.id, j.number AS job, i.number AS instalment, i.name, i.due, i.day, nullif(i.days, 0) AS days, i.taken_from, i.rate AS percent, i.amount
    FROM instalment i JOIN job j ON j.id = i.job_id`,
  instalment_stages: `SELECT s.id, j.number AS job, i.number AS instalment, s.section
    FROM instalment_stage s JOIN instalment i ON i.id = s.instalment_id JOIN job j ON j.id = i.job_id`,
  job_people:
    'SELECT p.id, j.number AS job, p.side, p.name, p.role, p.email, p.phone FROM job_person p JOIN job j ON j.id = p.job_id',
  job_events:
    'SELECT e.id, j.number AS job, e.kind, e.dated, e.text, e.actor AS noted_by, e.recorded_at AS noted_at FROM job_event e JOIN job j ON j.id = e.job_id',
  job_moves: `SELECT m.id, j.number AS job, m.was, m.became, m.on_day, m.reason, m.actor AS moved_by, m.at AS moved_at FROM job_move m JOIN job j ON j.id = m.job_id`,
  job_papers: `SELECT f.id, j.number AS job, f.name, f.media_type, f.hash AS sha256, f.about, f.actor AS added_by, f.added_at FROM attachment f JOIN job j ON j.id = f.job_id`,
  job_checklist:
    'SELECT c.id, j.number AS job, c.item, c.person, c.due_on, c.done_on FROM job_check c JOIN job j ON j.id = c.job_id',
  schedule_of_values: `SELECT s.id, j.number AS job, s.line AS sov_line, s.section, s.description, s.scheduled_value, s.quantity, s.unit, s.retention_rate AS retention_percent
    FROM sov_line s JOIN job j ON j.id = s.job_id WHERE s.original = 1`,
  budget: `SELECT b.id, j.number AS job, l.section, c.code AS cost_code, l.cost_type, s.line AS sov_line, b.description, b.quantity, b.unit, b.hours, b.amount, e.line AS estimate_line
    FROM budget_line b JOIN cost_line l ON l.id = b.cost_line_id JOIN job j ON j.id = l.job_id JOIN cost_code c ON c.id = l.cost_code_id LEFT JOIN sov_line s ON s.id = b.sov_line_id
    LEFT JOIN estimate_line e ON e.id = b.estimate_line_id`,
  change_orders:
    'SELECT o.id, j.number AS job, o.number AS change_order, title, o.status, raised_on, issued_on, decided_on, reference, reason, asked_by, days_asked, days_granted, decided_by, decision FROM change_order o JOIN job j ON j.id = o.job_id',
  change_order_lines: `SELECT x.id, j.number AS job, o.number AS change_order, x.side, s.line AS sov_line,
    x.description, coalesce(l.section, x.section) AS section,
    c.code AS cost_code, l.cost_type, x.quantity, x.unit, x.hours, x.amount, x.asked
    FROM change_order_line x JOIN change_order o ON o.id = x.change_order_id JOIN job j ON j.id = o.job_id LEFT JOIN sov_line s ON s.id = x.sov_line_id
    LEFT JOIN cost_line l ON l.id = x.cost_line_id LEFT JOIN cost_code c ON c.id = l.cost_code_id`,
  offers: `SELECT o.id, o.token AS link, j.number AS job, o.kind, o.number, o.recipient, o.sent_on, o.sent_at, o.valid_until, o.document, o.hash AS sha256, o.status,
    o.answered_at, o.answered_by, o.signature, o.reason, o.seal FROM offer o JOIN job j ON j.id = o.job_id`,
  offer_questions: `SELECT q.id, o.token AS link, q.asked_at, q.asked_by, q.question, q.answered_at, q.answered_by, q.answer
    FROM offer_question q JOIN offer o ON o.id = q.offer_id`,
  messages: `SELECT m.id, j.number AS job, m.recipient, m.subject, m.body, (SELECT group_concat(value, char(10)) FROM json_each(m.attachments)) AS attachments, m.sent_at,
    m.actor AS sent_by, m.file FROM message m JOIN job j ON j.id = m.job_id`,
  budget_transfers: `SELECT x.id, j.number AS job, t.number AS transfer, t.dated, t.reason, l.section, c.code AS cost_code, l.cost_type, x.amount, x.hours
    FROM budget_transfer_line x JOIN budget_transfer t ON t.id = x.transfer_id JOIN job j ON j.id = t.job_id JOIN cost_line l ON l.id = x.cost_line_id
    JOIN cost_code c ON c.id = l.cost_code_id`,
  commitments: `SELECT m.id, k.number AS commitment, k.kind, v.code AS vendor, k.dated, j.number AS job, m.line, l.section, c.code AS cost_code, l.cost_type, m.description, m.quantity,
    m.unit, m.amount, k.retention_rate AS retention_percent, m.closed_on
    FROM commitment_line m JOIN commitment k ON k.id = m.commitment_id JOIN vendor v ON v.id = k.vendor_id JOIN cost_line l ON l.id = m.cost_line_id
    JOIN job j ON j.id = l.job_id JOIN cost_code c ON c.id = l.cost_code_id`,
  costs: `SELECT e.id, e.dated, j.number AS job, l.section, c.code AS cost_code, l.cost_type, e.reference, e.party, e.description, e.quantity, e.hours, e.amount,
    k.number AS commitment, m.line AS commitment_line, e.uninstalled, e.installed_on
    FROM cost_entry e JOIN job j ON j.id = e.job_id JOIN cost_line l ON l.id = e.cost_line_id JOIN cost_code c ON c.id = l.cost_code_id
    LEFT JOIN commitment_line m ON m.id = e.commitment_line_id LEFT JOIN commitment k ON k.id = m.commitment_id`,
  applications: `SELECT a.id, j.number AS job, a.number AS application, a.dated, a.status, a.certified_on, a.reference FROM application a JOIN job j ON j.id = a.job_id`,
  application_lines: `SELECT x.application_id * 1000000000 + x.sov_line_id AS id, j.number AS job, a.number AS application, s.line AS sov_line, x.work AS work_to_date, x.materials AS materials_on_site,
    x.certified_work AS certified_work_to_date, x.certified_materials AS certified_materials_on_site
    FROM application_line x JOIN application a ON a.id = x.application_id JOIN job j ON j.id = a.job_id JOIN sov_line s ON s.id = x.sov_line_id`,
  retention_releases:
    'SELECT r.id, j.number AS job, r.dated, r.amount, r.reference FROM retention_release r JOIN job j ON j.id = r.job_id',
  receipts: `SELECT r.id, r.dated, j.number AS job, coalesce(CAST(a.number AS TEXT), l.reference) AS application, r.amount, r.reference FROM receipt r JOIN job j ON j.id = r.job_id
    LEFT JOIN application a ON a.id = r.application_id LEFT JOIN retention_release l ON l.id = r.release_id`,
  forecasts: `SELECT f.id, j.number AS job, f.as_of, l.section, c.code AS cost_code, l.cost_type, f.method, f.value, f.note
    FROM forecast f JOIN cost_line l ON l.id = f.cost_line_id JOIN job j ON j.id = l.job_id JOIN cost_code c ON c.id = l.cost_code_id`,
};

const PAGE = 5000;

/**
 * Writes the whole book into `folder`, which is made where it is missing, with the contents of postings and the messages beside
 * it. Files with nothing in them are left out. Gives back, in words, what the database has that is not in the book.
 */
export async function writeBook(sql: Reader, folder: string, stores: Stores): Promise<string[]> {
  const digits = await loadDigits(sql);
  mkdirSync(folder, { recursive: true });
  for (const file of BOOK_FILE_NAMES) await writeFile(sql, folder, file, digits);
  return [...(await writeContents(sql, folder, stores)), ...(await leftOut(sql))];
}

/** Copies what is saved beside the database into the book's folder; what is gone from there is shown. */
async function writeContents(sql: Reader, folder: string, { files, outbox }: Stores): Promise<string[]> {
  const postings = await sql.all(shape({ name: t.text, hash: t.text }), 'SELECT name, hash FROM attachment ORDER BY id');
  const messages = await sql.all(shape({ file: t.text }), 'SELECT file FROM message ORDER BY id');
  const gone = [
    ...postings.filter((it) => !copied(join(files, it.hash), join(folder, contentName(it.hash, it.name)))).map((it) => it.name),
    ...messages.filter((it) => !copied(join(outbox, it.file), join(folder, it.file))).map((it) => it.file),
  ];
  return gone.map((it) => `the content of ${it}, which is not in its folder any more`);
}

function copied(from: string, to: string): boolean {
  if (!existsSync(from)) return false;
  copyFileSync(from, to);
  return true;
}

/** What a book has no file for, as far as there is any of it. */
async function leftOut(sql: Reader): Promise<string[]> {
  const [counts = {}] = await sql.anyRows(
    `SELECT (SELECT count(*) FROM job_draft) AS "half-made jobs", (SELECT count(*) FROM posting WHERE reverses_id IS NOT NULL) AS "which posting reversed which",
      (SELECT count(*) FROM audit) AS "the record of who did what"`,
  );
  return Object.entries(counts).flatMap(([what, count]) => (Number(count) > 0 ? [`${what} (${Number(count)})`] : []));
}

type BookRecord = Record<string, string | number | null> & { id: number };

/** One file of the book as text, its header always there. */
export async function fileText(sql: Reader, file: BookFileName): Promise<string> {
  const digits = await loadDigits(sql);
  let text = csvText([Object.keys(columnsOf(file))]);
  for await (const part of recordsOf(sql, file, digits)) text += part;
  return text;
}

async function writeFile(sql: Reader, folder: string, file: BookFileName, digits: number): Promise<void> {
  let out: WriteStream | null = null;
  for await (const part of recordsOf(sql, file, digits)) {
    if (!out) {
      out = createWriteStream(join(folder, `${file}.csv`));
      out.write(csvText([Object.keys(columnsOf(file))]));
    }
    if (!out.write(part)) await once(out, 'drain');
  }
  if (!out) return;
  out.end();
  await once(out, 'finish');
}

/** The records of a file without its header, a page at a time. */
async function* recordsOf(sql: Reader, file: BookFileName, digits: number): AsyncGenerator<string> {
  const columns = Object.entries(columnsOf(file));
  let page = await pageAfter(sql, file, null);
  while (page.length > 0) {
    yield csvText(page.map((row) => columns.map(([name, column]) => cellOf(column, row[name] ?? null, row, digits))));
    page = page.length < PAGE ? [] : await pageAfter(sql, file, page.at(-1)!.id);
  }
}

function pageAfter(sql: Reader, file: BookFileName, id: number | null): Promise<BookRecord[]> {
  return sql.anyRows(
    `SELECT * FROM (${QUERIES[file]}) ${id === null ? '' : `WHERE id > ${Number(id)}`} ORDER BY id LIMIT ${PAGE}`,
  ) as Promise<BookRecord[]>;
}

function cellOf(column: AnyColumn, value: string | number | null, row: BookRecord, digits: number): string {
  if (value === null) return '';
  switch (column.kind) {
    case 'amount':
      return formatCents(value as number, digits);
    case 'percent':
    case 'markup':
      return formatPercentShortest(value as number);
    case 'unit-cost':
      return formatUnitCost(value as number, digits);
    case 'needed':
    case 'quantity':
      return formatQuantity(value as number);
    case 'boolean':
      return value === 1 ? 'yes' : '';
    case 'forecast-value':
      return forecastValue(row.method as string, value as number, digits);
    default:
      return String(value);
  }
}

function forecastValue(method: string, value: number, digits: number): string {
  if (method === 'to-complete') return formatCents(value, digits);
  return method === 'percent' ? formatPercentShortest(value) : formatQuantity(value);
}
