import { hrefOf, type Call } from '../../wire/call';
import { CALLS } from '../../wire/calls';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import { LABOUR_FIGURES } from '../../core/forecast/labourFigures';
import type { Database } from '../db/database';
import { cleanUp, faultsOf, temporaryDatabase, LABOUR_BOOK } from '../test/books';
import { READS, type Reading } from '../test/readArgs';
import { testApp } from '../test/testApp';

let database: Database;
let app: ReturnType<typeof testApp>;

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, LABOUR_BOOK)).toEqual([]);
  app = testApp(database);
});
afterAll(cleanUp);

const asOf = '2031-03';

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

test('every figure of hours by task does, of a task, of the job, and by cost code over all jobs', async () => {
  const { body } = await request(app).get(`/api/jobs/J1/hours?asOf=${asOf}`).expect(200);
  expect(body.tasks).toHaveLength(1);
  for (const [figure, { key }] of Object.entries(LABOUR_FIGURES)) {
    const worked = async (more: string) =>
      (await request(app).get(`/api/workings?asOf=${asOf}&figure=${figure}&job=J1${more}`).expect(200)).body;
    const task = await worked(`&line=${body.tasks[0].id}`);
    expect([figure, task.result, (await worked('')).result]).toEqual([figure, body.tasks[0][key], body.total[key]]);
    expect(task.rule).not.toBe('');
  }
  const { codes, total } = (await request(app).get(`/api/hours?asOf=${asOf}`).expect(200)).body;
  expect(codes).toMatchObject([{ costCode: '100', ...body.total, tasks: [{ job: 'J1' }] }]);
  expect(total).toEqual(body.total);
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
