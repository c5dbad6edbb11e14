import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import request from 'supertest';
import { createApp } from '../app';
import { Outbox } from '../stand-ins/outbox';
import type { Database } from '../db/database';
import { BY_DAY, NOT_BEGUN } from '../test/wholeBook';
import { cleanUp, everything, faultsOf, SMALL_BOOK, temporaryDatabase, temporaryFolder, TENDER_BOOK } from '../test/books';

let database: Database;
let app: ReturnType<typeof createApp>;
const logged: unknown[] = [];

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, TENDER_BOOK)).toEqual([]);
  app = createApp({
    database,
    now: () => new Date('2031-05-02T09:00:00Z'),
    sampleBook: 'demo/book',
    outbox: new Outbox(temporaryFolder()),
    files: temporaryFolder(),
    pages: null,
    log: (error) => logged.push(error),
  });
});
afterAll(cleanUp);

const cost = {
  dated: '2031-03-12',
  job: 'J1',
  section: 'A',
  costCode: '200',
  costType: 'material',
  party: '',
  reference: 'D',
  hours: null,
  amount: 100,
  description: '',
  commitment: '',
  uninstalled: false,
};
const job = {
  number: 'N1',
  name: 'New',
  customer: 'NORTH',
  contractReference: '',
  status: 'awarded',
  awardedOn: '2031-05-01',
  startsOn: null,
  finishesOn: null,
  manager: '',
  site: '',
  revenueMethod: 'cost-to-cost',
  contractSum: 100,
  retention: { rate: 0, materialsRate: null, stepAt: null, stepTo: null, stepApplies: 'all', cap: null },
  taxRate: 0,
  termsDays: null,
  sov: [{ line: '1', section: '', description: 'x', scheduledValue: 100, quantity: null, unit: '', retentionRate: null }],
  budget: [],
  draftId: null,
};
const company = { name: 'A', currency: 'GBP', taxName: '', taxRate: 0, yearStartMonth: 1, address: '', jobNumberPattern: '' };

const item = {
  ...{ code: 'X1', description: 'X', unit: 'm', costType: 'material', costCode: '200', wageClass: '', unitCost: 5, markup: null },
  ...{ vendor: '', checkedOn: null },
};
const part = {
  ...{ item: '', description: '', costCode: '100', costType: 'labour', basis: 'in-all', quantity: 1, unit: 'h', unitCost: 1 },
  markup: null,
};
const estimate = {
  ...{ version: 1, name: 'E', overhead: 0, profit: 0, rounding: 0, typeMarkups: [{ costType: 'labour', rate: 1 }] },
  sectionMarkups: [{ section: 'A', rate: 1 }],
  lines: [{ line: '1', section: 'A', description: 'x', quantity: 1, unit: '', buildUp: 'BED', markup: null, parts: [part] }],
};
const award = {
  ...{ acceptedOn: '2031-04-01', acceptance: 'a', agreed: 100 },
  groups: [{ line: '1', section: '', description: 'x', members: ['1'], weight: null }],
};

const quotation = {
  ...{ version: 1, estimate: 1, title: 'Q', presentation: 'line', quantities: true, unitPrices: true, contact: '', email: '' },
  ...{ introduction: '', exclusions: '', terms: '', validUntil: '2031-12-01', alternates: [{ name: 'A', amount: 1 }] },
  payments: [{ name: 'P', rate: 1_000_000, amount: null, dueOn: null, stage: '' }],
};
const mail = { on: '2031-04-01', to: 'a@client.example', subject: 's', message: 'm' };
const change = {
  ...{ version: 0, number: 'X1', title: 'T', raisedOn: '2031-04-01', reference: '', reason: '', askedBy: '', daysAsked: 1 },
  price: [{ line: '1', section: '', description: 'x', quantity: null, unit: '', amount: 1 }],
  cost: [
    {
      section: 'A',
      costCode: '100',
      costType: 'labour',
      sovLine: '',
      description: '',
      quantity: null,
      unit: '',
      hours: 1,
      amount: 1,
    },
  ],
};
const decision = { status: 'rejected', on: '2031-04-02', by: 'b', note: '', agreed: null, daysGranted: null };
const moved = { section: 'A', costType: 'labour', hours: null };
const transfer = {
  ...{ dated: '2031-04-01', reason: 'r' },
  lines: [
    { ...moved, costCode: '100', amount: 1 },
    { ...moved, costCode: '200', amount: -1 },
  ],
};

const facts = {
  ...{
    name: 'Mill',
    contractReference: '',
    manager: '',
    estimator: '',
    site: '',
    startsOn: null,
    finishesOn: null,
    defectsEnd: null,
  },
  ...{ revenueMethod: 'cost-to-cost', noRetention: false, taxRate: 0, termsDays: 5 },
  retention: { rate: 50_000, materialsRate: null, stepAt: null, stepTo: null, stepApplies: 'all', cap: null },
};

/** Every route that changes something, with a body it takes. */
const POSTS: [method: 'post' | 'put', path: string, body: Record<string, unknown>][] = [
  ['post', '/api/costs', { lines: [cost], asOf: '2031-03-31' }],
  ['post', '/api/costs/preview', { lines: [cost], asOf: '2031-03-31' }],
  ['post', '/api/jobs', job],
  ['post', '/api/company', company],
  ['post', '/api/customers', { code: 'X', name: 'X', contact: '', email: '', phone: '', address: '', termsDays: 5 }],
  ['post', '/api/cost-codes', { codes: [{ code: 'X', description: 'X', unit: '' }] }],
  ['post', '/api/jobs/J1/applications', { dated: '2031-04-30', reference: '', bySchedule: false }],
  ['put', '/api/jobs/J1/applications/3', { dated: '2031-03-31', reference: '', lines: [{ line: '1', work: 1, materials: 0 }] }],
  ['post', '/api/jobs/J1/applications/3/certify', { on: '2031-04-01', lines: [{ line: '1', work: 1, materials: 0 }] }],
  ['post', '/api/jobs/J1/invoices/2/receipts', { dated: '2031-04-01', amount: 5, reference: '' }],
  ['post', '/api/jobs/J1/releases', { dated: '2031-04-01', amount: 5, reference: 'R' }],
  ['post', '/api/papers/1/reverse', { on: null, reason: 'r' }],
  ['put', '/api/prices/items', { items: [item], on: '2031-04-01', reason: '' }],
  ['post', '/api/prices/move', { by: 1, vendor: 'PANEL', costType: null, costCode: '', on: '2031-04-01', reason: '' }],
  ['post', '/api/prices/move/preview', { by: 1, vendor: '', costType: 'labour', costCode: '', on: '2031-04-01', reason: '' }],
  [
    'put',
    '/api/build-ups',
    { code: 'X2', description: 'X', unit: '', components: [{ item: 'CREW', buildUp: '', quantity: 1, waste: 0 }] },
  ],
  ['post', '/api/jobs/J2/estimates', { name: 'E', copyOf: { job: 'J2', estimate: 1 } }],
  ['put', '/api/jobs/J2/estimates/1', estimate],
  ['post', '/api/jobs/J2/quotations', { ...quotation, version: 0 }],
  ['put', '/api/jobs/J2/quotations/1', quotation],
  ['post', '/api/jobs/J2/quotations/1/send', mail],
  ['put', '/api/jobs/J2/facts', facts],
  ['put', '/api/jobs/J1/people', { people: [{ side: 'client', name: 'H', role: '', email: '', phone: '' }] }],
  ['put', '/api/jobs/J1/checklist', { items: [{ item: 'I', person: '', dueOn: null, doneOn: null }] }],
  ['put', '/api/checklists', { name: 'T', items: ['I'] }],
  ['post', '/api/jobs/J1/events', { kind: 'call', dated: '2031-04-01', text: 't' }],
  ['post', '/api/jobs/J2/lock', { locked: true, reason: 'r' }],
  ['put', '/api/job-templates', { name: 'T', content: {} }],
  [
    'put',
    '/api/jobs/J1/plan',
    {
      sections: [{ ...NOT_BEGUN, name: 'A', startsOn: '2031-01-01', finishesOn: '2031-04-30' }],
      lines: [{ section: 'A', costCode: '100', costType: 'labour', startsOn: '2031-01-01', finishesOn: '2031-01-31' }],
    },
  ],
  [
    'put',
    '/api/jobs/J1/billing-schedule',
    { version: 0, instalments: [{ ...BY_DAY, name: 'All', stages: ['A'], due: 'finish', from: 'stages', rate: 1_000_000 }] },
  ],
  ['put', '/api/terms', { name: 'T', body: 'b' }],
  ['post', '/api/answer/none/ask', { name: 'n', question: 'q' }],
  ['post', '/api/answer/none/accept', { name: 'n', signature: 'M1 1' }],
  ['post', '/api/answer/none/decline', { name: 'n', reason: 'r' }],
  ['post', '/api/questions/1', { answer: 'a' }],
  ['post', '/api/jobs/J1/changes', change],
  ['put', '/api/jobs/J1/changes/X1', { ...change, version: 1 }],
  ['post', '/api/jobs/J1/changes/C2/issue', { on: '2031-04-01' }],
  ['post', '/api/jobs/J1/changes/C2/send', mail],
  ['post', '/api/jobs/J1/changes/C2/decide', decision],
  ['post', '/api/jobs/J1/transfers', transfer],
  ['post', '/api/jobs/J2/estimates/1/sent', { on: '2031-04-01', reference: '' }],
  ['post', '/api/jobs/J2/estimates/1/award', award],
  ['post', '/api/jobs/J1/status', { status: 'closed', on: '2031-05-01' }],
  ['post', '/api/drafts', { content: {} }],
  ['put', '/api/drafts/1', { content: {} }],
];

/** Bad values for any field, by what is wrong with them. */
const BAD: unknown[] = [
  null,
  true,
  -1e300,
  1e20,
  1.5,
  '',
  ' ',
  'x'.repeat(5000),
  "'; DROP TABLE job; --",
  '<script>alert(1)</script>',
  [],
  {},
  '2031-02-30',
  Number.MAX_SAFE_INTEGER,
];

/** Bodies with one field at a time made bad, at any depth. */
function* spoilt(body: unknown, path: (string | number)[] = []): Generator<[string, unknown]> {
  if (body === null || typeof body !== 'object') return;
  for (const key of Object.keys(body)) {
    const value = (body as Record<string, unknown>)[key];
    for (const bad of BAD) yield [[...path, key].join('.'), { ...clone(body), [key]: bad }];
    for (const [where, inner] of spoilt(value, [...path, key])) {
      const copy = clone(body) as Record<string, unknown>;
      copy[key] = inner;
      yield [where, copy];
    }
  }
}
const clone = (value: object): object => (Array.isArray(value) ? [...(value as unknown[])] : { ...value });

describe('bad input', () => {
  test.each(POSTS)(
    '%s %s: no field made bad brings it down',
    async (method, path, body) => {
      let refused = 0;
      for (const [where, bad] of spoilt(body)) {
        const reply = await request(app)
          [method](path)
          .send(bad as object);
        if (reply.status >= 500) throw new Error(`${where} = ${JSON.stringify(bad).slice(0, 200)} gave ${reply.status}`);
        if (reply.status < 400) continue;
        refused += 1;
        expect(reply.body.message.length).toBeGreaterThan(5);
      }
      if (Object.keys(body).length > 1) expect(refused).toBeGreaterThan(0);
      expect(logged).toEqual([]);
    },
    60_000,
  );

  test.each(POSTS)(
    '%s %s: an unknown key, a missing one and no object at all name what is wrong, and change nothing',
    async (method, path, body) => {
      const before = await everything(database);
      const unknown = await request(app)
        [method](path)
        .send({ ...body, surprise: 1 });
      expect([unknown.status, unknown.body.faults[0].field]).toEqual([400, 'surprise']);
      const first = Object.keys(body)[0]!;
      const missing = await request(app)
        [method](path)
        .send(Object.fromEntries(Object.entries(body).slice(1)));
      expect([missing.status, missing.body.faults[0]]).toEqual([400, { field: first, message: 'is missing' }]);
      for (const raw of ['', '[]', '"text"', '{', '12']) {
        const reply = await request(app)[method](path).set('Content-Type', 'application/json').send(raw);
        expect(reply.status).toBe(400);
      }
      expect(await everything(database)).toBe(before);
    },
  );

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
    '/api/papers/999',
    '/api/papers/1e3',
    '/api/papers?asOf=2031-04&offset=-1',
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
    '/api/files/99',
    '/api/jobs/none/file',
    '/api/answer/none/paper.pdf',
    '/api/messages/99/file',
    '/api/jobs/J2/quotations/99',
    '/api/jobs/J1/changes/none?asOf=2031-04',
    '/api/jobs/J1/changes/C1/paper.exe',
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

describe('what the screens read', () => {
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
    `/api/papers?${asOf}`,
    `/api/papers/1`,
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
    `/api/jobs/J1/changes/C1/paper.pdf`,
    `/api/jobs/J1/changes/C1/paper.docx`,
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
});

describe('the ways in', () => {
  test('a book that is sent comes in whole, and a faulty one is listed and leaves nothing', async () => {
    const fresh = await temporaryDatabase();
    const other = createApp({
      database: fresh,
      now: () => new Date(),
      sampleBook: join('demo', 'book'),
      outbox: new Outbox(temporaryFolder()),
      files: temporaryFolder(),
      pages: null,
      log: (error) => logged.push(error),
    });
    const before = await everything(fresh);
    const faulty = await request(other)
      .post('/api/book/import')
      .attach('files', Buffer.from('customer,name\n,x\n'), 'customers.csv')
      .attach('files', Buffer.from('a'), 'odd.csv');
    expect([faulty.status, faulty.body.faults.map((it: { field: string }) => it.field)]).toEqual([
      400,
      ['company.csv:1:', 'customers.csv:2:customer', 'odd.csv:1:'],
    ]);
    expect(await everything(fresh)).toBe(before);
    expect((await request(other).post('/api/book/import').send({})).status).toBe(400);
    const good = Object.entries(SMALL_BOOK).reduce(
      (sending, [file, text]) => sending.attach('files', Buffer.from(text), `${file}.csv`),
      request(other).post('/api/book/import'),
    );
    expect((await good).body).toMatchObject({ jobs: 2, costs: 5 });
    expect((await request(other).get('/api/session')).body).toMatchObject({ newestMonth: '2031-03', jobCount: 2 });
  });

  test('a price list that is sent comes in whole, adding and changing; a faulty one is listed by row and leaves nothing', async () => {
    const other = createApp({
      database,
      now: () => new Date(),
      sampleBook: '',
      outbox: new Outbox(temporaryFolder()),
      files: temporaryFolder(),
      pages: null,
      log: (error) => logged.push(error),
    });
    const send = (text: string) => request(other).post('/api/prices/import').attach('file', Buffer.from(text), 'list.csv');
    const head = 'price_item,description,cost_type,cost_code,unit_cost\n';
    const before = await everything(database);
    const bad = await send(`${head}A,A,material,200,1\nA,A,material,999,x\n`);
    expect([bad.status, bad.body.faults.map((it: { field: string }) => it.field)]).toEqual([
      400,
      ['price_items.csv:3:unit_cost', 'price_items.csv:3:price_item', 'price_items.csv:3:cost_code'],
    ]);
    expect((await send('')).status).toBe(400);
    expect((await request(other).post('/api/prices/import').send({})).status).toBe(400);
    expect(await everything(database)).toBe(before);
    expect((await send(`${head}CREW,Roofer,labour,100,33.10\nNEW,New,material,200,1\n`)).body).toEqual({ count: 2 });
    expect((await request(other).get('/api/prices/items/CREW/history')).body[0]).toMatchObject({ unitCost: 331_000 });
    expect(logged).toEqual([]);
  });

  test('a sheet is read as rows of text from XLSX and from CSV of any comma; what is none is refused', async () => {
    const { default: writeExcelFile } = await import('write-excel-file/node');
    const workbook = await writeExcelFile([
      [
        { value: 'Line', type: String },
        { value: 'Value', type: String },
      ],
      [
        { value: '1.10', type: String },
        { value: 0.1 + 0.2, type: Number },
      ],
      [null, { value: 1_234_567.89, type: Number }],
    ]).toBuffer();
    const send = (content: Buffer) => request(app).post('/api/sheets').attach('file', content, 'x');
    expect((await send(workbook)).body).toEqual([
      ['Line', 'Value'],
      ['1.10', '0.3'],
      ['', '1234567.89'],
    ]);
    expect((await send(Buffer.from('\ufeffLine;Value\r\n1;"1,5"\r\n\r\n2;\r\n'))).body).toEqual([
      ['Line', 'Value'],
      ['1', '1,5'],
      ['2', ''],
    ]);
    expect((await send(Buffer.from('a\tb\n'))).body).toEqual([['a', 'b']]);
    for (const bad of [
      Buffer.from('PK no workbook'),
      Buffer.from([0xff, 0xfe, 0x41]),
      Buffer.from('\n\n'),
      Buffer.from('a,b\n'.repeat(6001)),
    ])
      expect([(await send(bad)).status, (await send(bad)).body.faults[0].field]).toEqual([400, 'file']);
    expect((await request(app).post('/api/sheets').send({})).status).toBe(400);
    expect(logged).toEqual([]);
  });

  test('a paper is attached, opened as it came, and refused where it is empty or beyond 25 MB', async () => {
    const attach = (content: Buffer, name: string, contentType: string) =>
      request(app).post('/api/jobs/J1/files').attach('file', content, { filename: name, contentType });
    const pdf = Buffer.from('%PDF-1.4 made up');
    expect((await attach(pdf, 'Drawing ½.pdf', 'application/pdf')).status).toBe(201);
    expect((await attach(Buffer.from('<script>alert(1)</script>'), 'page.html', 'text/html')).status).toBe(201);
    expect((await attach(Buffer.alloc(0), 'empty.pdf', 'application/pdf')).status).toBe(400);
    expect((await attach(Buffer.alloc(25 * 1024 * 1024 + 1), 'big.pdf', 'application/pdf')).status).toBe(413);
    expect((await request(app).post('/api/jobs/J1/files').send({})).status).toBe(400);
    const { files } = (await request(app).get('/api/jobs/J1/file')).body as {
      files: { id: number; name: string; hash: string; size: number }[];
    };
    expect(files.map((it) => [it.name, it.size])).toEqual([
      ['page.html', 25],
      ['Drawing ½.pdf', 16],
    ]);
    const opened = await request(app).get(`/api/files/${files[1]!.id}`).buffer(true);
    expect([opened.headers['content-type'], Buffer.from(opened.body as Buffer).equals(pdf)]).toEqual(['application/pdf', true]);
    const kept = await request(app).get(`/api/files/${files[0]!.id}`);
    expect([kept.headers['content-type'], kept.headers['content-disposition']]).toEqual([
      'application/octet-stream',
      "attachment; filename*=UTF-8''page.html",
    ]);
    expect(kept.headers['content-security-policy']).toMatch(/^sandbox/);
    expect(logged).toEqual([]);
  });

  test('the sample company loads into an empty database, once', async () => {
    const fresh = await temporaryDatabase();
    const other = createApp({
      database: fresh,
      now: () => new Date(),
      sampleBook: 'demo/book',
      outbox: new Outbox(temporaryFolder()),
      files: temporaryFolder(),
      pages: null,
      log: (error) => logged.push(error),
    });
    expect((await request(other).post('/api/book/sample')).status).toBe(201);
    expect((await request(other).post('/api/book/sample')).status).toBe(400);
    expect(logged).toEqual([]);
  });
});
