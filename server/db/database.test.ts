import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import { cleanUp, temporaryDatabase, temporaryFolder } from '../test/books';
import { record } from '../commands/post';
import { MIGRATIONS } from './migrations/index';
import { openDatabase, type Database } from './database';
import { bulkInsert, nextId } from './sql';

const actor = { name: 'tester', at: '2031-01-01T00:00:00Z' };
let database: Database;

beforeEach(async () => {
  database = await temporaryDatabase();
});
afterAll(cleanUp);

const addCode = (code: string) =>
  database.write(async (sql) => {
    await sql.run(`INSERT INTO cost_code (code, description, unit) VALUES ($1, 'x', '')`, [code]);
    await record(sql, actor, 'test', code, {});
  });
const codes = async () =>
  (await database.read().all<{ code: string }>('SELECT code FROM cost_code ORDER BY id')).map((row) => row.code);

describe('every connection', () => {
  test.each([
    ['foreign_keys', 1],
    ['synchronous', 2],
    ['busy_timeout', 10_000],
    ['journal_mode', 'wal'],
  ])('has %s = %s', async (pragma, value) => {
    for (let i = 0; i < 4; i++) expect(Object.values((await database.read().get(`PRAGMA ${pragma}`))!)).toEqual([value]);
    await database.write(async (sql) => expect(Object.values((await sql.get(`PRAGMA ${pragma}`))!)).toEqual([value]));
  });
});

describe('writing', () => {
  test('goes one at a time, in the order asked for', async () => {
    const order: string[] = [];
    const slow = database.write(async (sql) => {
      await sql.run(`INSERT INTO cost_code (code, description, unit) VALUES ('1', 'x', '')`);
      await new Promise((done) => setTimeout(done, 50));
      order.push('slow');
    });
    const quick = database.write(async (sql) => {
      order.push('quick');
      await sql.run(`INSERT INTO cost_code (code, description, unit) VALUES ('2', 'x', '')`);
    });
    await Promise.all([slow, quick]);
    expect([order, await codes()]).toEqual([
      ['slow', 'quick'],
      ['1', '2'],
    ]);
  });

  test('keeps nothing of what fails, and goes on with the next', async () => {
    const failing = database.write(async (sql) => {
      await sql.run(`INSERT INTO cost_code (code, description, unit) VALUES ('1', 'x', '')`);
      throw new Error('half way');
    });
    const next = addCode('2');
    await expect(failing).rejects.toThrow('half way');
    await next;
    expect(await codes()).toEqual(['2']);
  });

  test('holds to the references between tables', async () => {
    await expect(
      database.write((sql) =>
        sql.run(`INSERT INTO cost_line (job_id, section, cost_code_id, cost_type) VALUES (9, '', 9, 'labour')`),
      ),
    ).rejects.toThrow();
  });

  test('binds values and never pastes them', async () => {
    await addCode(`x'); DROP TABLE cost_code; --`);
    expect(await codes()).toEqual([`x'); DROP TABLE cost_code; --`]);
  });

  test('many rows at once keep their types, nulls and any text', async () => {
    const rows = Array.from({ length: 12_000 }, (_, i) => [`c${i}`, i % 2 ? 'ł "quoted" \n line' : '', '']);
    await database.write((sql) => bulkInsert(sql, 'cost_code', ['code', 'description', 'unit'], rows));
    const [count, one] = await Promise.all([
      database.read().get('SELECT count(*) AS n FROM cost_code'),
      database.read().get(`SELECT description, typeof(description) AS t FROM cost_code WHERE code = 'c1'`),
    ]);
    expect([count, one]).toEqual([{ n: 12_000 }, { description: 'ł "quoted" \n line', t: 'text' }]);
    await database.write(async (sql) => expect(await nextId(sql, 'cost_code')).toBe(12_001));
    await database.write((sql) =>
      bulkInsert(
        sql,
        'customer',
        ['code', 'name', 'contact', 'email', 'phone', 'address', 'terms_days'],
        [
          ['A', 'a', '', '', '', '', null],
          ['B', 'b', '', '', '', '', 14],
        ],
      ),
    );
    expect(await database.read().all('SELECT terms_days, typeof(terms_days) AS t FROM customer ORDER BY code')).toEqual([
      { terms_days: null, t: 'null' },
      { terms_days: 14, t: 'integer' },
    ]);
  });
});

describe('a consistent read', () => {
  test('is made again where a posting came in between', async () => {
    let tries = 0;
    const seen = await database.consistent(async (sql) => {
      tries += 1;
      const before = await sql.get<{ n: number }>('SELECT count(*) AS n FROM cost_code');
      if (tries === 1) await addCode('between');
      const after = await sql.get<{ n: number }>('SELECT count(*) AS n FROM cost_code');
      return [before!.n, after!.n];
    });
    expect([tries, seen]).toEqual([2, [1, 1]]);
  });

  test('gives up waiting for quiet after a few tries, rather than never answering', async () => {
    let tries = 0;
    await database.consistent(async () => addCode(`again ${(tries += 1)}`));
    expect(tries).toBe(6);
  });
});

test('a database is opened again as it was left, and its folder is made', async () => {
  const file = join(temporaryFolder(), 'deep', 'er', 'books.sqlite');
  const first = await openDatabase(file);
  await first.write((sql) => sql.run(`INSERT INTO cost_code (code, description, unit) VALUES ('kept', '', '')`));
  await first.close();
  const second = await openDatabase(file);
  expect(await second.read().all('SELECT code FROM cost_code')).toEqual([{ code: 'kept' }]);
  expect((await second.read().all('SELECT name FROM schema_migration')).length).toBe(MIGRATIONS.length);
  await second.close();
});
