import { afterAll, beforeEach, expect, test } from '@jest/globals';
import request from 'supertest';
import type { Role } from '../../core/rights/rights';
import type { Database } from '../db/database';
import { UserTable } from '../users/models';
import { JobTable } from '../jobs/models';
import { cleanUp, differences, everything, faultsOf, SMALL_BOOK, temporaryDatabase } from '../test/books';
import { testApp } from '../test/testApp';

const PEOPLE: Record<string, Role> = { Olga: 'owner', Anna: 'accountant', Max: 'manager', Mia: 'manager' };
let database: Database;
const logged: unknown[] = [];

/** The server as one of the people; today is 2 May 2031. */
const as = (name: keyof typeof PEOPLE & string) => {
  const id = Object.keys(PEOPLE).indexOf(name) + 1;
  const person = { id, name, email: '', role: PEOPLE[name]!, allJobs: false, session: 1, secondFactor: false };
  return request(testApp(database, logged, { whoIs: () => Promise.resolve(person) }));
};

beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  await database.write(async (sql) => {
    for (const [name, role] of Object.entries(PEOPLE))
      await sql.insert(UserTable, { name, role, email: `${name}@x.example`, created_at: '2031-05-01T08:00:00Z' });
    await sql.update(JobTable, { number: 'J1' }, { manager: 'Max' });
  });
});
afterAll(async () => {
  expect(logged).toEqual([]);
  await cleanUp();
});

const rules = async (...rules: object[]) => {
  const { body } = await as('Olga').get('/api/approvals/rules').expect(200);
  await as('Olga').put('/api/approvals/rules').send({ seen: body.seen, rules }).expect(200);
};
const transfer = (amount: number) => ({
  dated: '2031-04-30',
  reason: 'less steel',
  lines: [
    { section: '', costCode: '100', costType: 'material', amount: -amount, hours: null },
    { section: '', costCode: '200', costType: 'labour', amount, hours: null },
  ],
});
const ASKING = 'Ledrin-Asks-Approval';
const moving = (who: string, amount: number, reason?: string) => {
  const asked = as(who).post('/api/jobs/J1/transfers');
  return (reason === undefined ? asked : asked.set(ASKING, encodeURIComponent(reason))).send(transfer(amount));
};
const waits = async (who: string) =>
  ((await as(who).get('/api/waiting').expect(200)).body as { kind: string; document: string }[])
    .filter((it) => it.kind === 'approve' || it.kind === 'carryOut' || it.kind === 'refused')
    .map((it) => `${it.kind} ${it.document}`);

test('a transfer above the limit is asked for, given, carried out once as it was asked for, and seen on the job', async () => {
  await rules({ kind: 'transfer', above: 100_00, role: 'accountant' }, { kind: 'transfer', above: 1_000_00, role: 'owner' });
  expect((await moving('Max', 100_00)).status).toBe(201);
  const before = await everything(database);
  const refused = await moving('Max', 100_01);
  expect([refused.status, refused.body.code]).toEqual([409, 'needs-approval']);
  expect(refused.body.message).toMatch(/above 100\.00 has to be approved by an accountant or an owner/);
  expect(await everything(database)).toBe(before);
  const spoilt = await as('Max').post('/api/jobs/J1/transfers').set(ASKING, '%E0%A4%A').send(transfer(100_01));
  expect([spoilt.status, (await moving('Max', 100_01, 'x'.repeat(401))).status]).toEqual([400, 400]);
  expect((await moving('Max', 100_01, ' ')).body.faults[0].field).toBe('reason');
  const { body, status } = await moving('Max', 100_01, 'the façade is late');
  expect([status, body]).toEqual([202, { approval: 1 }]);
  // Pressed again, it is not asked for twice, and says whom it waits for.
  for (const again of [undefined, 'again'])
    expect((await moving('Max', 100_01, again)).body).toMatchObject({
      code: 'refused',
      message: 'Max has asked for this already, approval 1; it waits for an accountant or an owner',
    });
  // The accountant of the company decides; neither the asker nor another manager can, who does not even see the job.
  expect([await waits('Anna'), await waits('Olga'), await waits('Max')]).toEqual([['approve 1'], ['approve 1'], []]);
  const decide = (who: string, decision: object, id = 1) => as(who).post(`/api/approvals/${id}/decision`).send(decision);
  expect((await decide('Max', { give: true, note: '' })).status).toBe(409);
  expect((await decide('Mia', { give: true, note: '' })).status).toBe(404);
  const shown = (await as('Anna').get('/api/approvals/1').expect(200)).body;
  expect(shown.facts).toEqual([
    ['Day', '2031-04-30'],
    ['Why', 'less steel'],
    ['100 material', '−100.01'],
    ['200 labour', '100.01'],
  ]);
  expect([shown.reason, shown.can, shown.request]).toEqual([
    'the façade is late',
    { decide: true, withdraw: false, carryOut: false, acknowledge: false },
    null,
  ]);
  await decide('Anna', { give: true, note: '' }).expect(201);
  expect((await decide('Olga', { give: false, note: 'no' })).body.message).toMatch(
    /Approval 1 is given; only one that waits can be decided/,
  );
  expect([await waits('Anna'), await waits('Max')]).toEqual([[], ['carryOut 1']]);
  // Given for one amount, it opens no other.
  expect((await moving('Max', 100_02)).body.code).toBe('needs-approval');
  const sent = (await as('Max').get('/api/approvals/1')).body.request;
  expect((await as('Max').post(`/api${sent.url}`).send(sent.body)).status).toBe(201);
  expect((await moving('Max', 100_01)).body.code).toBe('needs-approval');
  const [row] = (await as('Max').get('/api/approvals?kind=transfer&job=J1&document=2').expect(200)).body;
  expect([row.state, row.askedBy, row.decidedBy, row.can.carryOut]).toEqual(['used', 'Max', 'Anna', false]);
  expect(await waits('Max')).toEqual([]);
  // The accountant moves up to 1,000.00 by herself, and asks the owner for more.
  expect((await moving('Anna', 1_000_00)).status).toBe(201);
  expect((await moving('Anna', 1_000_01)).body.message).toMatch(/approved by an owner/);
  expect((await moving('Olga', 1_000_01)).status).toBe(201);
});

test('refused with a reason, withdrawn, and in the stead of somebody who is away', async () => {
  await rules({ kind: 'transfer', above: 0, role: 'owner' });
  await moving('Max', 1_00, 'one').expect(202);
  await moving('Max', 2_00, 'two').expect(202);
  await as('Anna').post('/api/approvals/1/decision').send({ give: true, note: '' }).expect(409);
  expect((await as('Olga').post('/api/approvals/1/decision').send({ give: false, note: '' })).body.faults[0].field).toBe('note');
  await as('Olga').post('/api/approvals/1/decision').send({ give: false, note: 'not before June' }).expect(201);
  await as('Anna').post('/api/approvals/2/withdrawal').expect(409);
  await as('Max').post('/api/approvals/2/withdrawal').expect(201);
  const states = (await as('Max').get('/api/approvals?kind=transfer').expect(200)).body as { state: string; decision: string }[];
  expect(states.map((it) => [it.state, it.decision])).toEqual([
    ['withdrawn', ''],
    ['refused', 'not before June'],
  ]);
  // Whoever asked is told of the refusal until they say that they have read it; nobody else can say so.
  expect([await waits('Max'), await waits('Olga')]).toEqual([['refused 1'], []]);
  await as('Anna').post('/api/approvals/1/acknowledgement').expect(409);
  await as('Max').post('/api/approvals/1/acknowledgement').expect(201);
  expect(await waits('Max')).toEqual([]);
  // Away until yesterday, today, and from tomorrow on: only today counts.
  await moving('Max', 3_00, 'three').expect(202);
  const away = (from: string, to: string, deputy = 'Anna') => as('Olga').post('/api/account/absences').send({ from, to, deputy });
  expect((await away('2031-05-02', '2031-05-01')).body.faults[0].field).toBe('to');
  expect((await away('2031-05-02', '2031-05-03', 'Olga')).body.faults[0].field).toBe('deputy');
  await away('2031-04-01', '2031-05-01').expect(201);
  await away('2031-05-03', '2031-05-09').expect(201);
  expect(await waits('Anna')).toEqual([]);
  await away('2031-05-02', '2031-05-02').expect(201);
  expect(await waits('Anna')).toEqual(['approve 3']);
  await as('Anna').post('/api/approvals/3/decision').send({ give: true, note: '' }).expect(201);
  const [last] = (await as('Olga').get('/api/approvals?kind=transfer')).body;
  expect([last.decidedBy, last.decidedFor]).toEqual(['Anna', 'Olga']);
  await as('Max').delete('/api/account/absences/3').expect(404);
  await as('Olga').delete('/api/account/absences/3').expect(200);
  expect(await waits('Anna')).toEqual([]);
});

test('un-certifying, reversing in a past month and approving a change wait for the owner; the same month does not', async () => {
  await rules(
    { kind: 'uncertify', above: 0, role: 'owner' },
    { kind: 'past-reversal', above: 0, role: 'owner' },
    { kind: 'change-order', above: 0, role: 'owner' },
  );
  const code = async (asked: Promise<{ status: number; body: { code?: string } }>) => {
    const { status, body } = await asked;
    return body.code ?? status;
  };
  await as('Anna').post('/api/jobs/J1/applications/3/certify').send({ version: null, on: '2031-04-30', lines: [] }).expect(201);
  expect(await code(as('Anna').post('/api/jobs/J1/applications/3/uncertify').send({ reason: 'r' }))).toBe('needs-approval');
  const decision = { status: 'approved', on: '2031-05-01', by: 'Client', note: '', agreed: null, daysGranted: null };
  const decided = () => as('Anna').post('/api/jobs/J1/changes/C2/decide').send(decision);
  expect(await code(decided())).toBe('needs-approval');
  // Costs of January, in books whose newest posting is of May.
  const { postings } = (await as('Anna').get('/api/postings?asOf=2031-12').expect(200)).body;
  const { id } = (postings as { id: number; kind: string }[]).findLast(
    (it) => it.kind === 'cost-batch' || it.kind === 'opening-cost',
  )!;
  const reverse = (on: string | null) => as('Anna').post(`/api/postings/${id}/reverse`).send({ on, reason: 'r' });
  expect(await code(reverse(null))).toBe('needs-approval');
  expect(await code(reverse('2031-05-01'))).toBe(201);
  expect(await differences(database, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
});

test('billing above a scheduled value: a manager asks, whatever the rules; then it is applied for and certified, and goes on', async () => {
  const lines = (work: number) => [{ line: '1', work, materials: 0 }];
  const save = (work: number) =>
    as('Max')
      .put('/api/jobs/J1/applications/3')
      .send({ version: null, dated: '2031-03-31', reference: '', lines: lines(work) });
  await as('Max').post('/api/jobs/J1/applications/3/return').expect(201);
  const { body } = await as('Max').get('/api/jobs/J1/applications/3?asOf=2031-03').expect(200);
  const over = body.lines[0].scheduled + 50_00;
  expect((await save(over)).body.message).toMatch(/would pass its scheduled value by 50\.00/);
  const above = (who: string, by: number) =>
    as(who).put('/api/jobs/J1/applications/3/above').send({ by, reason: 'agreed on site' });
  expect((await above('Max', 50_00)).body.code).toBe('needs-approval');
  expect((await above('Anna', 50_00)).status).toBe(200);
  expect((await save(over + 1)).status).toBe(400);
  expect((await save(over)).status).toBe(200);
  // Less is nobody's affair but his.
  expect((await above('Max', 49_00)).status).toBe(200);
  expect((await as('Max').post('/api/jobs/J1/applications/3/submit')).status).toBe(400);
  expect((await above('Anna', 50_00)).status).toBe(200);
  await as('Max').post('/api/jobs/J1/applications/3/submit').expect(201);
  await as('Anna').post('/api/jobs/J1/applications/3/certify').send({ version: null, on: '2031-04-30', lines: [] }).expect(201);
  expect(await differences(database, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
  const next = await as('Max').post('/api/jobs/J1/applications').send({ dated: '2031-04-30', reference: '', bySchedule: false });
  const view = (await as('Max').get(`/api/jobs/J1/applications/${next.body.number}?asOf=2031-04`)).body;
  expect([view.lines[0].work, view.above, view.aboveReason]).toEqual([over, 50_00, 'agreed on site']);
});

test('what has to be approved is not imported instead, of a job that is there; whoever approves it may', async () => {
  await rules({ kind: 'transfer', above: 100_00, role: 'owner' }, { kind: 'change-order', above: 500_00, role: 'owner' });
  const before = await everything(database);
  const send = (who: string, ...files: [string, string][]) =>
    files.reduce(
      (sending, [name, text]) => sending.attach('files', Buffer.from(text), `${name}.csv`),
      as(who).post('/api/book/import'),
    );
  const transfers: [string, string] = [
    'budget_transfers',
    'job,transfer,dated,reason,section,cost_code,cost_type,amount\nJ1,9,2031-04-30,x,,100,material,-200.00\nJ1,9,2031-04-30,x,,200,labour,200.00\n',
  ];
  const changes: [string, string][] = [
    ['change_orders', 'job,change_order,title,status,raised_on,decided_on\nJ1,C9,More,approved,2031-05-01,2031-05-01\n'],
    ['change_order_lines', 'job,change_order,side,sov_line,description,amount\nJ1,C9,price,X9,More,99000.00\n'],
  ];
  const fieldsOf = (reply: { body: { faults: { field: string }[] } }) => reply.body.faults.map((it) => it.field);
  expect(fieldsOf(await send('Anna', transfers))).toEqual(['budget_transfers.csv:2:amount']);
  expect(fieldsOf(await send('Anna', ...changes))).toEqual(['change_order_lines.csv:2:amount']);
  expect(await everything(database)).toBe(before);
  expect((await send('Olga', transfers)).status).toBe(201);
});

test('nobody decides, as deputy, what they asked for themselves, nor acts unasked; what one was given nobody else carries out', async () => {
  await rules({ kind: 'transfer', above: 100_00, role: 'owner' });
  const deputies = { from: '2031-05-01', to: '2031-05-09', deputy: 'Anna' };
  await as('Olga').post('/api/account/absences').send(deputies).expect(201);
  expect((await moving('Anna', 200_00)).body.code).toBe('needs-approval');
  expect((await moving('Anna', 200_00, 'late')).status).toBe(202);
  const decide = (who: string) => as(who).post('/api/approvals/1/decision').send({ give: true, note: '' });
  expect((await decide('Anna')).body.message).toMatch(/You asked for this yourself/);
  expect(await waits('Anna')).toEqual([]);
  expect((await decide('Olga')).status).toBe(201);
  // Max sends the very same: it was given to Anna.
  expect((await moving('Max', 200_00)).body.code).toBe('needs-approval');
  expect((await moving('Anna', 200_00)).status).toBe(201);
});
