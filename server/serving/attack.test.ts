import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import request from 'supertest';
import writeExcelFile from 'write-excel-file/node';
import type { Database } from '../db/database';
import { cleanUp, differences, faultsOf, temporaryDatabase, TENDER_BOOK } from '../test/books';
import { cost } from '../test/postedBodies';
import { OWNER, testApp } from '../test/testApp';
import { postCosts } from '../costs/postCosts';
import { act, reading } from '../test/act';

let database: Database;
let app: ReturnType<typeof testApp>;
let address: string;
const logged: unknown[] = [];
const TESTER = { name: 'tester', at: '2031-05-02T09:00:00.000Z' };

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, TENDER_BOOK)).toEqual([]);
  app = testApp(database, logged);
  if (!app.listening) await once(app, 'listening');
  address = `http://127.0.0.1:${(app.address() as AddressInfo).port}`;
});
afterAll(async () => {
  expect(logged).toEqual([]);
  await cleanUp();
});

const count = async (table: string) =>
  (await reading(database).get(query(shape({ n: t.whole }), `SELECT count(*) AS n FROM ${table}`)))!.n;
const batch = (amount: number, more = {}) => ({ lines: [{ ...cost, amount }], asOf: '2031-03-31', ...more });

test('a posting sent twice under one id, at once or later, is posted once with the same reply; another under it is refused', async () => {
  const before = await count('posting');
  const post = (amount: number) => request(app).post('/api/costs').set('Idempotency-Key', 'the-same-form-1').send(batch(amount));
  const [first, second] = await Promise.all([post(1234), post(1234)]);
  expect([first.status, second.status, second.body]).toEqual([201, 201, first.body]);
  expect((await post(1234)).body).toEqual(first.body);
  const other = await post(999);
  expect([other.status, other.body.faults[0].field]).toEqual([409, 'requestId']);
  expect(await count('posting')).toBe(before + 1);
  const odd = await request(app).post('/api/costs').set('Idempotency-Key', 'x').send(batch(1));
  expect([odd.status, odd.body.faults[0].field]).toEqual([400, 'Idempotency-Key']);
});

test('what was refused may be sent again under its id', async () => {
  const post = (job: string) =>
    request(app)
      .post('/api/costs')
      .set('Idempotency-Key', 'refused-first')
      .send({ lines: [{ ...cost, job }], asOf: '2031-03-31' });
  expect((await post('none')).status).toBe(400);
  expect((await post('J1')).status).toBe(201);
});

test('a posting carries what its preview showed: where the job has changed since it is refused with the difference', async () => {
  const { jobs } = (await request(app).post('/api/costs/preview').send(batch(100))).body;
  const shown = jobs.map((it: Record<'job', string> & Record<'estimate' | 'profit' | 'overUnder', [number, number]>) => ({
    job: it.job,
    estimate: it.estimate[0],
    profit: it.profit[0],
    overUnder: it.overUnder[0],
  }));
  const far = { lines: [{ ...cost, costCode: '200', amount: 5_000_000 }], asOf: '2031-03-31' };
  await request(app).post('/api/costs').send(far).expect(201);
  const late = await request(app).post('/api/costs').send(batch(100, { shown }));
  expect(late.status).toBe(409);
  expect(late.body.message).toMatch(
    /^The books have changed since the preview\. J1: estimate at completion was [\d,.]+, is [\d,.]+/,
  );
});

test('a preview and the effect of a change are shown while somebody writes, and leave nothing', async () => {
  const before = await count('posting');
  let release: () => void = () => {};
  const held = new Promise<void>((done) => (release = done));
  const writing = database.write(() => held);
  const preview = await request(app).post('/api/costs/preview').send(batch(777));
  const change = await request(app).get('/api/jobs/J1/changes/C2?asOf=2031-04');
  expect([preview.status, preview.body.total, change.status]).toEqual([200, 777, 200]);
  expect(change.body.effect).not.toBeNull();
  release();
  await writing;
  expect(await count('posting')).toBe(before);
});

test('reads that belong together see one moment, however much is posted meanwhile', async () => {
  let posting = true;
  const poster = (async () => {
    for (let i = 0; posting && i < 60; i++)
      await act(database, TESTER, postCosts, { lines: [{ ...cost, amount: 100 + i }], asOf: '2031-03-31' });
  })();
  for (let i = 0; i < 20; i++) {
    const rows = (await request(app).get('/api/reports/tie-out?asOf=2031-12')).body.rows as { difference: number }[];
    expect(rows.map((it) => it.difference)).toEqual(rows.map(() => 0));
  }
  posting = false;
  await poster;
  expect(new Set(await differences(database, '2031-12-31'))).toEqual(new Set(['0.00']));
});

test.each([
  ['a host that is none of ours', { Host: 'evil.example:4410' }, 'get'],
  ['a foreign origin', { Origin: 'http://evil.example' }, 'post'],
  ['an origin that is none', { Origin: 'null' }, 'post'],
  ['a host written as one number', { Host: '2130706433:4310' }, 'get'],
  ['an origin of another scheme', { Origin: 'https://localhost:4310', Host: 'localhost:4310' }, 'post'],
  ['an origin that is no address', { Origin: 'x' }, 'post'],
  ['a page of another site that reads', { 'Sec-Fetch-Site': 'cross-site', 'Sec-Fetch-Mode': 'no-cors' }, 'get'],
] as const)('%s is refused', async (_what, headers, method) => {
  const reply = await request(app)
    [method](method === 'get' ? '/api/session' : '/api/drafts')
    .set(headers)
    .send(method === 'get' ? undefined : { content: {} });
  expect([reply.status, reply.body.code]).toEqual([409, 'refused']);
});

test.each([
  ['700,000 lines', { lines: Array(700_000).fill(1), asOf: '2031-01-01' }, /^lines: expected at most 5,000 lines/],
  ['5,000 lines that are none', { lines: Array(5000).fill({}), asOf: '2031-01-01' }, /^lines\.0/],
  ['half a character', { lines: [{ ...cost, section: '\ud800' }], asOf: '2031-03-31' }, /section: has a character/],
  ['a control character', { lines: [{ ...cost, reference: 'a\u0000b' }], asOf: '2031-03-31' }, /reference: has a character/],
])('%s is bad input with a short reply', async (_what, body, message) => {
  const started = Date.now();
  const reply = await request(app).post('/api/costs').send(body);
  expect(reply.status).toBe(400);
  expect(reply.body.message).toMatch(message);
  expect(reply.body.faults.length).toBeLessThanOrEqual(200);
  expect(reply.text.length).toBeLessThan(60_000);
  expect(Date.now() - started).toBeLessThan(20_000);
});

test('a body nested 5,000 deep is refused, and names every object answers to are names like others', async () => {
  let nested: unknown = {};
  for (let i = 0; i < 5000; i++) nested = { a: nested };
  expect((await request(app).post('/api/costs').send({ lines: nested, asOf: '2031-03-31' })).status).toBe(400);
  const opened = (await request(app).get('/api/jobs/J2/estimates/1')).body;
  const { version, name, overhead, profit, rounding } = opened;
  const line = {
    line: '1',
    section: 'constructor',
    description: 'x',
    quantity: 1,
    unit: '',
    buildUp: '',
    markup: null,
    parts: [],
  };
  const saved = await request(app)
    .put('/api/jobs/J2/estimates/1')
    .send({
      version,
      name,
      overhead,
      profit,
      rounding,
      typeMarkups: [],
      sectionMarkups: [],
      lines: [line, { ...line, line: '2', section: '__proto__' }],
    });
  expect(saved.status).toBe(200);
  expect((await request(app).get('/api/jobs/J2/estimates')).status).toBe(200);
});

test.each(['9999-12', '2200-01', '1899-12', '0000-01', '2031-02-30'])('a view as of %s is bad input at once', async (asOf) => {
  expect((await request(app).get(`/api/jobs/J1/plan?asOf=${asOf}`)).status).toBe(400);
});

test('a body is not read before it is known that whoever sends it may: without a session, without the right, of a foreign job', async () => {
  const unreadable = '['.repeat(7_000_000);
  const send = (to: ReturnType<typeof testApp>, path: string) =>
    request(to).post(path).set('Content-Type', 'application/json').send(unreadable);
  const nobody = testApp(database, logged, { whoIs: () => Promise.resolve(null) });
  const site = testApp(database, logged, { whoIs: () => Promise.resolve({ ...OWNER, role: 'site' }) });
  const manager = testApp(database, logged, { whoIs: () => Promise.resolve({ ...OWNER, role: 'manager' }) });
  expect((await send(nobody, '/api/costs')).status).toBe(401);
  expect((await send(site, '/api/costs')).status).toBe(403);
  expect((await send(manager, '/api/jobs/J1/changes')).status).toBe(404);
  expect((await send(app, '/api/costs')).body.message).toBe('body: is nested deeper than 20 levels');
});

test.each(['/api/sign-in', '/api/sign-in/demo', '/api/first-owner', '/api/answer/x/accept'])(
  '%s takes little from whoever it is',
  async (path) => {
    const nobody = testApp(database, logged, { whoIs: () => Promise.resolve(null) });
    const body = `[${'[],'.repeat(30_000)}[]]`;
    expect((await request(nobody).post(path).set('Content-Type', 'application/json').send(body)).status).toBe(413);
  },
);

test('the day of a move is a real day', async () => {
  const reply = await request(app).post('/api/jobs/J1/status').send({ status: 'closing-out', on: 'banana' });
  expect([reply.status, reply.body.faults[0].field]).toEqual([400, 'on']);
});

test('a batch whose total no amount can hold is refused, and the books tie', async () => {
  const lines = Array.from({ length: 2000 }, () => ({ ...cost, amount: 9_999_999_999_999 }));
  const reply = await request(app).post('/api/costs').send({ lines, asOf: '2031-03-31' });
  expect([reply.status, reply.body.faults[0].field]).toEqual([400, 'lines']);
});

test('exports given up half-way leave a server that answers and no folders behind', async () => {
  const folders = () => readdirSync(tmpdir()).filter((it) => it.startsWith('ledrin-export-')).length;
  const before = folders();
  for (let i = 0; i < 6; i++) {
    const control = new AbortController();
    const asked = fetch(`${address}/api/book/export`, { signal: control.signal });
    if (i % 2 === 0) await asked;
    control.abort();
    await asked.catch(() => undefined);
  }
  expect((await fetch(`${address}/api/session`)).status).toBe(200);
  for (let waited = 0; folders() > before && waited < 100; waited++) await new Promise((done) => setTimeout(done, 100));
  expect(folders()).toBe(before);
});

test('a stray cell at the end of a workbook, a cell of 10 MB and a wrong column of a big file end at the limits', async () => {
  const rows = [['A1'], ...Array.from({ length: 3 }, () => [''])].map((row) => row.map((value) => ({ value, type: String })));
  const small = await writeExcelFile(rows).toBuffer();
  const sheet = (content: Buffer, name: string) => request(app).post('/api/sheets').attach('file', content, name);
  expect((await sheet(small, 'small.xlsx')).body).toEqual([['A1']]);
  expect((await sheet(Buffer.from(`a,b\n${'x'.repeat(9_000_000)},1\n`), 'wide.csv')).status).toBe(400);
  const wrong = Buffer.from(`dated,job,cost_code,cost_type,reference,amount\n${'x,none,x,x,,x\n'.repeat(60_000)}`);
  const reply = await request(app).post('/api/book/import').attach('files', wrong, 'costs.csv');
  expect([reply.status, reply.body.faults.length, reply.body.more > 100_000]).toEqual([400, 200, true]);
  expect(reply.body.message).toMatch(/faults in the book; nothing was imported/);
});
