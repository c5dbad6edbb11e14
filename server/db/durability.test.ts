import { query } from './query';
import { shape, t } from './fields';
import { reading } from '../test/act';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import { afterAll, beforeEach, expect, test } from '@jest/globals';
import sqlite3 from 'sqlite3';
import { openDatabase, type Database } from './database';
import { cleanUp, differences, faultsOf, SMALL_BOOK, temporaryDatabase, temporaryFolder } from '../test/books';

const TIES = ['0.00', '0.00', '0.00', '0.00', '0.00'];
let database: Database;

beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
});
afterAll(cleanUp);

test('a server killed in the middle of posting leaves books that tie', async () => {
  const file = join(temporaryFolder(), 'killed.sqlite');
  const first = await openDatabase(file);
  expect(await faultsOf(first, SMALL_BOOK)).toEqual([]);
  await first.close();
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/test/postForEver.ts', file], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await once(child.stdout!, 'data');
  await new Promise((done) => setTimeout(done, 400));
  child.kill('SIGKILL');
  await once(child, 'exit');
  const after = await openDatabase(file);
  try {
    const { count } = (await reading(after).get(
      query(shape({ count: t.whole }), `SELECT count(*) AS count FROM posting WHERE kind = 'cost-batch'`),
    ))!;
    expect(count).toBeGreaterThan(0);
    expect(await differences(after, '2031-12-31')).toEqual(TIES);
    const halves = await reading(after).anyRows(
      `SELECT p.id FROM posting p WHERE p.kind = 'cost-batch' AND ((SELECT count(*) FROM cost_entry WHERE posting_id = p.id) <> 40 OR (SELECT count(*) FROM journal WHERE posting_id = p.id) <> 1)`,
    );
    expect(halves).toEqual([]);
    const [totals] = await reading(after).all(
      query(
        shape({ cost: t.cents }),
        'SELECT sum(cost) AS cost FROM cost_total t WHERE month = (SELECT max(month) FROM cost_total x WHERE x.cost_line_id = t.cost_line_id)',
      ),
    );
    const [entries] = await reading(after).all(query(shape({ cost: t.cents }), 'SELECT sum(amount) AS cost FROM cost_entry'));
    expect(totals).toEqual(entries);
  } finally {
    await after.close();
  }
});

test('a database of a newer version is refused and left alone', async () => {
  const file = join(temporaryFolder(), 'newer.sqlite');
  await (await openDatabase(file)).close();
  await new Promise<void>((done) => {
    const raw = new sqlite3.Database(file);
    raw.exec(`INSERT INTO schema_migration VALUES ('0099-from-the-future', '')`, () => raw.close(() => done()));
  });
  await expect(openDatabase(file)).rejects.toThrow(/newer Ledrin \(it has 0099-from-the-future\)/);
});
