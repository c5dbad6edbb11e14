import { afterAll, expect, test } from '@jest/globals';
import { act, reading } from '../test/act';
import { cleanUp, databaseOf, LABOUR_TERMS, SMALL_BOOK, TESTER } from '../test/books';
import { JobTable } from '../jobs/models';
import { JobPersonTable } from '../jobFile/models';
import { PersonTable } from '../company/models';
import { UserTable } from './models';
import { JOBS_OF_TEAM } from './queries';
import { saveUser, userList } from './users';

afterAll(cleanUp);

test('a user who is called otherwise keeps the jobs, the team, the employee and the place among the people', async () => {
  const database = await databaseOf({ ...SMALL_BOOK, ...LABOUR_TERMS });
  const jobs = async (name: string) => (await reading(database).all(JOBS_OF_TEAM, [name])).map((it) => it.id);
  await database.write(async (sql) => {
    await sql.insert(UserTable, { name: 'Ann Ash', role: 'manager', email: 'a@x.example', created_at: '' });
    await sql.insert(PersonTable, { name: 'Ann Ash', role: 'Manager', email: '', phone: '', closed: 0 });
    await sql.update(JobTable, { number: 'J1' }, { manager: 'Ann Ash', estimator: 'Ann Ash' });
    const [job] = await sql.find(JobTable, { number: 'J2' });
    await sql.insert(JobPersonTable, { job_id: job!.id, side: 'team', name: 'Ann Ash', role: '', email: '', phone: '' });
  });
  expect(await jobs('Ann Ash')).toHaveLength(2);
  const [user] = (await userList(reading(database))).filter((it) => it.name === 'Ann Ash');
  const facts = { name: 'Ann Birch', email: 'a@x.example', role: 'manager' as const, allJobs: false, closed: false };
  await act(database, TESTER, saveUser, user!.id, { ...facts, seen: user!.seen });
  expect([await jobs('Ann Ash'), (await jobs('Ann Birch')).length]).toEqual([[], 2]);
  const sql = reading(database);
  expect([
    (await sql.find(PersonTable, { name: 'Ann Birch' })).length,
    (await sql.anyRows(`SELECT code FROM employee WHERE name = 'Ann Birch'`)).map((it) => it.code),
    (await sql.find(JobTable, { number: 'J1' }))[0]!.estimator,
  ]).toEqual([1, ['E1'], 'Ann Birch']);
});
