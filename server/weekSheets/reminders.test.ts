import { afterAll, expect, test } from '@jest/globals';
import type { Role } from '../../core/rights/rights';
import { runCommand } from '../acts/command';
import { phonePack } from '../daySheets/phonePack';
import { act, reading } from '../test/act';
import { cleanUp, faultsOf, LABOUR_TERMS, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { worked } from '../test/postedBodies';
import { UserTable } from '../users/models';
import { waitingFor } from '../waiting/handlers';
import { remindMissing } from './reminders';
import { addSheet } from './saveSheet';
import { missingIn, weekRegister } from './sheetViews';

afterAll(cleanUp);

test('whoever hands in hours is reminded of those that are missing, until they are there; nobody is made up', async () => {
  const database = await temporaryDatabase();
  expect(await faultsOf(database, { ...SMALL_BOOK, ...LABOUR_TERMS })).toEqual([]);
  const sql = reading(database);
  const user = (name: string, role: Role) => ({
    name,
    email: `${name.replace(' ', '.')}@x.example`,
    role,
    created_at: TESTER.at,
  });
  await runCommand(database, { name: 'add-user', actor: TESTER }, (command) =>
    command.sql.insertAll(UserTable, [user('Cal Dorn', 'manager'), user('Ben Birch', 'site')]),
  );
  const CAL = { ...TESTER, name: 'Cal Dorn', role: 'manager' as const };
  const remind = async (week: string) => act(database, TESTER, remindMissing, week, await missingIn(sql, week));
  // Ann's hours were handed in by nobody who signs in: only Ben is told, who is a user himself.
  expect(await remind('2031-03-03')).toEqual({ reminded: ['Ben Birch'], nobody: ['Ann Ash'] });
  await act(database, CAL, addSheet, { week: '2031-03-03', lines: [{ ...worked, dated: '2031-03-03' }] }, null);
  expect(await remind('2031-03-10')).toEqual({ reminded: ['Ben Birch', 'Cal Dorn'], nobody: [] });
  const { missing } = await weekRegister(sql, '2031-03-12');
  expect(missing.map((it) => [it.name, it.by, it.reminded])).toEqual([
    ['Ann Ash', 'Cal Dorn', { user: 'Cal Dorn', at: TESTER.at }],
    ['Ben Birch', 'Ben Birch', { user: 'Ben Birch', at: TESTER.at }],
  ]);
  const waits = async () => (await waitingFor(sql, CAL)).filter((it) => it.kind === 'remindedTime');
  expect(await waits()).toMatchObject([{ document: '2031-03-10', about: 'Ann Ash', since: '2031-05-02' }]);
  expect((await phonePack(sql, '2031-03-14', { name: 'Ben Birch' })).reminders.map((it) => it.week)).toEqual([
    '2031-03-03',
    '2031-03-10',
  ]);
  // Once the hours are there it waits no more.
  await act(database, CAL, addSheet, { week: '2031-03-10', lines: [{ ...worked, dated: '2031-03-11' }] }, null);
  expect(await waits()).toEqual([]);
  const ben = { ...worked, employee: 'E2', dated: '2031-03-12' };
  await act(database, CAL, addSheet, { week: '2031-03-10', lines: [ben] }, null);
  await expect(remind('2031-03-10')).rejects.toThrow('there is nobody to remind');
});
