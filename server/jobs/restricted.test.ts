import { afterAll, beforeEach, expect, test } from '@jest/globals';
import request from 'supertest';
import type { Role } from '../../core/rights/rights';
import type { Database } from '../db/database';
import { JobPersonTable } from '../jobFile/models';
import { cleanUp, everything, faultsOf, SMALL_BOOK, temporaryDatabase, temporaryFolder } from '../test/books';
import { EXAMPLES } from '../test/postedBodies';
import { testApp } from '../test/testApp';
import { JobTable } from './models';

let database: Database;
const logged: unknown[] = [];
const files = temporaryFolder();
const as = (name: string, role: Role) => {
  const person = { id: 1, name, email: '', role, allJobs: false, session: 1, secondFactor: false };
  return request(testApp(database, logged, { files, whoIs: () => Promise.resolve(person) }));
};

beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  await database.write(async (sql) => {
    const job = (await sql.findOne(JobTable, { number: 'J1' }))!;
    await sql.update(JobTable, { id: job.id }, { manager: 'Max' });
    for (const name of ['Anna', 'Sid'])
      await sql.insert(JobPersonTable, { job_id: job.id, side: 'team', name, role: '', email: '', phone: '' });
  });
});
afterAll(async () => {
  expect(logged).toEqual([]);
  await cleanUp();
});

const restrict = (restricted: boolean) =>
  as('Max', 'manager').post('/api/jobs/J1/restriction').send({ restricted, reason: 'Plans of a bank' });
const attach = (name: string, role: Role) =>
  as(name, role).post('/api/jobs/J1/attachments').attach('file', Buffer.from('a plan'), 'Plan.txt').field('about', '');

test('a restricted job takes costs, corrections and documents from its team alone, whatever their role', async () => {
  await restrict(true).expect(201);
  expect((await restrict(true)).status).toBe(400);
  const before = await everything(database);
  const post = (name: string, role: Role) => as(name, role).post('/api/costs').send(EXAMPLES.postCosts.body);
  const refusals = [
    await post('Olga', 'owner'),
    await as('Olga', 'owner').post('/api/costs/preview').send(EXAMPLES.postCosts.body),
    await post('Bea', 'accountant'),
    await as('Bea', 'accountant')
      .post('/api/corrections')
      .send({ ...EXAMPLES.correctCosts.body, to: null }),
    await attach('Olga', 'owner'),
  ];
  for (const it of refusals) expect([it.status, it.body.message]).toEqual([409, expect.stringMatching(/^Job J1 is restricted/)]);
  expect(await everything(database)).toBe(before);
  expect([(await post('Anna', 'accountant')).status, (await attach('Max', 'manager')).status]).toEqual([201, 201]);
  await restrict(false).expect(201);
  expect([(await post('Bea', 'accountant')).status, (await attach('Olga', 'owner')).status]).toEqual([201, 201]);
});

test('the site sees the documents it is shown, of its own jobs, and no other', async () => {
  await attach('Max', 'manager').expect(201);
  const read = (id: number, job = 'J1') => as('Sid', 'site').get(`/api/site/jobs/${job}/documents/${id}`);
  const shown = async () => (await as('Sid', 'site').get('/api/site/jobs/J1').expect(200)).body.documents;
  expect([await shown(), (await read(1)).status]).toEqual([[], 404]);
  const show = (forSite: boolean) => as('Max', 'manager').put('/api/jobs/J1/attachments/1/site').send({ forSite });
  await show(true).expect(200);
  expect(await shown()).toEqual([{ document: '1', name: 'Plan.txt' }]);
  const file = await read(1);
  expect([file.status, file.text]).toEqual([200, 'a plan']);
  // Nor by another way in, nor under another job's number, nor by somebody of another team.
  await as('Sid', 'site').get('/api/attachments/1').expect(403);
  await read(1, 'J2').expect(404);
  await as('Tom', 'site').get('/api/site/jobs/J1/documents/1').expect(404);
  await show(false).expect(200);
  await read(1).expect(404);
});

test('whoever estimates ends a tender and takes it up again, and moves and locks nothing else', async () => {
  await database.write((sql) => sql.update(JobTable, { number: 'J2' }, { status: 'tender' }));
  const end = (job: string, status: string) =>
    as('Eva', 'estimator').post(`/api/jobs/${job}/end`).send({ status, on: '2031-05-01', reason: 'too dear' });
  expect((await end('J2', 'lost')).status).toBe(201);
  expect((await end('J2', 'tender')).status).toBe(201);
  expect([(await end('J2', 'awarded')).status, (await end('J1', 'lost')).status]).toEqual([400, 400]);
  for (const path of ['status', 'lock', 'restriction'])
    expect((await as('Eva', 'estimator').post(`/api/jobs/J2/${path}`).send({})).status).toBe(403);
});
