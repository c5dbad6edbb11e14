import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import type { Database } from '../db/database';
import { cleanUp, faultsOf, LABOUR_TERMS, SMALL_BOOK, temporaryDatabase, TIME_HEAD } from '../test/books';
import { OWNER, testApp } from '../test/testApp';

let database: Database;
beforeAll(async () => {
  database = await temporaryDatabase();
  expect(
    await faultsOf(database, { ...SMALL_BOOK, ...LABOUR_TERMS, time: `${TIME_HEAD}7,1,E1,2031-03-03,,J1,A,100,,,,9.5,,,\n` }),
  ).toEqual([]);
});
afterAll(cleanUp);

const appOf = (role: 'owner' | 'accountant' | 'manager' | 'estimator') =>
  testApp(database, [], { whoIs: () => Promise.resolve({ ...OWNER, role, allJobs: true }) });

test.each(['owner', 'accountant'] as const)('%s sees in the cost ledger who worked, and at which rate', async (role) => {
  const { rows } = (await request(appOf(role)).get('/api/costs?asOf=2031-04-30&search=E1')).body;
  expect(rows[0]).toMatchObject({ party: 'E1', worked: { name: 'Ann Ash', rate: 225_000, sheet: '7' } });
});

test.each(['manager', 'estimator'] as const)(
  '%s sees the cost of time, and neither who earns it nor at which rate',
  async (role) => {
    const app = appOf(role);
    const get = async (path: string) => (await request(app).get(path).expect(200)).body;
    const all = (await request(appOf('owner')).get('/api/costs/totals?asOf=2031-04-30')).body;
    expect(await get('/api/costs/totals?asOf=2031-04-30')).toEqual(all);
    const { rows } = await get('/api/costs?asOf=2031-04-30&sort=party');
    expect(rows).toHaveLength(all.count);
    expect(rows.map((it: { worked: unknown }) => it.worked)).toEqual(rows.map(() => null));
    const csv = (await request(app).get('/api/costs.csv?asOf=2031-04-30').expect(200)).text;
    expect(JSON.stringify(rows) + csv).not.toMatch(/"E1"|,E1,|Ann Ash/);
    // Neither by whom it is, nor by a search, nor by subtotals.
    expect((await get('/api/costs?asOf=2031-04-30&party=E1')).rows).toEqual([]);
    expect((await get('/api/costs?asOf=2031-04-30&search=E1')).rows).toEqual([]);
    const parties = await get('/api/costs/subtotals?asOf=2031-04-30&by=party');
    expect(parties.map((it: { key: string }) => it.key)).not.toContain('E1');
  },
);
