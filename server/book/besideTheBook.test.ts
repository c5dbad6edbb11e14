import { query } from '../db/query';
import { shape, t } from '../db/fields';
import type { JobStatus } from '../../core/jobs/jobStatus';
import { act, reading } from '../test/act';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { hashOf } from '../attachments/contents';
import { jobFileView } from '../jobFile/jobFileView';
import { answerView, messages, offersOf } from '../offers/offerViews';
import { besides, cleanUp, everything, faultsOf, SMALL_BOOK, temporaryDatabase, TESTER, type BookText } from '../test/books';
import { exportedBook, wholeBook } from '../test/wholeBook';
import { lockJob, moveJob } from '../jobs/jobLife';

afterAll(cleanUp);

const BOND = 'A bond of 5,000.00';
const HASH = hashOf(Buffer.from(BOND));
let whole: BookText;
beforeAll(async () => {
  whole = await wholeBook();
});

/** The whole book with one text of a file changed. */
function changed(file: string, from: string | RegExp, to: string): BookText {
  const text = whole[file]!.replace(from, to);
  if (text === whole[file]) throw new Error(`${from} is not in ${file}`);
  return { ...whole, [file]: text };
}

describe('what lies beside the figures comes over', () => {
  test('a posting as it was attached, moves with who and when, and a sealed answer that is still whole', async () => {
    const database = await temporaryDatabase();
    expect(await faultsOf(database, whole)).toEqual([]);
    const sql = reading(database);
    const { files, templates } = await jobFileView(sql, 'J1');
    expect(files).toMatchObject([
      { name: 'Bond.txt', mediaType: 'text/plain', size: BOND.length, hash: HASH, about: 'insurance' },
    ]);
    expect(readFileSync(join(besides(database).files, HASH), 'utf8')).toBe(BOND);
    expect(templates).toEqual([{ name: 'Roofs', items: ['Bond', 'Permit, "hot works"'] }]);
    const { moves } = await jobFileView(sql, 'J2');
    expect(moves.map((it) => [it.was, it.became, it.reason, it.actor, it.at])).toEqual([
      ['tender', 'awarded', 'Order 7', TESTER.name, TESTER.at],
      ['awarded', 'locked', 'Until the bond is here', TESTER.name, TESTER.at],
    ]);
    expect((await sql.anyRows(`SELECT locked FROM job WHERE number = 'J2'`))[0]).toEqual({ locked: 1 });
    const [offer] = await offersOf(sql, 'J2', 'quotation', '1', '2031-05-01');
    expect(offer).toMatchObject({ status: 'accepted', answeredBy: 'J. Hale', signature: 'M1 1L20 5', intact: true });
    expect(offer!.questions).toMatchObject([{ question: 'When?', answer: 'In June.' }]);
    expect((await answerView(sql, offer!.token, '2031-05-01')).document.title).toBe('Quotation 1');
    const [message] = await messages(sql);
    expect(message).toMatchObject({ recipient: 'h@x.example', subject: 'Our quotation', attachments: ['Quotation 1 J2.pdf'] });
    const { file } = (await sql.get(query(shape({ file: t.text }), 'SELECT file FROM message')))!;
    expect(readFileSync(join(besides(database).outbox, file), 'latin1')).toBe(whole[file]);
  });

  test('a posting that was tampered with comes over, and still shows that it was', async () => {
    const database = await temporaryDatabase();
    expect(await faultsOf(database, changed('offers.csv', '""Roof""', '""Roofs""'))).toEqual([]);
    expect((await offersOf(reading(database), 'J2', 'quotation', '1', '2031-05-01'))[0]).toMatchObject({ intact: false });
  });

  test('messages of two books under one name are kept side by side', async () => {
    const database = await temporaryDatabase();
    const [file] = Object.keys(whole).filter((it) => it.endsWith('.eml'));
    mkdirSync(besides(database).outbox, { recursive: true });
    writeFileSync(join(besides(database).outbox, file!), 'Another message');
    // The book has a second message, under the name the first would get beside the one that is there.
    const beside = file!.replace('.eml', '-2.eml');
    const [head, row] = whole['messages.csv']!.split(/(?<=tried_at,failure\n)/) as [string, string];
    const two = { ...whole, 'messages.csv': `${head}${row}${row.replace(file!, beside)}`, [beside]: 'A third message' };
    expect(await faultsOf(database, two)).toEqual([]);
    const [{ file: kept }, { file: other }] = (await reading(database).anyRows('SELECT file FROM message ORDER BY id')) as [
      { file: string },
      { file: string },
    ];
    expect(readFileSync(join(besides(database).outbox, other), 'utf8')).toBe('A third message');
    expect(kept).not.toBe(file);
    expect(readFileSync(join(besides(database).outbox, kept), 'latin1')).toBe(whole[file!]);
    expect(readFileSync(join(besides(database).outbox, file!), 'utf8')).toBe('Another message');
  });
});

describe('what cannot be taken over is told, and nothing comes in', () => {
  const content = () => Object.keys(whole).find((it) => it.startsWith(HASH))!;
  test.each([
    ['a posting whose content is not there', () => ({ ...whole, [content()]: undefined }), 'job_papers:2:sha256'],
    ['a posting with another content', () => ({ ...whole, [content()]: `${BOND} and more` }), 'job_papers:2:sha256'],
    ['a hash that leads out of the folder', () => changed('job_papers.csv', HASH, '../../secret'), 'job_papers:2:sha256'],
    ['a message that leads out of the folder', () => changed('messages.csv', /[\w-]+\.eml/, '../x.eml'), 'messages:2:file'],
    ['an offer that is no posting', () => changed('offers.csv', '""digits"":2', '""digits"":""two""'), 'offers:2:document'],
    ['an acceptance without a seal', () => changed('offers.csv', /,[0-9a-f]{64}(\r?\n)$/, ',$1'), 'offers:2:seal'],
    ['a quotation that is not there', () => changed('offers.csv', ',quotation,1,', ',quotation,7,'), 'offers:2:number'],
    ['a template that is no JSON', () => changed('job_templates.csv', /"\{.*\}"/, '{'), 'job_templates:2:content'],
  ])('%s', async (_, book, fault) => {
    const database = await temporaryDatabase();
    const before = await everything(database);
    const given = Object.fromEntries(Object.entries(book()).filter(([, text]) => text !== undefined)) as BookText;
    expect(await faultsOf(database, given)).toEqual([fault]);
    expect(await everything(database)).toBe(before);
  });
});

describe('a job the database has takes from a book what its screens take', () => {
  const row = {
    costs: 'dated,job,cost_code,cost_type,reference,amount\n2031-03-10,J1,100,labour,T9,5.00\n',
    change_orders: 'job,change_order,title,status,raised_on\nJ1,C7,More,draft,2031-03-10\n',
    budget: 'job,cost_code,cost_type,amount\nJ1,100,labour,5.00\n',
    billing_instalments: 'job,instalment,name,day,percent\nJ1,1,All of it,2031-05-01,100\n',
    job_events: 'job,kind,dated,text\nJ1,note,2031-03-10,Seen\n',
  };
  const one = (file: keyof typeof row): BookText => ({ [file]: row[file] });
  test.each([
    ['on site', '', { costs: [], change_orders: [], budget: ['budget:2:job'] }],
    ['closing out', 'closing-out', { costs: [], change_orders: ['change_orders:2:job'], budget: ['budget:2:job'] }],
    [
      'closed',
      'closed',
      {
        billing_instalments: ['billing_instalments:2:job'],
        costs: ['costs:2:job'],
        change_orders: ['change_orders:2:job'],
        budget: ['budget:2:job'],
      },
    ],
    [
      'locked',
      'locked',
      {
        billing_instalments: ['billing_instalments:2:job'],
        costs: ['costs:2:job'],
        change_orders: ['change_orders:2:job'],
        budget: ['budget:2:job'],
      },
    ],
  ])('%s', async (_, move, expected) => {
    const database = await temporaryDatabase();
    expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
    if (move === 'locked') await act(database, TESTER, lockJob, 'J1', true, 'Waiting');
    else if (move !== '') await act(database, TESTER, moveJob, 'J1', { status: move as JobStatus, on: '2031-04-30', reason: '' });
    for (const file of ['costs', 'change_orders', 'budget', 'billing_instalments', 'job_events'] as const)
      expect([file, await faultsOf(database, one(file))]).toEqual([
        file,
        { billing_instalments: [] as string[], ...expected, job_events: [] }[file],
      ]);
  });
});

test('a whole book goes out and in again the same, with everything beside it', async () => {
  const database = await temporaryDatabase();
  expect(await faultsOf(database, whole)).toEqual([]);
  expect(await exportedBook(database)).toEqual(whole);
});
