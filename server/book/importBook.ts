import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { LedrinError } from '../../core/errors/ledrinError';
import { currencyDigits, isCurrency } from '../../core/money/currency';
import type { Stores } from '../db/stores';
import { APPROVALS, approves, ruleFor } from '../../core/approvals/approvals';
import { rulesOf } from '../approvals/requireApproval';
import { jobs } from '../jobs/bookFiles';
import type { Actor } from '../acts/audit';
import { company, companyThere } from '../company/book/bookFiles';
import { CompanyTable } from '../company/models';
import { CostLines } from '../costs/costEntries';
import { costs, OpeningCosts } from '../costs/bookFile';
import { CostEntryTable } from '../costs/models';
import type { Command } from '../acts/command';
import { fillTable } from '../db/sql';
import { BookCheck } from '../bookFormat/bookCheck';
import { bookContents } from './bookContents';
import { BookRefused, FaultList } from '../../core/errors/bookFaults';
import type { BookFile } from '../bookFormat/bookFile';
import { BOOK_FILES } from './bookFiles';
import { BookSave } from '../bookFormat/bookSave';
import type { Columns, Row } from '../bookFormat/columns';
import { bookRows, type FileShape } from '../bookFormat/csv/readRows';

/** A file of a book that was read: its rows, and how many are there already; null where they are not compared with the database by a key. */
export interface FileInspected {
  name: string;
  rows: number;
  there: number | null;
}

interface ImportOptions {
  /** Costs that identical to costs that already exist, are left out. */
  skipIdentical?: boolean;
  /** Told what was read, before anything is saved; costs.csv streams and is not among it. */
  onChecked?: (files: FileInspected[]) => void;
}

/** What an import brought, by file: rows without headers. */
export type ImportCounts = Record<string, number>;

/**
 * Imports a book folder, all or nothing. What it has beside its CSV files, contents of attachments and messages,
 * goes into the stores. Throws BookRefused with every fault there is, and leaves the database as it was; throws LedrinError where the folder cannot be read at all.
 */
export async function importBook(
  command: Command,
  folder: string,
  stores: Stores,
  options: ImportOptions = {},
): Promise<ImportCounts> {
  if (!existsSync(folder) || !statSync(folder).isDirectory())
    throw new LedrinError('not-found', `There is no folder ${folder}; give the folder that holds the book's CSV files`);
  const counts = await importInside(command, folder, stores, options);
  command.note('book', counts);
  return counts;
}

async function importInside(
  { sql, actor }: Command,
  folder: string,
  stores: Stores,
  { skipIdentical = false, onChecked }: ImportOptions,
): Promise<ImportCounts> {
  const faults = new FaultList();
  const files = filesIn(folder, faults);
  const book = new BookCheck(sql, faults);
  await book.open(BOOK_FILES);
  await readFiles(book, folder, files);
  await checkFiles(book);
  if (!faults.any) await checkApproved(book, actor);
  onChecked?.(inspect(book));
  const contents = bookContents(book, folder, stores);
  const into = new BookSave(sql, actor, book, await CostLines.open(sql, null), contents);
  if (!faults.any)
    for (const file of BOOK_FILES) if (file !== costs) await file.save?.(book.rowsOf(file) as Row<Columns>[], into);
  const counts = countRows(book);
  if (files.has(costs)) counts.costs = await importCosts(book, into, folder, skipIdentical);
  for (const file of BOOK_FILES) file.checkEnd?.(book);
  if (!faults.any) for (const file of BOOK_FILES) await file.finish?.(into);
  if (faults.any) throw new BookRefused(inOrder(faults), faults.more);
  contents.store();
  return counts;
}

function inspect(book: BookCheck): FileInspected[] {
  return BOOK_FILES.flatMap((file) => {
    const rows = book.rowsOf(file);
    if (rows.length === 0) return [];
    const there = (row: (typeof rows)[number]) => book.there(file, ...file.key.map((it) => row[it] as string | number | null));
    return [
      {
        name: file.name,
        rows: rows.length,
        there: file.key.length === 0 || file.existing === null ? null : rows.filter(there).length,
      },
    ];
  });
}

/** The book's files that are there; any other CSV file is a fault, and what is not CSV is passed over. */
function filesIn(folder: string, faults: FaultList): Set<BookFile> {
  const present = new Set<BookFile>();
  for (const entry of readdirSync(folder).sort()) {
    if (!entry.endsWith('.csv') || !statSync(join(folder, entry)).isFile()) continue;
    const name = entry.slice(0, -'.csv'.length);
    const file = BOOK_FILES.find((it) => it.name === name);
    if (file) present.add(file);
    else faults.add(name, 1, '', `unknown file; a book may have ${BOOK_FILES.map((it) => `${it.name}.csv`).join(', ')}`);
  }
  return present;
}

/** Reads every file but costs.csv, which streams; the company first, whose currency says how amounts are read. */
async function readFiles(book: BookCheck, folder: string, files: ReadonlySet<BookFile>): Promise<void> {
  const there = await book.sql.findOne(CompanyTable, { id: 1 });
  book.own(companyThere).company = there ?? null;
  for (const file of BOOK_FILES) {
    if (file === company) book.digits = digitsOf(there?.currency);
    if (file === costs || !files.has(file)) continue;
    const shape: FileShape = { readable: true, missingColumns: [] };
    for await (const rows of bookRows(file, readingOf(book, folder, file), shape)) book.add(file, rows, shape);
    book.add(file, [], shape);
    if (file === company) book.digits = digitsOf(there?.currency ?? book.rowsOf(company)[0]?.currency);
  }
}

const readingOf = (book: BookCheck, folder: string, file: BookFile) => ({
  path: join(folder, `${file.name}.csv`),
  faults: book.faults,
  currencyDigits: book.digits,
});

/** Decimals of the book's currency; null where the currency is itself at fault. */
function digitsOf(currency: string | null | undefined): number | null {
  return currency && isCurrency(currency) ? currencyDigits(currency) : null;
}

/** Checks a book: what its rows are called by, what they refer to and say, and what must hold across them. */
async function checkFiles(book: BookCheck): Promise<void> {
  for (const file of BOOK_FILES) book.declareAll(file);
  for (const file of BOOK_FILES) for (const row of book.rowsOf(file)) book.checkRow(file, row);
  for (const file of BOOK_FILES) await file.prepare?.(book);
  for (const file of BOOK_FILES) file.checkAll?.(book.rowsOf(file), book);
}

/**
 * What the company has approved first is not done by importing it instead: of jobs the database has, each such row is a fault, unless
 * whoever imports may approve it. A job that comes with the book comes as it was.
 */
async function checkApproved(book: BookCheck, actor: Actor): Promise<void> {
  if (actor.role === undefined) return;
  const rules = await rulesOf(book.sql);
  for (const file of BOOK_FILES)
    for (const { row, column, kind, amount } of file.acts?.(book.rowsOf(file), book) ?? []) {
      const rule = book.there(jobs, row.job) && ruleFor(rules, kind, amount);
      if (rule && !approves(actor.role, rule.role))
        book.fault(
          file,
          row,
          column,
          `${APPROVALS[kind].act} has to be approved by ${rule.role}; do it in Ledrin, and ask for the approval there`,
        );
    }
}

/** Checks the rows of costs.csv as they stream by, and saves them for as long as nothing is wrong with the book. */
async function importCosts(book: BookCheck, into: BookSave, folder: string, skipIdentical: boolean): Promise<number> {
  const opening = new OpeningCosts(into, skipIdentical);
  const rowsOfFile = bookRows(costs, readingOf(book, folder, costs), { readable: true, missingColumns: [] });
  const read = async () => {
    for await (const rows of rowsOfFile) {
      for (const row of rows) book.checkRow(costs, row);
      if (!book.faults.any) await opening.add(rows as Row<typeof costs.columns>[]);
    }
  };
  await fillTable(into.sql, CostEntryTable, () => read().finally(() => opening.settled()));
  return book.faults.any ? 0 : opening.save();
}

function countRows(book: BookCheck): ImportCounts {
  return Object.fromEntries(
    BOOK_FILES.map((file) => [file.name, book.rowsOf(file).length] as const).filter(([, count]) => count > 0),
  );
}

/** Faults by file in the book's order, then by row and column, as a person would mend them. */
function inOrder({ faults }: FaultList) {
  const places = new Map(BOOK_FILES.map((file, i) => [`${file.name}.csv`, i]));
  const columns = new Map(BOOK_FILES.map((file) => [`${file.name}.csv`, Object.keys(file.columns)]));
  const place = (file: string) => places.get(file) ?? BOOK_FILES.length;
  const columnOf = (fault: { file: string; column: string }) => columns.get(fault.file)?.indexOf(fault.column) ?? -1;
  return [...faults].sort((a, b) => place(a.file) - place(b.file) || a.row - b.row || columnOf(a) - columnOf(b));
}
