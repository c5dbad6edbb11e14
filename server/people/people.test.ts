import { afterAll, beforeEach, expect, test } from '@jest/globals';
import request from 'supertest';
import type { Database } from '../db/database';
import { PersonTable } from '../company/models';
import { JobTable } from '../jobs/models';
import { UserTable } from '../users/models';
import { act, reading } from '../test/act';
import { cleanUp, differences, faultsOf, SMALL_BOOK, temporaryDatabase } from '../test/books';
import { EXAMPLES } from '../test/postedBodies';
import { testApp } from '../test/testApp';
import { postCosts } from '../costs/postCosts';
import { inviteUser } from '../users/users';
import { declaredTables } from '../test/declaredTables';
import { NAMING } from './queries';

const NAME = 'Ann O’Ash "the" Elder';
const MAIL = 'ann@x.example';
let database: Database;
let app: ReturnType<typeof testApp>;
const logged: unknown[] = [];

beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  app = testApp(database, logged, { now: () => new Date('2041-05-02T09:00:00Z') });
  const owner = { name: 'Olga', at: '2031-05-01T09:00:00.000Z' };
  const context = { address: 'http://localhost' } as never;
  await act(database, owner, inviteUser, { name: NAME, email: MAIL, role: 'accountant', allJobs: false }, context);
  await database.write((sql) => sql.update(JobTable, { number: 'J1' }, { manager: NAME }));
  await act(database, { name: NAME, at: '2031-05-02T09:00:00.000Z' }, postCosts, EXAMPLES.postCosts.body);
});
afterAll(async () => {
  expect(logged).toEqual([]);
  await cleanUp();
});

const path = `/api/people/${encodeURIComponent(NAME)}`;
const ask = (years: number) => request(app).post(`${path}/anonymous`).send({ years });

test('a person gets all that is saved of them, without a secret', async () => {
  const { body } = await request(app).get(`${path}/data.json`).expect(200);
  expect(body.of).toBe(NAME);
  expect(body.user).toMatchObject([{ name: NAME, email: MAIL, role: 'accountant' }]);
  expect(body.jobs).toMatchObject([{ number: 'J1', as_manager: 1 }]);
  expect(body.postings).toHaveLength(1);
  expect(body.audit).toMatchObject([{ command: 'post-costs' }]);
  expect(JSON.stringify(body)).not.toMatch(/password|invitation"|token/);
  await request(app).get('/api/people/Nobody/data.json').expect(404);
});

test('a former employee is anonymous once nothing stands against it: the name is nowhere, and the books are as they were', async () => {
  const says = async (years: number) => (await ask(years)).body.message as string;
  expect(await says(6)).toMatch(/still signs in/);
  await database.write((sql) => sql.update(UserTable, { name: NAME }, { closed: 1 }));
  expect(await says(6)).toMatch(/still open to new use/);
  await database.write((sql) => sql.update(PersonTable, { name: NAME }, { closed: 1 }));
  expect(await says(6)).toMatch(/named on running jobs: J1/);
  await database.write((sql) => sql.update(JobTable, { number: 'J1' }, { status: 'closed', finished_on: '2031-05-01' }));
  // Ten years after 2 May 2031 is today; eleven is not over.
  expect(await says(11)).toMatch(/on 2042-05-02, the name may go/);
  const postings = await reading(database).anyRows('SELECT id, kind, posted_on FROM posting');
  expect((await ask(10)).body).toEqual({ name: 'Former employee 1' });
  const dump = async () =>
    JSON.stringify(
      await Promise.all((await declaredTables()).map(({ name }) => reading(database).anyRows(`SELECT * FROM ${name}`))),
    );
  expect(await dump()).not.toMatch(/Ann O|ann@x/);
  expect(await dump()).toMatch(/Former employee 1/);
  // What is posted can be changed no more than before.
  await expect(database.write((sql) => sql.run(`UPDATE posting SET note = 'x'`, []))).rejects.toThrow();
  expect(await reading(database).anyRows('SELECT id, kind, posted_on FROM posting')).toEqual(postings);
  expect(await differences(database, '2041-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
  expect((await ask(10)).status).toBe(404);
});

test('every column that names one of our people is known', async () => {
  const OF_OTHERS = [
    'change_order.asked_by',
    'change_order.decided_by',
    'offer.answered_by',
    'offer_question.asked_by',
    'quotation.answered_by',
  ];
  const naming = (await declaredTables()).flatMap(({ name, fields, ...more }) =>
    'isView' in more
      ? []
      : Object.keys(fields)
          .filter((column) => /^(actor|manager|estimator|person|\w+_by|decided_for)$/.test(column))
          .map((column) => `${name}.${column}`),
  );
  const known = Object.entries(NAMING).flatMap(([table, columns]) => columns.map((it) => `${table}.${it}`));
  expect(naming.filter((it) => !known.includes(it)).sort()).toEqual(OF_OTHERS);
});
