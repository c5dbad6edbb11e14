import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import type { Query } from '../db/query';
import { cleanUp, temporaryDatabase } from './books';

afterAll(cleanUp);

let database: Database;
beforeAll(async () => {
  database = await temporaryDatabase();
});

const server = join(import.meta.dirname, '..');
const sources = readdirSync(server, { recursive: true, encoding: 'utf8' }).filter((it) => /\.ts$/.test(it) && !/test/.test(it));
const queryFiles = sources.filter((it) => /(^|\/|[a-z]Q)ueries\.ts$|\/queries\.ts$/.test(it));

const filter = { asOf: '2031-05-31', job: 'J1', search: 'pump', costCode: '03-100', after: ['2031-05-01', 1] } as never;
const condition = () => ({ where: ['1'], bind: [], needsLine: true });
/** What queries that are made are made of here; those not named take the id of a job, or null for all. */
const MADE_OF: Record<string, readonly (readonly unknown[])[]> = {
  postingsInOrder: (['dated', 'id', 'total'] as const).map((by) => [['p.id > 0'], by, 'DESC', 3]),
  postingCount: [[['p.id > 0']]],
  ledgerTotals: [[condition()]],
  newestAudits: [[['true'], 5]],
  ledgerRows: [[filter, condition(), 3]],
  subtotals: ['month', 'job', 'section', 'code', 'type', 'party'].map((by) => [by, ['1'], 'e.party']),
  conditionOf: [[filter, { job: 1, costCode: 2 }]],
  partyOf: [[filter]],
  keysOf: [[filter]],
  allThreesOf: [['pump']],
  isThere: [['cost_entry']],
  monthlySubtotals: ['job', 'section', 'code', 'type'].map((by) => [by, []]),
};

const isQuery = (it: unknown): it is Query => typeof it === 'object' && it !== null && 'sql' in it;

async function declared(): Promise<(readonly [name: string, query: Query])[]> {
  const found: (readonly [string, Query])[] = [];
  for (const file of queryFiles) {
    const exported = (await import(join(server, file))) as Record<string, unknown>;
    for (const [name, it] of Object.entries(exported)) {
      if (isQuery(it)) found.push([`${file} ${name}`, it]);
      if (typeof it !== 'function') continue;
      for (const args of MADE_OF[name] ?? [[null], [1]]) {
        const made = (it as (...args: unknown[]) => unknown)(...args);
        if (isQuery(made)) found.push([`${file} ${name}(${JSON.stringify(args)})`, made]);
      }
    }
  }
  return found;
}

test('every query gives the columns its row declares', async () => {
  const queries = await declared();
  expect(queries.length).toBeGreaterThan(120);
  const wrong: unknown[] = [];
  for (const [name, { sql: text, fields }] of queries)
    await database.write(async (sql) => {
      // A view knows its columns though there are no rows; it takes no bound values.
      await sql.run(`CREATE TEMP VIEW tried AS ${text.replaceAll(/\$\d+/g, 'NULL')}`);
      const columns = (await sql.anyRows('PRAGMA temp.table_info(tried)')).map((it) => it.name);
      await sql.run('DROP VIEW temp.tried');
      const names = Object.keys(fields);
      if (JSON.stringify([...columns].sort()) !== JSON.stringify([...names].sort())) wrong.push([name, columns, names]);
    });
  expect(wrong).toEqual([]);
});

test('SQL by hand stands in query files, in the files of the book and in the database alone', () => {
  const elsewhere = sources.filter(
    (it) =>
      !queryFiles.includes(it) &&
      !/^db\/|[bB]ookFiles?\.ts$|^estimates\/awardFiles\.ts$|^book(Format)?\//.test(it) &&
      /['"`]\s*(SELECT|WITH|INSERT INTO|UPDATE|DELETE FROM)\s/.test(readFileSync(join(server, it), 'utf8')),
  );
  expect(elsewhere).toEqual([]);
});
