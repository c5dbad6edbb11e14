import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import request from 'supertest';
import { NO_MORE } from '../../core/masters/masters';
import type { Database } from '../db/database';
import { cleanUp, savingNothing, faultsOf, temporaryDatabase, LABOUR_BOOK } from '../test/books';
import { cost, POSTS, spoilt } from '../test/postedBodies';
import { testApp } from '../test/testApp';

let database: Database;
let app: ReturnType<typeof testApp>;
const logged: unknown[] = [];

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, LABOUR_BOOK)).toEqual([]);
  app = testApp(database, logged);
});
afterAll(cleanUp);

/** What a page has read of it just before: the version or the digest that goes back with a change. */
async function opened(path: string, body: Record<string, unknown>): Promise<Record<string, unknown>> {
  const get = async (from: string) => (await request(app).get(from)).body as Record<string, never>;
  const file = /^(.*)\/(facts|people|checklist)$/.exec(path);
  if (file) return { seen: (await get(`${file[1]}/file`)).seen![file[2]!] };
  if (/\/(plan|billing-schedule)$/.test(path)) return { seen: (await get(`${path}?asOf=2031-04`)).seen };
  if (path.endsWith('/reprice')) return { seen: (await get(path)).seen };
  if (/\/prices\/(move|parts)$/.test(path)) {
    const input = { ...body, seen: undefined };
    return { seen: (await request(app).post(`${path}/preview`).send(input)).body.seen };
  }
  if (/\/(estimates|quotations)\/\w+$/.test(path)) return { version: (await get(path)).version };
  if (/\/(changes|applications)\/\w+$/.test(path)) return { version: (await get(`${path}?asOf=2031-04`)).version };
  if (path.endsWith('/certify')) return { version: null };
  return {};
}

describe('bad input', () => {
  test.each([...POSTS])(
    '%s, %s %s: no field made bad brings it down',
    async (_name, method, path, body) => {
      let now = await opened(path, body);
      expect(Object.values(now)).not.toContain(undefined);
      let refused = 0;
      for (const [where, bad] of spoilt(body)) {
        // A digest or a version that is bad itself stays so.
        if (!Object.keys(now).includes(where)) Object.assign(bad as object, now);
        const reply = await request(app)
          [method](path)
          .send(bad as object);
        if (reply.status >= 500) throw new Error(`${where} = ${JSON.stringify(bad).slice(0, 200)} gave ${reply.status}`);
        if (reply.status < 400) {
          now = await opened(path, body);
          continue;
        }
        refused += 1;
        expect(reply.body.message.length).toBeGreaterThan(5);
      }
      if (Object.keys(body).length > 1) expect(refused).toBeGreaterThan(0);
      expect(logged).toEqual([]);
    },
    60_000,
  );

  test.each([...POSTS])(
    '%s, %s %s: an unknown key, a missing one and no object at all name what is wrong, and change nothing',
    async (_name, method, path, given) => {
      const body = { ...given, ...(await opened(path, given)) };
      const send = (bad: object | string) =>
        savingNothing(database, () => request(app)[method](path).set('Content-Type', 'application/json').send(bad));
      const unknown = await send({ ...body, surprise: 1 });
      expect([unknown.status, unknown.body.faults[0].field]).toEqual([400, 'surprise']);
      const first = Object.keys(body)[0]!;
      const missing = await send(Object.fromEntries(Object.entries(body).slice(1)));
      expect([missing.status, missing.body.faults[0]]).toEqual([400, { field: first, message: 'is missing' }]);
      for (const raw of ['', '[]', '"text"', '{', '12']) expect((await send(raw)).status).toBe(400);
    },
  );

  test('what saves something is noticed, and what only reads is not', async () => {
    await savingNothing(database, () => request(app).get('/api/jobs?asOf=2031-04').expect(200));
    let made = 0;
    const saving = () =>
      request(app)
        .post('/api/masters/departments')
        .send({ ...NO_MORE, code: `D${made++}`, name: 'Tried', closed: false })
        .expect(201);
    await expect(savingNothing(database, saving)).rejects.toThrow('Something was saved');
  });

  test('a body of 10 MB is refused as too large', async () => {
    const reply = await request(app)
      .post('/api/costs')
      .send({ lines: [{ ...cost, description: 'x'.repeat(10_000_000) }], asOf: '2031-03-31' });
    expect([reply.status, reply.body.code]).toEqual([413, 'too-large']);
  });

  test('the field is named down to its line', async () => {
    const reply = await request(app)
      .post('/api/costs')
      .send({ lines: [cost, { ...cost, amount: '12' }, { ...cost, dated: '30.4.2031' }], asOf: '2031-03-31' });
    expect(reply.body.faults).toEqual([
      { field: 'lines.1.amount', message: 'expected an amount in whole minor units' },
      { field: 'lines.2.dated', message: 'expected a date such as 2031-04-30' },
    ]);
  });

  test.each([
    '/api/jobs',
    '/api/jobs?asOf=2031-13',
    '/api/jobs?asOf[]=1',
    '/api/jobs/none?asOf=2031-04',
    '/api/jobs/%00?asOf=2031-04',
    "/api/jobs/J1'--?asOf=2031-04",
    '/api/jobs/J1/applications/x?asOf=2031-04',
    '/api/jobs/J1/applications/99?asOf=2031-04',
    '/api/postings/999',
    '/api/postings/1e3',
    '/api/postings?asOf=2031-04&offset=-1',
    '/api/costs?asOf=2031-04&sort=DROP',
    '/api/costs?asOf=2031-04&nothing=1',
    '/api/costs?asOf=2031-04&limit=1000000',
    '/api/costs/subtotals?asOf=2031-04&by=rowid',
    '/api/reports/none?asOf=2031-04',
    '/api/reports/wip.exe?asOf=2031-04',
    '/api/reports/application?asOf=2031-04',
    '/api/reports/__proto__?asOf=2031-04',
    '/api/workings?asOf=2031-04&figure=constructor',
    '/api/workings?asOf=2031-04&figure=earned&job=x',
    '/api/workings?asOf=2031-04&figure=lineActual&job=J1&line=99',
    '/api/workings?asOf=2031-04&figure=net&job=J1&application=9',
    '/api/prices/items/none/history',
    '/api/answer/none',
    '/api/attachments/99',
    '/api/jobs/none/file',
    '/api/answer/none/document.pdf',
    '/api/messages/99/file',
    '/api/jobs/J2/quotations/99',
    '/api/jobs/J1/changes/none?asOf=2031-04',
    '/api/jobs/J1/changes/C1/document.exe',
    '/api/jobs/J2/estimates/99',
    '/api/jobs/J2/estimates/x',
    '/api/jobs/none/estimates',
    '/api/nothing',
    '/api/%E0%A4%A',
  ])('GET %s is 4xx with a message', async (path) => {
    const reply = await request(app).get(path);
    expect(reply.status).toBeGreaterThanOrEqual(400);
    expect(reply.status).toBeLessThan(500);
    expect(reply.body.message.length).toBeGreaterThan(5);
    expect(logged).toEqual([]);
  });

  test('a page of another site may not post', async () => {
    const reply = await request(app).post('/api/drafts').set('Origin', 'http://elsewhere.example').send({ content: {} });
    expect(reply.status).toBe(409);
  });
});
