import { shape, t } from '../db/fields';
import type { Command } from '../ledger/command';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { LedrinError } from '../../core/errors/ledrinError';
import { BOOK_FILE_NAMES, type BookFileName, type BookRow } from './format/bookFiles';
import { billingOfBook } from './checks/billingOfBook';
import { BookRefused, FaultList } from './checks/bookFaults';
import { bookDigits, BookCheck, checkParties, type BookRows } from './checks/checkBook';
import { checkBilling, checkBillingRows } from './checks/checkBilling';
import { checkContracts } from './checks/checkContracts';
import { checkJobFiles } from './checks/checkJobFiles';
import { checkOffers } from './checks/checkOffers';
import { checkEstimates, checkPrices } from './checks/checkPricing';
import { readExisting } from './checks/existing';
import { joinKey } from './checks/keys';
import { bookRows, type FileShape, type Reading } from './csv/readRows';
import type { Reader, Sql } from '../db/sql';
import { loadBillingJobs } from '../billing/billingJobs';
import type { Stores } from '../attachments/contents';
import { bookContents } from './bookContents';
import { importCosts } from './save/importCosts';
import { saveBilling } from './save/saveBilling';
import { saveContracts } from './save/saveContracts';
import type { BookIds } from './save/saveKeyed';
import { CostLines } from '../costs/costEntries';
import { type Actor } from '../ledger/audit';

/** What an import brought, by file: rows without headers. */
export type ImportCounts = Partial<Record<BookFileName, number>>;

/**
 * Imports a book folder, all or nothing. What it has beside its CSV files, contents of postings and messages,
 * goes into the stores. Throws BookRefused with every fault there is, and leaves the database as it was; throws LedrinError where the folder cannot be read at all.
 */
export async function importBook(command: Command, folder: string, stores: Stores): Promise<ImportCounts> {
  if (!existsSync(folder) || !statSync(folder).isDirectory())
    throw new LedrinError('not-found', `There is no folder ${folder}; give the folder that holds the book's CSV files`);
  const counts = await importInside(command.sql, folder, command.actor, stores);
  command.note('book', counts);
  return counts;
}

async function importInside(sql: Sql, folder: string, actor: Actor, stores: Stores): Promise<ImportCounts> {
  const faults = new FaultList();
  const present = bookFilesIn(folder, faults);
  const existing = await readExisting(sql);
  const shapes: Partial<Record<BookFileName, FileShape>> = {};
  const reading = (file: BookFileName, digits: number | null): Reading => ({
    path: join(folder, `${file}.csv`),
    faults,
    currencyDigits: digits,
  });
  const rows = Object.fromEntries(BOOK_FILE_NAMES.map((file) => [file, []])) as unknown as BookRows;
  let digits = bookDigits(undefined, existing);
  for (const file of BOOK_FILE_NAMES) {
    if (file === 'costs' || !present.has(file)) continue;
    shapes[file] = { readable: true, missingColumns: [] };
    const into = rows[file] as BookRow<typeof file>[];
    for await (const batch of bookRows(file, reading(file, digits), shapes[file]))
      into.push(...(batch as BookRow<typeof file>[]));
    if (file === 'company') digits = bookDigits(rows.company[0], existing);
  }
  const check = new BookCheck(rows, existing, shapes, faults, digits);
  checkParties(check);
  checkPrices(check);
  checkContracts(check);
  checkJobFiles(check);
  checkEstimates(check);
  checkOffers(check);
  checkBillingRows(check);
  const billing = await checkedBilling(sql, check, digits ?? 2);
  const contents = bookContents(check, folder, stores);
  const costLines = await CostLines.open(sql, null);
  const ids = existingIds(check);
  if (!faults.any) {
    await saveContracts(sql, actor, check, ids, billing, costLines, contents);
    await saveBilling(sql, actor, check, ids, billing);
  }
  const counts = countRows(rows);
  if (present.has('costs')) counts.costs = await importCosts(sql, actor, check, ids, costLines, reading('costs', digits));
  if (faults.any) throw new BookRefused(inOrder(faults), faults.more);
  contents.keep();
  return counts;
}

/** The book's files that are there; any other CSV file is a fault, and what is not CSV is passed over. */
function bookFilesIn(folder: string, faults: FaultList): Set<BookFileName> {
  const present = new Set<BookFileName>();
  for (const entry of readdirSync(folder).sort()) {
    if (!entry.endsWith('.csv') || !statSync(join(folder, entry)).isFile()) continue;
    const name = entry.slice(0, -'.csv'.length);
    if ((BOOK_FILE_NAMES as string[]).includes(name)) present.add(name as BookFileName);
    else faults.add(name, 1, '', `unknown file; a book may have ${BOOK_FILE_NAMES.map((it) => `${it}.csv`).join(', ')}`);
  }
  return present;
}

/** The billing of the jobs the book says something of, checked. */
async function checkedBilling(sql: Reader, check: BookCheck, digits: number) {
  const mentioned = new Set(
    (['jobs', 'schedule_of_values', 'change_order_lines', 'applications', 'retention_releases', 'receipts'] as const).flatMap(
      (file) => check.rows[file].map((row) => row.job),
    ),
  );
  const known = [...check.existing.jobs].filter(([number]) => mentioned.has(number));
  const loaded = new Map();
  for (const [number, { id }] of known) loaded.set(number, (await loadBillingJobs(sql, id)).get(number)!);
  check.receivedBefore = known.length > 0 ? await receivedSoFar(sql) : new Map();
  const billing = billingOfBook(check, loaded);
  checkBilling(check, billing, digits);
  return billing;
}

async function receivedSoFar(sql: Reader): Promise<Map<string, number>> {
  const rows = await sql.all(
    shape({ job: t.text, posting: t.text, amount: t.cents }),
    `SELECT job.number AS job, coalesce(CAST(a.number AS TEXT), l.reference) AS posting, sum(r.amount) AS amount FROM receipt r JOIN job ON job.id = r.job_id
      LEFT JOIN application a ON a.id = r.application_id LEFT JOIN retention_release l ON l.id = r.release_id GROUP BY 1, 2`,
  );
  return new Map(rows.map((row) => [joinKey(row.job, row.posting), row.amount]));
}

function existingIds({ existing }: BookCheck): BookIds {
  const idsOf = (map: Map<string, { id: number }>) => new Map([...map].map(([key, { id }]) => [key, id]));
  return {
    customers: new Map(existing.customers),
    vendors: new Map(existing.vendors),
    costCodes: new Map(existing.costCodes),
    priceItems: new Map(existing.priceItems),
    buildUps: new Map(existing.buildUps),
    estimates: new Map(existing.estimates),
    estimateLines: new Map(),
    jobs: idsOf(existing.jobs),
    sovLines: new Map(existing.sovLines),
    changeOrders: new Map(existing.changeOrders),
    commitments: idsOf(existing.commitments),
    commitmentLines: idsOf(existing.commitmentLines),
    applications: idsOf(existing.applications),
    releases: new Map(existing.releases),
  };
}

function countRows(rows: BookRows): ImportCounts {
  return Object.fromEntries(
    Object.entries(rows)
      .map(([file, list]) => [file, list.length])
      .filter(([, count]) => count !== 0),
  );
}

/** Faults by file in the book's order, then by row, as a person would mend them. */
function inOrder({ faults }: FaultList) {
  const place = (file: string) => {
    const at = (BOOK_FILE_NAMES as string[]).indexOf(file.slice(0, -'.csv'.length));
    return at < 0 ? BOOK_FILE_NAMES.length : at;
  };
  return [...faults].sort((a, b) => place(a.file) - place(b.file) || a.row - b.row);
}
