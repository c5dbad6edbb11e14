import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import type { Database } from '../db/database';
import { cleanUp, everything, faultsOf, SMALL_BOOK, temporaryDatabase, TENDER_BOOK } from '../test/books';
import { testApp } from '../test/testApp';
import { unzipped } from '../test/unzipped';
import { wholeBook } from '../test/wholeBook';

let database: Database;
let app: ReturnType<typeof testApp>;
const logged: unknown[] = [];

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, TENDER_BOOK)).toEqual([]);
  app = testApp(database, logged);
});
afterAll(cleanUp);

test('a book that is sent comes in whole, and a faulty one is listed and leaves nothing', async () => {
  const fresh = await temporaryDatabase();
  const other = testApp(fresh, logged);
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

test('what lies beside the CSV files of a book is sent with them, is opened, and goes out again', async () => {
  const whole = await wholeBook();
  const other = testApp(await temporaryDatabase(), logged);
  const sent = Object.entries(whole).reduce(
    (sending, [file, text]) => sending.attach('files', Buffer.from(text, file.endsWith('.csv') ? 'utf8' : 'latin1'), file),
    request(other).post('/api/book/import'),
  );
  expect((await sent).body).toMatchObject({ job_papers: 1, offers: 1, messages: 1 });
  expect((await request(other).get('/api/attachments/1')).text).toBe('A bond of 5,000.00');
  expect((await request(other).get('/api/messages/1/file')).text).toContain('Subject: Our quotation');
  const zip = await request(other)
    .get('/api/book/export')
    .buffer()
    .parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part)).on('end', () => done(null, Buffer.concat(parts)));
    });
  expect(Object.keys(unzipped(zip.body as Buffer)).sort()).toEqual(Object.keys(whole).sort());
  // Names no disk takes are passed over, like everything else that is none of a book.
  const odd = await ['x'.repeat(400), '..', '.'].reduce(
    (sending, name) => sending.attach('files', Buffer.from('a'), name),
    request(other).post('/api/book/import'),
  );
  expect([odd.status, odd.body.message]).toEqual([400, 'files: expected the CSV files of a company, or their ZIP']);
  expect(logged).toEqual([]);
});

test.each(['/api/book/import', '/api/prices/import', '/api/sheets', '/api/jobs/J1/attachments'])(
  'what is sent to %s and is no form with files is refused, and nothing is kept',
  async (way) => {
    const before = await everything(database);
    const form = (body: string, type = 'multipart/form-data; boundary=B') =>
      request(app).post(way).set('Content-Type', type).send(body);
    for (const sent of [
      form('--B\r\nContent-Disposition: form-data; name="file"; filename="a\u0000b"\r\n\r\nx\r\n--B--\r\n'),
      form('--B\r\nContent-Disposition: form-data; name="file"; filename="a.csv"\r\n\r\nx'),
      form('--B\r\nContent-Disposition: form-data; name="elsewhere"; filename="a.csv"\r\n\r\nx\r\n--B--\r\n'),
      form('x', 'multipart/form-data'),
      form(''),
    ])
      expect((await sent).status).toBe(400);
    expect(await everything(database)).toBe(before);
    expect(logged).toEqual([]);
  },
);

test('a price list that is sent comes in whole, adding and changing; a faulty one is listed by row and leaves nothing', async () => {
  const send = (text: string) => request(app).post('/api/prices/import').attach('file', Buffer.from(text), 'list.csv');
  const head = 'price_item,description,cost_type,cost_code,unit_cost\n';
  const before = await everything(database);
  const bad = await send(`${head}A,A,material,200,1\nA,A,material,999,x\n`);
  expect([bad.status, bad.body.faults.map((it: { field: string }) => it.field)]).toEqual([
    400,
    ['price_items.csv:3:unit_cost', 'price_items.csv:3:price_item', 'price_items.csv:3:cost_code'],
  ]);
  expect((await send('')).status).toBe(400);
  expect((await request(app).post('/api/prices/import').send({})).status).toBe(400);
  expect(await everything(database)).toBe(before);
  expect((await send(`${head}CREW,Roofer,labour,100,33.10\nNEW,New,material,200,1\n`)).body).toEqual({ count: 2 });
  expect((await request(app).get('/api/prices/items/CREW/history')).body[0]).toMatchObject({ unitCost: 331_000 });
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

test('a posting is attached, opened as it came, and refused where it is empty or beyond 25 MB', async () => {
  const attach = (content: Buffer, name: string, contentType: string) =>
    request(app).post('/api/jobs/J1/attachments').attach('file', content, { filename: name, contentType });
  const pdf = Buffer.from('%PDF-1.4 made up');
  expect((await attach(pdf, 'Drawing ½.pdf', 'application/pdf')).status).toBe(201);
  expect((await attach(Buffer.from('<script>alert(1)</script>'), 'page.html', 'text/html')).status).toBe(201);
  expect((await attach(Buffer.alloc(0), 'empty.pdf', 'application/pdf')).status).toBe(400);
  expect((await attach(Buffer.alloc(25 * 1024 * 1024 + 1), 'big.pdf', 'application/pdf')).status).toBe(413);
  expect((await request(app).post('/api/jobs/J1/attachments').send({})).status).toBe(400);
  const { files } = (await request(app).get('/api/jobs/J1/file')).body as {
    files: { id: number; name: string; hash: string; size: number }[];
  };
  expect(files.map((it) => [it.name, it.size])).toEqual([
    ['page.html', 25],
    ['Drawing ½.pdf', 16],
  ]);
  const opened = await request(app).get(`/api/attachments/${files[1]!.id}`).buffer(true);
  expect([opened.headers['content-type'], Buffer.from(opened.body as Buffer).equals(pdf)]).toEqual(['application/pdf', true]);
  const kept = await request(app).get(`/api/attachments/${files[0]!.id}`);
  expect([kept.headers['content-type'], kept.headers['content-disposition']]).toEqual([
    'application/octet-stream',
    'attachment; filename="page.html"',
  ]);
  expect(kept.headers['content-security-policy']).toMatch(/^sandbox/);
  expect(logged).toEqual([]);
});

test('the sample company loads into an empty database, once', async () => {
  const fresh = await temporaryDatabase();
  const other = testApp(fresh, logged);
  expect((await request(other).post('/api/book/sample')).status).toBe(201);
  expect((await request(other).post('/api/book/sample')).status).toBe(400);
  expect(logged).toEqual([]);
});
