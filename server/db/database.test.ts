import { query } from './query';
import { InvoiceTable } from '../billing/models';
import { ClientTable, CostCodeTable } from '../company/models';
import { shape, t } from './fields';
import { reading } from '../test/act';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import sqlite3 from 'sqlite3';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import { cleanUp, temporaryDatabase, temporaryFolder } from '../test/books';
import { record } from '../acts/audit';
import { MIGRATIONS } from './migrations/index';
import { openDatabase, type Database } from './database';
import { nextId, type Reader } from './sql';

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
  (await reading(database).all(query(shape({ code: t.text }), 'SELECT code FROM cost_code ORDER BY id'))).map((row) => row.code);

describe('every connection', () => {
  test.each([
    ['foreign_keys', 1],
    ['synchronous', 2],
    ['busy_timeout', 10_000],
    ['journal_mode', 'wal'],
  ])('has %s = %s', async (pragma, value) => {
    for (let i = 0; i < 4; i++) expect(Object.values((await reading(database).anyRows(`PRAGMA ${pragma}`))[0]!)).toEqual([value]);
    await database.write(async (sql) => expect(Object.values((await sql.anyRows(`PRAGMA ${pragma}`))[0]!)).toEqual([value]));
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

  test('what still runs when a transaction has failed is not saved by itself', async () => {
    let rest = Promise.resolve();
    const failing = database.write(async (sql) => {
      const insert = (code: string) => sql.run(`INSERT INTO cost_code (code, description, unit) VALUES ('${code}', 'x', '')`);
      rest = new Promise<void>((done) => setTimeout(done, 30)).then(() => insert('3'));
      rest.catch(() => undefined);
      await insert('1');
      throw new Error('half way');
    });
    await expect(failing).rejects.toThrow('half way');
    await expect(rest).rejects.toThrow('the transaction has ended');
    expect(await codes()).toEqual([]);
  });

  test('into a file that was deleted meanwhile is refused', async () => {
    const gone = await temporaryDatabase();
    rmSync(gone.file);
    await expect(gone.write((sql) => sql.run('DELETE FROM cost_code'))).rejects.toThrow('was moved or deleted');
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
    const rows = Array.from({ length: 12_000 }, (_, i) => ({
      code: `c${i}`,
      description: i % 2 ? 'ł "quoted" \n line' : '',
      unit: '',
    }));
    await database.write((sql) => sql.insertAll(CostCodeTable, rows));
    const [count, one] = await Promise.all([
      reading(database).get(query(shape({ n: t.whole }), 'SELECT count(*) AS n FROM cost_code')),
      reading(database).get(
        query(
          shape({ description: t.text, t: t.text }),
          `SELECT description, typeof(description) AS t FROM cost_code WHERE code = 'c1'`,
        ),
      ),
    ]);
    expect([count, one]).toEqual([{ n: 12_000 }, { description: 'ł "quoted" \n line', t: 'text' }]);
    await database.write(async (sql) => expect(await nextId(sql, CostCodeTable)).toBe(12_001));
    await database.write((sql) =>
      sql.insertAll(
        ClientTable,
        [
          { code: 'A', name: 'a', terms_days: null },
          { code: 'B', name: 'b', terms_days: 14 },
        ].map((it) => ({ ...it, contact: '', email: '', phone: '', address: '' })),
      ),
    );
    expect(await reading(database).anyRows('SELECT terms_days, typeof(terms_days) AS t FROM client ORDER BY code')).toEqual([
      { terms_days: null, t: 'null' },
      { terms_days: 14, t: 'integer' },
    ]);
  });
});

describe('a read', () => {
  const count = (sql: Reader) => sql.get(query(shape({ n: t.whole }), 'SELECT count(*) AS n FROM cost_code'));

  test('is one snapshot: what is saved meanwhile is not in it, and waits for nothing', async () => {
    const seen = await database.read(async (sql) => {
      const before = await count(sql);
      await addCode('between');
      return [before, await count(sql)];
    });
    expect(seen).toEqual([{ n: 0 }, { n: 0 }]);
    expect(await database.read(count)).toEqual({ n: 1 });
  });

  test('cannot write, whatever it says', async () => {
    await expect(
      database.read((sql) => sql.anyRows(`INSERT INTO cost_code (code, description, unit) VALUES ('1', 'x', '')`)),
    ).rejects.toThrow(/readonly/);
  });
});

test('a database is opened again as it was left, and its folder is made', async () => {
  const file = join(temporaryFolder(), 'deep', 'er', 'books.sqlite');
  const first = await openDatabase(file);
  await first.write((sql) => sql.run(`INSERT INTO cost_code (code, description, unit) VALUES ('kept', '', '')`));
  await first.close();
  const second = await openDatabase(file);
  expect(await reading(second).anyRows('SELECT code FROM cost_code')).toEqual([{ code: 'kept' }]);
  expect((await reading(second).anyRows('SELECT name FROM schema_migration')).length).toBe(MIGRATIONS.length);
  await second.close();
});

test('a database of the first schema is brought up to date with every change order and line it had', async () => {
  const file = join(temporaryFolder(), 'old.sqlite');
  const old = new sqlite3.Database(file);
  const run = (text: string) => new Promise<void>((done, fail) => old.exec(text, (error) => (error ? fail(error) : done())));
  for (const statement of MIGRATIONS[0]!.statements) await run(statement);
  await run(`CREATE TABLE schema_migration (name TEXT PRIMARY KEY, ran_at TEXT NOT NULL);
    INSERT INTO schema_migration VALUES ('${MIGRATIONS[0]!.name}', '2031-01-01');
    INSERT INTO customer VALUES (1, 'C', 'C', '', '', '', '', NULL);
    INSERT INTO job (id, number, name, customer_id, contract_reference, status, awarded_on, manager, site, revenue_method, retention_rate, retention_step_applies, tax_rate)
      VALUES (1, 'J', 'J', 1, '', 'on-site', '2031-01-01', '', '', 'cost-to-cost', 0, 'all', 0);
    INSERT INTO sov_line VALUES (1, 1, '1', 0, 1, '', 'x', 100, NULL, '', NULL);
    INSERT INTO change_order VALUES (4, 1, 'C1', 't', 'approved', '2031-01-02', NULL, '2031-01-03', 'r'), (5, 1, 'C2', 't', 'draft', '2031-01-02', NULL, NULL, '');
    INSERT INTO change_order_line (id, change_order_id, side, sov_line_id, description, section, unit, amount) VALUES (7, 4, 'price', 1, '', '', '', 55);
    INSERT INTO paper VALUES (1, 'application', 1, '1', '2031-02-05', 'a', '2031-02-05', NULL, ''), (2, 'retention-release', 1, 'Half', '2031-03-01', 'a', '2031-03-01', NULL, ''),
      (3, 'receipt', 1, 'b', '2031-03-08', 'a', '2031-03-08', NULL, ''), (4, 'receipt', 1, 'c', '2031-03-09', 'a', '2031-03-09', NULL, ''), (5, 'opening-cost', NULL, 'costs.csv', '2031-01-10', 'a', '2031-01-10', NULL, '');
    INSERT INTO application VALUES (9, 1, 1, '2031-01-31', 'certified', '2031-02-05', '', 1, 1000, 50, 950, 190);
    INSERT INTO retention_release VALUES (6, 1, '2031-03-01', 20, 4, 'Half', 2);
    INSERT INTO receipt VALUES (1, 1, 9, NULL, '2031-03-08', 1140, 'b', 3), (2, 1, NULL, 6, '2031-03-09', 24, 'c', 4);
    INSERT INTO cost_code VALUES (1, '100', 'x', '');
    INSERT INTO cost_line VALUES (1, 1, '', 1, 'labour');
    INSERT INTO cost_entry VALUES (1, 5, 1, 1, '2031-01-10', 700, NULL, 8, 'r', '', '', NULL, 0, NULL);`);
  await new Promise((done) => old.close(done));
  const opened = await openDatabase(file);
  const sql = reading(opened);
  expect(await sql.anyRows('SELECT id, number, status, decided_on, reference, version FROM change_order ORDER BY id')).toEqual([
    { id: 4, number: 'C1', status: 'approved', decided_on: '2031-01-03', reference: 'r', version: 1 },
    { id: 5, number: 'C2', status: 'draft', decided_on: null, reference: '', version: 1 },
  ]);
  expect(await sql.anyRows('SELECT id, change_order_id, amount, asked FROM change_order_line')).toEqual([
    { id: 7, change_order_id: 4, amount: 55, asked: null },
  ]);
  await expect(opened.write((inside) => inside.run('UPDATE change_order_line SET amount = 1'))).rejects.toThrow();
  // Due 30 days after 5 February and 1 March 2031; 950 + 190 and 20 + 4 to pay.
  expect(await sql.find(InvoiceTable, {}, ['id'])).toMatchObject([
    { kind: 'application', reference: '1', dated: '2031-01-31', posted_on: '2031-02-05', due_on: '2031-03-07', payable: 1140 },
    { kind: 'release', reference: 'Half', dated: '2031-03-01', posted_on: '2031-03-01', due_on: '2031-03-31', payable: 24 },
  ]);
  expect(
    await sql.anyRows('SELECT r.id, i.reference FROM receipt r JOIN invoice i ON i.id = r.invoice_id ORDER BY r.id'),
  ).toEqual([
    { id: 1, reference: '1' },
    { id: 2, reference: 'Half' },
  ]);
  expect(await sql.anyRows('SELECT dated, posted_on, amount FROM cost_entry')).toEqual([
    { dated: '2031-01-10', posted_on: '2031-01-10', amount: 700 },
  ]);
  await expect(opened.write((inside) => inside.run('UPDATE cost_entry SET amount = 1'))).rejects.toThrow();
  await opened.close();
});
