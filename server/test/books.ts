import sqlite3 from 'sqlite3';
import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { act, reading } from './act';
import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { BookRefused } from '../../core/errors/bookFaults';
import { importBook } from '../book/importBook';
import type { Actor } from '../acts/audit';
import { openDatabase, type Database } from '../db/database';
import { MIGRATIONS } from '../db/migrations/index';
import { reportCsv } from '../reportFiles/reportCsv';
import type { Stores } from '../db/stores';
import { loadDigits } from '../company/company';
import { REPORTS, type ReportName } from '../reports/index';

export const TESTER: Actor = { name: 'tester', at: '2031-05-02T09:00:00.000Z' };

/** A book as text, file by file: the header line and its rows. */
export type BookText = Record<string, string>;

const made: string[] = [];
const opened: Database[] = [];

export function temporaryFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'ledrin-test-'));
  made.push(folder);
  return folder;
}

const stores = new WeakMap<Database, Stores>();

/** The folders beside a database. */
export function besides(database: Database): Stores {
  const known = stores.get(database) ?? { files: temporaryFolder(), outbox: temporaryFolder() };
  stores.set(database, known);
  return known;
}

export async function temporaryDatabase(): Promise<Database> {
  const file = join(temporaryFolder(), 'test.sqlite');
  copyFileSync(await emptyDatabase(), file);
  const database = await openDatabase(file);
  opened.push(database);
  return database;
}

/** An empty database of these migrations, made once for all test files of a machine, and copied. */
async function emptyDatabase(): Promise<string> {
  const digest = createHash('sha256').update(JSON.stringify(MIGRATIONS)).digest('hex').slice(0, 16);
  const file = join(tmpdir(), `ledrin-test-empty-${digest}.sqlite`);
  if (existsSync(file)) return file;
  const fresh = join(temporaryFolder(), 'empty.sqlite');
  await openDatabase(fresh).then((it) => it.close());
  // Another test file may make it at the same time: one of them is as good as the other.
  renameSync(fresh, file);
  return file;
}

/** A database with a book in it; throws where the book has faults. */
export async function databaseOf(book: BookText): Promise<Database> {
  const database = await temporaryDatabase();
  const faults = await faultsOf(database, book);
  if (faults.length > 0) throw new Error(`The book of the test has faults: ${faults.join(', ')}`);
  return database;
}

const watchers = new Map<Database, sqlite3.Database>();

/**
 * A number that is another as soon as anything was committed to a database: the same before and after, nothing was saved in between, whatever
 * it would have said. It costs nothing, where `everything` reads all there is.
 */
async function commitsOf(database: Database): Promise<number> {
  const watcher = watchers.get(database) ?? (await watcherOf(database));
  watchers.set(database, watcher);
  return new Promise((done, failed) =>
    watcher.get('PRAGMA data_version', (error: Error | null, row: { data_version: number }) =>
      error ? failed(error) : done(row.data_version),
    ),
  );
}

/** Carries out what is to save nothing, and throws where it saves each time: what runs beside it, such as a delivery, may save once. */
export async function savingNothing<Reply>(database: Database, work: () => PromiseLike<Reply>): Promise<Reply> {
  for (let tries = 1; ; tries++) {
    const before = await commitsOf(database);
    const reply = await work();
    if ((await commitsOf(database)) === before) return reply;
    if (tries === MOST_TRIES) throw new Error('Something was saved by what is to save nothing');
  }
}
const MOST_TRIES = 5;

/** A connection of its own, which sees what others commit. */
async function watcherOf(database: Database): Promise<sqlite3.Database> {
  const [main] = await reading(database).anyRows('PRAGMA database_list');
  return new Promise((done, failed) => {
    const watcher: sqlite3.Database = new sqlite3.Database(String(main?.file), sqlite3.OPEN_READONLY, (error) =>
      error ? failed(error) : done(watcher),
    );
  });
}

/** To be called after all tests of a file. */
export async function cleanUp(): Promise<void> {
  for (const watcher of watchers.values()) watcher.close();
  watchers.clear();
  await Promise.all(opened.splice(0).map((it) => it.close().catch(() => undefined)));
  for (const folder of made.splice(0)) rmSync(folder, { recursive: true, force: true });
}

/** CSV is text; what lies beside it is bytes, one a character. */
function encodingOf(file: string): 'utf8' | 'latin1' {
  return file.includes('.') && !file.endsWith('.csv') ? 'latin1' : 'utf8';
}

export function writeBookText(book: BookText): string {
  const folder = join(temporaryFolder(), 'book');
  mkdirSync(folder);
  for (const [file, text] of Object.entries(book))
    writeFileSync(join(folder, file.includes('.') ? file : `${file}.csv`), text, encodingOf(file));
  return folder;
}

/** Imports a book and gives back its faults as `file:row:column`; none where it came in. */
export async function faultsOf(database: Database, book: BookText, actor: Actor = TESTER): Promise<string[]> {
  try {
    await act(database, actor, importBook, writeBookText(book), besides(database));
    return [];
  } catch (error) {
    if (!(error instanceof BookRefused)) throw error;
    return error.faults.map((it) => `${it.file.replace(/\.csv$/, '')}:${it.row}:${it.column}`);
  }
}

/** A report as CSV lines without the header. */
export async function reportLines(
  database: Database,
  name: ReportName,
  asOf: string,
  job?: string,
  application?: number,
): Promise<string[]> {
  const report = await REPORTS[name](reading(database), { asOf, job, application });
  return reportCsv(report, await loadDigits(reading(database)))
    .trimEnd()
    .split('\n')
    .slice(1);
}

/** A digest of every table's rows, to see that nothing changed. What only indexes other tables is left out. */
export async function everything(database: Database): Promise<string> {
  const sql = reading(database);
  const tables = await sql.all(
    query(
      shape({ name: t.text }),
      `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'cost\\_text%' ESCAPE '\\' ORDER BY name`,
    ),
  );
  const rows = [];
  for (const { name } of tables) rows.push([name, await sql.anyRows(`SELECT * FROM ${name} ORDER BY 1, 2`)]);
  return createHash('sha256').update(JSON.stringify(rows)).digest('hex');
}

export function folderText(folder: string): BookText {
  return Object.fromEntries(
    readdirSync(folder)
      .sort()
      .map((file) => [file, readFileSync(join(folder, file), encodingOf(file))]),
  );
}

/** The books tie as of a date: every difference is nothing. */
export async function differences(database: Database, asOf: string): Promise<string[]> {
  return (await reportLines(database, 'tie-out', asOf)).map((line) => line.split(',').at(-1)!);
}

/** A small book with one of everything, worked out by hand in the tests that use it. */
export const SMALL_BOOK: BookText = {
  company: 'name,currency,tax_name,tax_percent\nAldergate Cladding,GBP,VAT,20\n',
  customers: 'customer,name,terms_days\nNORTH,Northbeck Estates,14\n',
  vendors: 'vendor,name,kind\nPANEL,Panel Supply,supplier\n',
  cost_codes: 'cost_code,description\n100,Framing\n200,Panels\n900,Other\n',
  jobs: 'job,name,customer,status,awarded_on,retention_percent,tax_percent\nJ1,"Mill, east wall",NORTH,on-site,2031-01-05,5,20\nJ2,Tender only,NORTH,tender,,5,\n',
  schedule_of_values: 'job,sov_line,section,description,scheduled_value\nJ1,1,A,Framing,6000.00\nJ1,2,A,Panels,4000.00\n',
  budget:
    'job,section,cost_code,cost_type,sov_line,hours,amount\nJ1,A,100,labour,1,100,3000.00\nJ1,A,100,labour,1,20,600.00\nJ1,A,200,material,2,,2500.00\n',
  change_orders:
    'job,change_order,title,status,raised_on,decided_on\nJ1,C1,Louvres,approved,2031-02-01,2031-02-15\nJ1,C2,Not agreed,issued,2031-02-20,\n',
  change_order_lines:
    'job,change_order,side,sov_line,description,section,cost_code,cost_type,hours,amount\nJ1,C1,price,3,Louvres,A,,,,1000.00\nJ1,C1,cost,,,A,200,material,,400.00\nJ1,C2,price,1,,,,,,700.00\n',
  commitments:
    'commitment,kind,vendor,dated,job,line,section,cost_code,cost_type,amount\nPO1,purchase-order,PANEL,2031-01-20,J1,1,A,200,material,2000.00\n',
  costs: `dated,job,section,cost_code,cost_type,reference,party,hours,amount,commitment,commitment_line,uninstalled,installed_on
2031-01-15,J1,A,100,labour,T1,Crew,40,1000.00,,,,
2031-01-28,J1,A,200,material,D1,PANEL,,1500.00,PO1,1,,
2031-02-10,J1,A,100,labour,T2,Crew,50,1250.00,,,,
2031-02-18,J1,A,900,other,X1,,,75.50,,,,
2031-02-20,J1,A,200,material,D2,PANEL,,300.00,,,yes,2031-03-02
`,
  applications:
    'job,application,dated,status,certified_on\nJ1,1,2031-01-31,certified,2031-02-05\nJ1,2,2031-02-25,certified,2031-02-28\nJ1,3,2031-03-31,submitted,\n',
  application_lines: `job,application,sov_line,work_to_date,materials_on_site,certified_work_to_date
J1,1,1,2000.00,,
J1,1,2,500.00,200.00,
J1,2,1,4000.00,,3800.00
J1,2,2,1500.00,,
J1,3,1,5000.00,,
J1,3,2,2000.00,,
J1,3,3,250.00,,
`,
  retention_releases: 'job,dated,amount,reference\nJ1,2031-03-10,100.00,Part release\n',
  receipts: 'dated,job,application,amount,reference\n2031-02-20,J1,1,3078.00,B1\n2031-03-20,J1,2,1000.00,B2\n',
  forecasts: 'job,as_of,section,cost_code,cost_type,method,value\nJ1,2031-02-28,A,100,labour,percent,60\n',
};

export const TIME_HEAD =
  'sheet,line,employee,dated,posted_on,job,section,cost_code,work_kind,wage_class,pay,hours,units,status,reverses\n';
/** Labour of the small book: two employees at 22.50 and 18.00, a burden of 18 % without the premium and 0.85 an hour, daily overtime after 8 h. */
export const LABOUR_TERMS: BookText = {
  employees: 'employee,name,wage_class,starts_on,ends_on\nE1,Ann Ash,fitter,2031-01-01,\nE2,Ben Birch,mate,,2031-03-31\n',
  work_kinds: 'work_kind,description\nweld,Welding\n',
  pay_rates: 'from,job,section,work_kind,wage_class,employee,rate,at_least\n2031-01-01,,,,,E1,22.50,\n2031-01-01,,,,mate,,18,\n',
  piece_rates: 'from,cost_code,work_kind,rate,unit,tops_up\n2031-01-01,200,,3.20,m2,yes\n',
  burdens: 'burden,description,from,to,job,wage_class,percent,per_hour,on_premium\nSTATE,,2031-01-01,,,,18,0.85,\n',
  overtime_rules: 'from,daily_after,double_after,weekly_after,week_starts\n2031-01-01,8,,,\n',
  pay_codes: 'pay_code,pay,job,work_kind\nOT,overtime,,\n',
};

/** The small book with a price list and the tender of core/estimating/tender.test.ts, worked by hand there, on job J2. */
export const TENDER_BOOK: BookText = {
  ...SMALL_BOOK,
  cost_codes: `${SMALL_BOOK.cost_codes}300,Scaffold\n400,Plant\n`,
  price_items: `price_item,description,unit,cost_type,cost_code,wage_class,unit_cost,markup_percent,vendor,checked_on
CREW,Roofer,h,labour,100,Roofer,32.50,,,
MEMBRANE,Membrane,m2,material,200,,14.25,,PANEL,2031-02-01
FIXING,Fixing,nr,material,200,,0.1234,,PANEL,
ADHESIVE,Adhesive,kg,material,200,,6.40,15,,
`,
  price_history: 'price_item,dated,unit_cost,reason\nMEMBRANE,2030-06-01,13.90,\nMEMBRANE,2031-02-01,14.25,Spring list\n',
  build_ups: 'build_up,description,unit\nROOF,Membrane roof,m2\nBED,Adhesive bed,m2\n',
  build_up_components: `build_up,price_item,component,quantity,waste_percent
BED,ADHESIVE,,0.35,5
BED,CREW,,0.02,
ROOF,MEMBRANE,,1,8
ROOF,FIXING,,4.5,
ROOF,,BED,1.1,
ROOF,CREW,,0.18,
`,
  estimates:
    'job,estimate,name,status,chosen,overhead_percent,profit_percent,rounding,sent_on,reference\nJ2,1,As measured,draft,yes,6,4.5,-0.03,,\n',
  estimate_markups: 'job,estimate,cost_type,section,markup_percent\nJ2,1,labour,,10\nJ2,1,material,,8\nJ2,1,,B,20\n',
  estimate_lines: `job,estimate,estimate_line,section,description,quantity,unit,build_up,markup_percent
J2,1,1,A,Roof,137.5,m2,ROOF,
J2,1,2,A,Scaffold,1,,,12.5
J2,1,3,B,Outlets,10,nr,,
`,
  estimate_parts: `job,estimate,estimate_line,price_item,description,cost_code,cost_type,basis,quantity,unit,unit_cost
J2,1,2,,Scaffold hire,300,subcontract,in-all,1,,1200.00
J2,1,3,CREW,Fit outlets,100,labour,,0.75,h,32.50
J2,1,3,,Cutting plant,400,equipment,in-all,3,day,45.5555
`,
  terms: 'name,body\nUsual,"Thirty days.\nNo dayworks."\n',
};

/** The same with labour, a line of time submitted and one approved on job J1. */
export const LABOUR_BOOK: BookText = {
  ...TENDER_BOOK,
  ...LABOUR_TERMS,
  time: `${TIME_HEAD}7,1,E1,2031-03-03,,J1,A,100,,,,9.5,,submitted,\n7,2,E2,2031-03-03,,J1,A,100,,,,8,,approved,\n`,
  day_sheets: 'job,dated,crew,weather,week_sheet\nJ1,2031-03-03,Ann Ash,Dry,7\n',
  day_entries:
    'job,dated,crew,kind,employee,section,cost_code,hours,charged\nJ1,2031-03-03,Ann Ash,hours,E1,A,100,9.5,yes\nJ1,2031-03-03,Ann Ash,hours,E2,A,100,8,no\n',
};
