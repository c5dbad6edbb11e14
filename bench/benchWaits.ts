import { rmSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { setTimeout as pause } from 'node:timers/promises';
import { loadCompany } from '../server/company/company';
import { openDatabase, type Database } from '../server/db/database';
import { REPORTS } from '../server/reports/index';
import { Workers } from '../server/workers/workers';

const FRESH = 'data/bench/waits.sqlite';

/** The worst wait of a small read, in milliseconds, while `work` runs; with nothing to do, for half a second. */
async function worstWait(database: Database, work: () => Promise<unknown>): Promise<number> {
  let going = true;
  const done = work().finally(() => (going = false));
  let worst = 0;
  while (going) {
    const start = performance.now();
    await database.read((sql) => sql.anyRows('SELECT count(*) AS n FROM job WHERE id = 1'));
    worst = Math.max(worst, performance.now() - start);
    await pause(5);
  }
  await done;
  return worst;
}

/** How long somebody waits for a small read beside what is heavy, and beside nothing. */
export async function benchWaits(
  file: string,
  book: string,
  print: (what: string, ours: number, bare: number, note?: string) => void,
): Promise<void> {
  const database = await openDatabase(file);
  const workers = new Workers();
  const asOf = '2030-12-31';
  const report = await database.read((sql) => REPORTS.wip(sql, { asOf }));
  const company = await database.read(loadCompany);
  if (!company) throw new Error('the bench has no company');
  const stores = { files: `${file}-files`, outbox: `${file}-outbox` };
  const forget = () => ['', '-wal', '-shm'].forEach((tail) => rmSync(FRESH + tail, { force: true }));
  forget();
  await (await openDatabase(FRESH)).close();
  const asked = { name: 'import-book', actor: { name: 'bench', at: '2031-01-01T00:00:00Z' } };
  const idle = await worstWait(database, () => pause(500));
  const heavy: [string, () => Promise<unknown>][] = [
    ['a report of 1,000 jobs as PDF', () => workers.run('reportPdf', report, company, asOf)],
    ['the same as XLSX', () => workers.run('reportXlsx', report, company)],
    ['an export of 1,000,000 costs as ZIP', () => workers.run('exportZip', file, stores)],
    ['an import of 1,000,000 costs', () => workers.run('importBookAlone', FRESH, asked, book, stores)],
    [
      'twenty who sign in at once',
      () => Promise.all(Array.from({ length: 20 }, () => workers.run('matchesPassword', 'rain on the roof', ''))),
    ],
    ['work in progress of all jobs', () => database.read((sql) => REPORTS.wip(sql, { asOf }))],
  ];
  for (const [what, work] of heavy)
    print(`worst wait of a small read beside ${what}`, await worstWait(database, work), idle, 'goal 100 ms');
  await workers.close();
  await database.close();
  forget();
}
