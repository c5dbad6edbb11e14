import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { addDays } from '../core/calendar/plainDate';
import { PAY_CLASSES } from '../core/labour/payClass';
import { importBook } from '../server/book/importBook';
import { openDatabase, type Database } from '../server/db/database';
import { CostEntryTable } from '../server/costs/models';
import { TimeLineTable } from '../server/labour/models';
import { runCommand } from '../server/acts/command';
import { approvedOf, planPosting, saveTime } from '../server/weekSheets/postTime';

const FILE = 'data/bench/time.sqlite';
const PEOPLE = 400;
const LINES_A_DAY = 5;
const DAYS = 7;
const JOBS = 40;
const CODES = 25;
const CLASSES = 10;
const PEOPLE_A_SHEET = 10;
const MONDAY = '2031-03-03';
const ACTOR = { name: 'bench', at: '2031-03-10T08:00:00.000Z' };

type Print = (what: string, ours: number, bare: number, note?: string) => void;

const span = (count: number) => Array.from({ length: count }, (_, i) => i);

/** A company of 400 people, a rate of each by class and of half of them by employee, and a week of theirs approved. */
function book(): Record<string, string[]> {
  const lines = span(PEOPLE * DAYS * LINES_A_DAY).map((i) => {
    const [person, day, part] = [Math.floor(i / (DAYS * LINES_A_DAY)), Math.floor(i / LINES_A_DAY) % DAYS, i % LINES_A_DAY];
    const [job, code] = [1 + ((person + part) % JOBS), 100 + ((person * 3 + part) % CODES)];
    const [sheet, line] = [sheetOf(person), 1 + (i % (PEOPLE_A_SHEET * DAYS * LINES_A_DAY))];
    return `${sheet},${line},E${person},${addDays(MONDAY, day)},J${job},${code},${part === 0 ? 2 : 1.8},approved`;
  });
  return {
    company: ['name,currency', 'Bench,GBP'],
    customers: ['customer,name', 'C,Client'],
    cost_codes: ['cost_code,description', ...span(CODES).map((i) => `${100 + i},Code`)],
    jobs: [
      'job,name,customer,status,awarded_on,retention_percent',
      ...span(JOBS).map((i) => `J${i + 1},Job,C,on-site,2031-01-01,5`),
    ],
    employees: ['employee,name,wage_class', ...span(PEOPLE).map((i) => `E${i},Person ${i},class ${i % CLASSES}`)],
    pay_rates: [
      'from,job,wage_class,employee,rate,at_least',
      ...span(CLASSES).map((i) => `2031-01-01,,class ${i},,${20 + i},`),
      ...span(PEOPLE / 2).map((i) => `2031-01-01,,,E${i},23.5,`),
      ...span(JOBS).map((i) => `2031-01-01,J${i + 1},class 3,,25,yes`),
    ],
    burdens: ['burden,from,percent,per_hour,on_premium', 'STATE,2031-01-01,13.8,,yes', 'LEVY,2031-01-01,,0.62,'],
    overtime_rules: ['from,daily_after,double_after,weekly_after', '2031-01-01,8,10,40'],
    time: ['sheet,line,employee,dated,job,cost_code,hours,status', ...lines],
  };
}

const sheetOf = (person: number) => String(1 + Math.floor(person / PEOPLE_A_SHEET));

/** Writes the book into a temporary folder and gives back where it is. */
export function timeBook(): string {
  const folder = mkdtempSync(join(tmpdir(), 'bench-time-'));
  for (const [name, rows] of Object.entries(book())) writeFileSync(join(folder, `${name}.csv`), `${rows.join('\n')}\n`);
  return folder;
}

async function fill(database: Database): Promise<void> {
  const folder = timeBook();
  const stores = { files: join(folder, 'files'), outbox: join(folder, 'outbox') };
  await runCommand(database, { name: 'import-book', actor: ACTOR }, (command) => importBook(command, folder, stores));
  rmSync(folder, { recursive: true });
}

/** A week of 400 people is cut, priced and posted; bare: rows of the same tables put in with nothing worked out. */
export async function benchTime(print: Print): Promise<void> {
  mkdirSync('data/bench', { recursive: true });
  const forget = () => ['', '-wal', '-shm'].forEach((tail) => rmSync(FILE + tail, { force: true }));
  forget();
  const database = await openDatabase(FILE);
  await fill(database);
  const sheets = [...new Set(span(PEOPLE).map(sheetOf))];
  const start = performance.now();
  const { entries } = await runCommand(database, { name: 'post-time', actor: ACTOR }, async (command) =>
    saveTime(command, await planPosting(command.sql, await approvedOf(command.sql, sheets), null)),
  );
  const ours = performance.now() - start;
  print(`a week of ${PEOPLE} people, ${entries} lines, priced and posted`, ours, await bare(database), 'goal 2,000 ms, 3 times');
  await database.close();
  forget();
}

/** The rows that posting wrote, once more. */
async function bare(database: Database): Promise<number> {
  const [lines, costs] = await database.read(async (sql) => [
    await sql.find(TimeLineTable, {}),
    await sql.find(CostEntryTable, {}),
  ]);
  const again = lines.map((it, i) => ({ ...it, id: 100_000 + i, sheet: `again ${it.sheet}`, pay: it.pay ?? PAY_CLASSES[0] }));
  const first = costs.map((it, i) => ({ ...it, id: 100_000 + i, time_line_id: null }));
  const start = performance.now();
  await database.write(async (sql) => {
    await sql.insertAll(TimeLineTable, again);
    await sql.insertAll(CostEntryTable, first);
  });
  return performance.now() - start;
}
