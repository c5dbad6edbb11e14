import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import { canBeRemoved, NARROWED_ROLES, PART_NAMES, PARTS } from '../../core/rights/parts';
import { ROLES, type Role } from '../../core/rights/rights';
import { CALLS } from '../../wire/calls';
import type { Call } from '../../wire/call';
import type { Database } from '../db/database';
import { newReportsAsTheirLike } from '../db/migrations/0031-new-reports-as-their-like';
import { JobTable } from '../jobs/models';
import { cleanUp, faultsOf, SMALL_BOOK, temporaryDatabase } from '../test/books';
import { testApp } from '../test/testApp';
import { UserTable } from './models';
import { whoIs } from './sessions';

let database: Database;
const logged: unknown[] = [];
const agents = new Map<Role, ReturnType<typeof request.agent>>();
const as = (role: Role) => agents.get(role)!;

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  await database.write(async (sql) => {
    for (const role of ROLES) await sql.insert(UserTable, { name: role, role, email: `${role}@x.example`, created_at: '' });
    await sql.update(JobTable, { number: 'J1' }, { manager: 'manager' });
  });
  const app = testApp(database, logged, { whoIs, demo: true });
  for (const role of ROLES) {
    agents.set(role, request.agent(app));
    await as(role).post('/api/sign-in/demo').send({ role }).expect(201);
  }
});
afterAll(async () => {
  expect(logged).toEqual([]);
  await cleanUp();
});

const take = async (...removed: object[]) => {
  const { body } = await as('owner').get('/api/roles').expect(200);
  return as('owner').put('/api/roles').send({ seen: body.seen, removed });
};

test('a report, an export and an action are removed from one role, at once, and from no other; given back, it has them again', async () => {
  const statuses = async (role: Role) => {
    const wip = await as(role).get('/api/reports/wip?asOf=2031-04');
    const csv = await as(role).get('/api/reports/wip.csv?asOf=2031-04');
    const ageing = await as(role).get('/api/reports/ageing.csv?asOf=2031-04');
    const transfer = await as(role).post('/api/jobs/J1/transfers').send({});
    return [wip, csv, ageing, transfer].map((it) => it.status);
  };
  const before = [200, 200, 200, 400];
  expect([await statuses('manager'), await statuses('accountant')]).toEqual([before, before]);
  expect((await take({ part: 'report:wip', role: 'manager' })).status).toBe(200);
  expect(await statuses('manager')).toEqual([403, 403, 200, 400]);
  const more = [
    { part: 'export:reportFile', role: 'manager' },
    { part: 'transfer-budget', role: 'manager' },
  ];
  expect((await take(...more)).status).toBe(200);
  expect([await statuses('manager'), await statuses('accountant')]).toEqual([[200, 403, 403, 403], before]);
  const { body } = await as('manager').get('/api/session').expect(200);
  expect(body.user.narrowed.sort()).toEqual(['export:reportFile', 'transfer-budget']);
  expect((await take()).status).toBe(200);
  expect(await statuses('manager')).toEqual(before);
});

test('nothing is removed from an owner, nor what a role has not; two owners do not write over each other; others may not ask', async () => {
  for (const wrong of [
    { part: 'report:wip', role: 'owner' },
    { part: 'report:wip', role: 'site' },
    { part: 'certify', role: 'manager' },
  ])
    expect((await take(wrong)).body.faults[0].field).toBe('removed.0');
  expect((await take({ part: 'sign-in', role: 'manager' })).status).toBe(400);
  const { body } = await as('owner').get('/api/roles');
  await take({ part: 'apply', role: 'manager' });
  expect((await as('owner').put('/api/roles').send({ seen: body.seen, removed: [] })).status).toBe(409);
  for (const role of ['accountant', 'manager', 'estimator', 'site'] as const) await as(role).get('/api/roles').expect(403);
});

test('every part is there: each names a call or a right that calls need, and somebody has it', () => {
  const calls = CALLS as Record<string, Call>;
  for (const part of PART_NAMES) {
    expect([part, NARROWED_ROLES.some((role) => canBeRemoved({ part, role }))]).toEqual([part, true]);
    const [kind, name = ''] = part.split(':');
    if (kind === 'export') expect([part, calls[name]?.kind, calls[name]?.who]).toEqual([part, 'download', PARTS[part].needs]);
    else if (kind === 'report')
      expect([part, Object.values(calls).some((it) => it.part?.({ name }) === part)]).toEqual([part, true]);
    else expect([part, Object.values(calls).some((it) => it.who === part)]).toEqual([part, true]);
  }
});

test('from whom a report was taken before there was one like it, that one is taken too', async () => {
  const removed = [
    { part: 'report:wip', role: 'manager' },
    { part: 'report:estimate-vs-actual', role: 'accountant' },
  ];
  await take(...removed);
  await database.write(async (sql) => {
    for (const statement of newReportsAsTheirLike.statements) await sql.run(statement);
  });
  const statuses = async (role: Role) => [
    (await as(role).get('/api/jobs/J1/contract-status?asOf=2031-04')).status,
    (await as(role).get('/api/jobs/J1/quantities?asOf=2031-04')).status,
  ];
  expect([await statuses('manager'), await statuses('accountant'), await statuses('owner')]).toEqual([
    [403, 200],
    [200, 403],
    [200, 200],
  ]);
  await take();
});
