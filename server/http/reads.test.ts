import { hrefOf, type Call, type SentOf } from '../../wire/call';
import { CALLS } from '../../wire/calls';
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

type Reading = {
  [Name in keyof typeof CALLS as (typeof CALLS)[Name]['kind'] extends 'query' | 'download' ? Name : never]: SentOf<
    (typeof CALLS)[Name]
  >;
};
const asOf = '2031-03';
const J1 = { job: 'J1', asOf };

/** Every call that reads, with what it is read by; one that is missing here does not compile. Not there: what only a message or an answer brings. */
const READS: Omit<Reading, 'answer' | 'answerDocument' | 'messageFile' | 'attachment' | 'quotation' | 'quotationDocument'> = {
  session: {},
  lists: { asOf },
  exportBook: {},
  priceBook: {},
  achieved: {},
  priceItemsCsv: {},
  priceHistory: { code: 'CREW' },
  jobList: { asOf },
  job: J1,
  forecast: J1,
  estimateVersusActual: J1,
  jobSetup: { job: 'J1' },
  jobTemplates: {},
  jobFile: { job: 'J1' },
  plan: J1,
  billingSchedule: J1,
  estimateList: { job: 'J2' },
  estimate: { job: 'J2', estimate: 1 },
  repricing: { job: 'J2', estimate: 1 },
  quotationList: { job: 'J2' },
  tenders: {},
  quotations: {},
  terms: {},
  messages: {},
  changeRegister: { asOf },
  jobChanges: J1,
  change: { ...J1, change: 'C1' },
  changeOffers: { job: 'J1', change: 'C1' },
  changeDocument: { job: 'J1', change: 'C1', format: 'docx' },
  transfers: J1,
  companyLogo: {},
  masters: { kind: 'clients' },
  mergePreview: { kind: 'cost-codes', code: '100', into: '200' },
  audit: { job: 'J1' },
  uninstalled: { asOf, job: 'J1' },
  costPage: { asOf, search: 'D_%' },
  costTotals: { asOf, job: '2107' },
  costSubtotals: { asOf, by: 'party' },
  costLedgerCsv: { asOf },
  billingRegister: { asOf },
  jobBilling: J1,
  application: { ...J1, application: 3 },
  applicationPdf: { job: 'J1', application: 3 },
  postings: { asOf },
  posting: { posting: 1 },
  workings: { asOf, figure: 'earned', job: 'J1' },
  report: { name: 'wip', asOf },
  reportFile: { name: 'ageing', format: 'csv', asOf },
};

test.each(Object.entries(READS))('%s answers', async (name, args) => {
  const call: Call = CALLS[name as keyof Reading];
  expect((await request(app).get(hrefOf(call, args as never))).status).toBe(200);
});

test.each([
  ['pdf', '%PDF'],
  ['xlsx', 'PK'],
])('a report comes as %s', async (format, magic) => {
  for (const name of ['wip', 'trial-balance', 'ageing', 'tie-out']) {
    const reply = await request(app)
      .get(`/api/reports/${name}.${format}?asOf=${asOf}`)
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
  const csv = await request(app).get(`/api/reports/wip.csv?asOf=${asOf}`);
  const json = await request(app).get(`/api/reports/wip?asOf=${asOf}`);
  expect(csv.text.split('\n')[0]).toBe(json.body.columns.map((it: { key: string }) => it.key).join(','));
  expect(csv.text.split('\n').length - 2).toBe(json.body.rows.length);
});

test('every figure on the job list opens its workings, and comes to the same', async () => {
  const { body } = await request(app).get(`/api/jobs?asOf=${asOf}`);
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
    const reply = await request(app).get(`/api/workings?asOf=${asOf}&figure=${figure}&job=J1`);
    expect([figure, reply.body.result]).toEqual([figure, row[figure]]);
  }
  for (const figure of ['contractSum', 'estimate', 'earned', 'overbilled', 'complete']) {
    expect([figure, (await request(app).get(`/api/workings?asOf=${asOf}&figure=${figure}`)).body.result]).toEqual([
      figure,
      body.totals[figure],
    ]);
  }
});

test('every figure of the budget and of an application does too', async () => {
  const { body } = await request(app).get(`/api/jobs/J1/estimate-versus-actual?asOf=${asOf}`);
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
        (await request(app).get(`/api/workings?asOf=${asOf}&figure=${figure}&job=J1&line=${line.id}`)).body.result,
      ]).toEqual([figure, line.id, line[key]]);
    }
  const application = (await request(app).get(`/api/jobs/J1/applications/2?asOf=${asOf}`)).body;
  for (const [key, value] of Object.entries(application.summary)) {
    expect([key, (await request(app).get(`/api/workings?asOf=${asOf}&figure=${key}&job=J1&application=2`)).body.result]).toEqual([
      key,
      value,
    ]);
  }
  expect(
    (await request(app).get(`/api/workings?asOf=${asOf}&figure=sovLineRetention&job=J1&application=2&sovLine=1`)).body.result,
  ).toBe(19_000);
});
