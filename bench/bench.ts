// Speed, each as a ratio to the bare engine in the same run. Builds its book and database once, under data/bench.
import { spawnSync } from 'node:child_process';
import { existsSync, rmSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import sqlite3 from 'sqlite3';
import { estimatedLines } from '../server/costs/estimatedLines';
import { costLedgerPage, costTotals } from '../server/costs/costLedger';
import { jobByNumber } from '../server/jobs/jobByNumber';
import { REPORTS } from '../server/reports/index';
import { openDatabase } from '../server/db/database';
import type { Reader } from '../server/db/sql';
import { csvBatches } from '../server/bookFormat/csv/csvFile';
import { benchCharging } from './benchCharging';
import { benchGrid } from './benchGrid';
import { benchRights } from './benchRights';
import { benchTime } from './benchTime';
import { benchWaits } from './benchWaits';
import { ESTIMATE_LINES, estimateWork } from './benchEstimate';
import { COST_ROWS, LARGEST_JOB, makeBook, headerOf } from './makeBook';

const BOOK = 'data/bench/book';
const FILE = 'data/bench/bench.sqlite';
const BARE = 'data/bench/bare.sqlite';

function print(what: string, ours: number, bare: number, note = ''): void {
  console.log(
    `${what.padEnd(72)} ${ours.toFixed(1).padStart(9)} ms  bare ${bare.toFixed(1).padStart(9)} ms  ratio ${(ours / bare).toFixed(2).padStart(6)}  ${note}`,
  );
}

/** Median of several runs, after one to warm up. */
async function median(work: () => Promise<unknown>, runs = 7): Promise<number> {
  await work();
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)] ?? 0;
}

async function benchImport(): Promise<void> {
  const fresh = process.argv.includes('--import') || !existsSync(FILE);
  if (!fresh) return console.log('import: database kept from an earlier run; `npm run bench -- --import` measures it again');
  const forget = () => {
    for (const file of [FILE, BARE]) for (const tail of ['', '-wal', '-shm']) rmSync(file + tail, { force: true });
  };
  forget();
  const start = performance.now();
  const child = spawnSync(process.execPath, ['--import', 'tsx', 'bench/importOnce.ts', BOOK, FILE], { encoding: 'utf8' });
  if (child.status !== 0) {
    forget();
    throw new Error(child.stderr);
  }
  const ours = performance.now() - start;
  const bare = await bareInsert();
  print(
    `import of ${COST_ROWS} cost rows`,
    ours,
    bare,
    `rate ${(bare / ours).toFixed(2)} of the bare one; peak memory ${child.stdout.trim()} MB`,
  );
}

/** The same rows through one prepared statement, into a table without indexes or checks. */
async function bareInsert(): Promise<number> {
  const db = new sqlite3.Database(BARE);
  const run = (sql: string) => new Promise<void>((done, fail) => db.exec(sql, (error) => (error ? fail(error) : done())));
  const columns = headerOf('costs');
  await run(`PRAGMA journal_mode = WAL; CREATE TABLE cost (${columns.join(', ')})`);
  await run('BEGIN');
  const statement = db.prepare(`INSERT INTO cost VALUES (${columns.map(() => '?').join(',')})`);
  let spent = 0;
  for await (const batch of csvBatches(`${BOOK}/costs.csv`)) {
    const rows = batch.filter((it) => it.row > 1);
    const start = performance.now();
    await new Promise<void>((done, fail) => {
      rows.forEach(({ cells }, i) =>
        statement.run(cells, (error: Error | null) => (error ? fail(error) : i === rows.length - 1 ? done() : undefined)),
      );
    });
    spent += performance.now() - start;
  }
  const start = performance.now();
  await new Promise<void>((done) => statement.finalize(() => done()));
  await run('COMMIT');
  spent += performance.now() - start;
  await new Promise<void>((done) => db.close(() => done()));
  return spent;
}

async function benchQueries(sql: Reader): Promise<void> {
  const bareWip = (asOf: string) =>
    sql.anyRows('SELECT job_id, sum(amount) AS amount FROM cost_entry WHERE posted_on <= $1 GROUP BY job_id', [asOf]);
  for (const [label, asOf] of [
    ['last month', '2030-12-31'],
    ['a past month', '2030-03-31'],
    ['a past day', '2030-03-17'],
  ] as const) {
    print(
      `WIP of all jobs, ${label} (${asOf})`,
      await median(() => REPORTS.wip(sql, { asOf })),
      await median(() => bareWip(asOf), 3),
      'goal 1.5, 200 ms',
    );
  }
  const job = await jobByNumber(sql, LARGEST_JOB, 'job');
  const asOf = '2030-12-31';
  print(
    'estimate versus actual, largest job',
    await median(() => estimatedLines(sql, job, asOf)),
    await median(() =>
      sql.anyRows(
        'SELECT cost_line_id, sum(amount) AS amount FROM cost_entry WHERE job_id = $1 AND posted_on <= $2 GROUP BY cost_line_id',
        [job.id, asOf],
      ),
    ),
  );
  const filter = { asOf, job: LARGEST_JOB, costType: 'material', offset: 8000, limit: 200 } as const;
  // As the page asks for them: two calls side by side, each on a snapshot of its own.
  print(
    'one page of the cost ledger, filtered, with totals',
    await median(() =>
      Promise.all([database.read((it) => costLedgerPage(it, filter)), database.read((it) => costTotals(it, filter))]),
    ),
    await median(() =>
      sql.anyRows(
        `SELECT * FROM cost_entry e JOIN cost_line l ON l.id = e.cost_line_id WHERE e.job_id = $1 AND l.cost_type = 'material' AND e.posted_on <= $2 ORDER BY e.posted_on, e.id LIMIT 200 OFFSET 8000`,
        [job.id, asOf],
      ),
    ),
  );
  const jump = { asOf, offset: 500_000, limit: 200 };
  print(
    'a jump to the middle of the cost ledger of all jobs',
    await median(() => costLedgerPage(sql, jump)),
    await median(() =>
      sql.anyRows('SELECT * FROM cost_entry e WHERE e.posted_on <= $1 ORDER BY e.posted_on, e.id LIMIT 200 OFFSET 500000', [
        asOf,
      ]),
    ),
  );
  const { next } = await costLedgerPage(sql, jump);
  const after = JSON.parse(next ?? '[]') as (string | number)[];
  print(
    'reading on in the middle of the cost ledger',
    await median(() => costLedgerPage(sql, { asOf, after, limit: 200 })),
    await median(() =>
      sql.anyRows(
        'SELECT * FROM cost_entry e WHERE e.posted_on <= $1 AND (e.posted_on, e.id) > ($2, $3) ORDER BY e.posted_on, e.id LIMIT 200',
        [asOf, ...after],
      ),
    ),
    'goal 1.5',
  );
  const search = { asOf, search: 'entry 77777', limit: 200 };
  print(
    'a text searched for in all costs, with totals',
    await median(async () => [await costLedgerPage(sql, search), await costTotals(sql, search)]),
    await median(
      () => sql.anyRows(`SELECT id FROM cost_entry WHERE (reference || ' ' || party || ' ' || description) LIKE '%entry 77777%'`),
      3,
    ),
    'goal 200 ms',
  );
  print(
    'ageing',
    await median(() => REPORTS.ageing(sql, { asOf })),
    await median(() => sql.anyRows('SELECT * FROM application WHERE certified_on <= $1', [asOf])),
  );
  print(
    'tie-out',
    await median(() => REPORTS['tie-out'](sql, { asOf }), 3),
    await median(() => sql.anyRows('SELECT sum(amount) AS amount FROM cost_entry WHERE posted_on <= $1', [asOf]), 3),
  );
}

async function benchEstimate(): Promise<void> {
  const { edit, firstReading, bare } = estimateWork();
  const least = await median(bare, 21);
  print(`an estimate of ${ESTIMATE_LINES} lines after one cell changed`, await median(edit, 21), least, 'goal 50 ms');
  print('the same read and priced for the first time', await median(firstReading, 21), least, 'goal 50 ms');
}

if (process.argv.includes('--time')) {
  await benchTime(print);
  await benchGrid(print);
  process.exit(0);
}
if (process.argv.includes('--charging')) {
  await benchCharging((work) => median(work, 5), print);
  process.exit(0);
}
await benchEstimate();
if (process.argv.includes('--estimate')) process.exit(0);
console.log('building the book (once) …');
await makeBook(BOOK);
await benchImport();
const database = await openDatabase(FILE);
await database.read(benchQueries);
await database.close();
await benchTime(print);
await benchCharging((work) => median(work, 5), print);
await benchGrid(print);
await benchRights(FILE, median, print);
await benchWaits(FILE, BOOK, print);
