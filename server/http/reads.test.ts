import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import type { Database } from '../db/database';
import { cleanUp, faultsOf, temporaryDatabase, TENDER_BOOK } from '../test/books';
import { testApp } from '../test/testApp';

let database: Database;
let app: ReturnType<typeof testApp>;

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, TENDER_BOOK)).toEqual([]);
  app = testApp(database);
});
afterAll(cleanUp);

const asOf = 'asOf=2031-03';

test.each([
  `/api/session`,
  `/api/lists?${asOf}`,
  `/api/jobs?${asOf}`,
  `/api/jobs/J1?${asOf}`,
  `/api/jobs/J2?${asOf}`,
  `/api/jobs/J1/estimate?${asOf}`,
  `/api/jobs/J1/billing?${asOf}`,
  `/api/jobs/J1/applications/3?${asOf}`,
  `/api/billing?${asOf}`,
  `/api/costs?${asOf}&search=D_%25`,
  `/api/costs/subtotals?${asOf}&by=party`,
  `/api/costs.csv?${asOf}`,
  `/api/postings?${asOf}`,
  `/api/postings/1`,
  `/api/prices`,
  `/api/terms`,
  `/api/jobs/J1/plan?${asOf}`,
  `/api/jobs/J1/billing-schedule?${asOf}`,
  `/api/job-templates`,
  `/api/jobs/J1/setup`,
  `/api/jobs/J1/file`,
  `/api/messages`,
  `/api/changes?${asOf}`,
  `/api/jobs/J1/changes?${asOf}`,
  `/api/jobs/J1/changes/C1?${asOf}`,
  `/api/jobs/J1/changes/C1/offers`,
  `/api/jobs/J1/changes/C1/document.pdf`,
  `/api/jobs/J1/changes/C1/document.docx`,
  `/api/jobs/J1/transfers?${asOf}`,
  `/api/jobs/J2/quotations`,
  `/api/prices.csv`,
  `/api/prices/achieved`,
  `/api/prices/items/CREW/history`,
  `/api/jobs/J2/estimates`,
  `/api/jobs/J2/estimates/1`,
  `/api/jobs/J2/estimates/1/reprice`,
  `/api/reports/wip?${asOf}`,
  `/api/reports/ageing.csv?${asOf}`,
  `/api/book/export`,
])('%s answers', async (path) => {
  expect((await request(app).get(path)).status).toBe(200);
});

test.each([
  ['pdf', '%PDF'],
  ['xlsx', 'PK'],
])('a report comes as %s', async (format, magic) => {
  for (const name of ['wip', 'trial-balance', 'ageing', 'tie-out']) {
    const reply = await request(app)
      .get(`/api/reports/${name}.${format}?${asOf}`)
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = [];
        res.on('data', (part: Buffer) => parts.push(part));
        res.on('end', () => done(null, Buffer.concat(parts)));
      });
    expect([reply.status, (reply.body as Buffer).subarray(0, magic.length).toString()]).toEqual([200, magic]);
  }
});

test('the report on the screen is the report of the command line', async () => {
  const csv = await request(app).get(`/api/reports/wip.csv?${asOf}`);
  const json = await request(app).get(`/api/reports/wip?${asOf}`);
  expect(csv.text.split('\n')[0]).toBe(json.body.columns.map((it: { key: string }) => it.key).join(','));
  expect(csv.text.split('\n').length - 2).toBe(json.body.rows.length);
});

test('every figure on the job list opens its workings, and comes to the same', async () => {
  const { body } = await request(app).get(`/api/jobs?${asOf}`);
  const row = body.jobs.find((it: { number: string }) => it.number === 'J1');
  for (const figure of [
    'contractSum',
    'estimate',
    'estimatedProfit',
    'margin',
    'cost',
    'complete',
    'earned',
    'profitToDate',
    'billed',
    'overbilled',
    'underbilled',
    'backlog',
    'lossProvision',
    'received',
    'pendingChanges',
  ]) {
    const reply = await request(app).get(`/api/workings?${asOf}&figure=${figure}&job=J1`);
    expect([figure, reply.body.result]).toEqual([figure, row[figure]]);
  }
  for (const figure of ['contractSum', 'estimate', 'earned', 'overbilled', 'complete']) {
    expect([figure, (await request(app).get(`/api/workings?${asOf}&figure=${figure}`)).body.result]).toEqual([
      figure,
      body.totals[figure],
    ]);
  }
});

test('every figure of the budget and of an application does too', async () => {
  const { body } = await request(app).get(`/api/jobs/J1/estimate?${asOf}`);
  const figures = {
    lineOriginal: 'original',
    lineChanges: 'changes',
    lineRevised: 'revised',
    lineActual: 'actual',
    lineCommitted: 'committed',
    lineEstimate: 'estimate',
    lineVariance: 'variance',
    lineHoursBudgeted: 'hoursBudgeted',
    lineHoursActual: 'hoursActual',
  };
  for (const line of body.lines)
    for (const [figure, key] of Object.entries(figures)) {
      expect([
        figure,
        line.id,
        (await request(app).get(`/api/workings?${asOf}&figure=${figure}&job=J1&line=${line.id}`)).body.result,
      ]).toEqual([figure, line.id, line[key]]);
    }
  const application = (await request(app).get(`/api/jobs/J1/applications/2?${asOf}`)).body;
  for (const [key, value] of Object.entries(application.summary)) {
    const figure = key === 'contractSum' ? 'appContractSum' : key;
    expect([key, (await request(app).get(`/api/workings?${asOf}&figure=${figure}&job=J1&application=2`)).body.result]).toEqual([
      key,
      value,
    ]);
  }
  expect(
    (await request(app).get(`/api/workings?${asOf}&figure=sovLineRetention&job=J1&application=2&sovLine=1`)).body.result,
  ).toBe(19_000);
});
