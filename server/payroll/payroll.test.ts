import { afterAll, beforeEach, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { act, reading } from '../test/act';
import { cleanUp, faultsOf, LABOUR_TERMS, SMALL_BOOK, temporaryDatabase, TESTER, TIME_HEAD } from '../test/books';
import { exportedBook } from '../test/wholeBook';
import {
  handOver,
  noteUsed,
  openPayroll,
  payrollCsv,
  payrollRun,
  payrollRuns,
  payrollSetting,
  savePayrollSetting,
  undoHandOver,
} from './payroll';
import { wageStatement, wageStatementCsv } from './wageStatement';

let database: Database;
/**
 * 9.5 h of E1 at 22.50: 180.00 and 50.63. Piece work on code 200 at 3.20 that tops up: 40 pieces in 4 h are 128.00, more than the
 * 90.00 of the hours; 20 pieces in 4 h are 64.00, so 90.00 are paid, 26.00 of it top-up. 4 h of E2 without a job at 18.00: 72.00.
 */
const TIME = `${TIME_HEAD}7,1,E1,2031-03-03,,J1,A,100,,,,9.5,,,
7,2,E1,2031-03-04,,J1,A,200,,,,4,40,,
7,3,E1,2031-03-05,,J1,A,200,,,,4,20,,
7,4,E2,2031-03-03,,,,,,,,4,,,
`;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, { ...SMALL_BOOK, ...LABOUR_TERMS, time: TIME })).toEqual([]);
});
afterAll(cleanUp);

const MARCH = { from: '2031-03-01', to: '2031-03-31' };
const open = (period = MARCH) => openPayroll(reading(database), period);
const rowsOf = (
  rows: readonly { employee: string; payCode: string; job: string; hours: number; amount: number; topUp: number }[],
) => rows.map((it) => [it.employee, it.payCode, it.job, it.hours / 10_000, it.amount, it.topUp]);

test('what is posted is handed over once, totals prove it, and a correction goes into the next', async () => {
  const first = await open();
  expect(rowsOf(first.rows)).toEqual([
    ['E1', 'OT', 'J1', 1.5, 5063, 0],
    // By the piece at 3.20 first, then by the hour at 22.50, topped up.
    ['E1', 'regular', 'J1', 4, 12_800, 0],
    ['E1', 'regular', 'J1', 8, 18_000, 0],
    ['E1', 'regular', 'J1', 4, 9000, 2600],
    ['E2', 'regular', '', 4, 7200, 0],
  ]);
  expect(first.proof).toEqual({
    posted: { hours: 215_000, amount: 52_063 },
    handedOver: { hours: 0, amount: 0 },
    left: { hours: 215_000, amount: 52_063 },
    ledger: 52_063,
  });
  const { seen } = first;
  expect(await act(database, TESTER, handOver, { ...MARCH, seen, employees: ['E1'] })).toEqual({ run: 1 });
  // The same again, as from a second press or a second person, is not handed over twice.
  await expect(act(database, TESTER, handOver, { ...MARCH, seen, employees: null })).rejects.toMatchObject({ code: 'conflict' });
  expect(rowsOf((await open()).rows)).toEqual([['E2', 'regular', '', 4, 7200, 0]]);
  const run = await payrollRun(reading(database), 1);
  expect([run.posted, run.amount, run.rows.reduce((sum, it) => sum + it.amount, 0)]).toEqual([
    { lines: 4, hours: 175_000, amount: 44_863 },
    44_863,
    44_863,
  ]);
  const correction = `${TIME_HEAD}8,1,E1,2031-03-03,2031-04-02,J1,A,100,,,regular,-8,,,7/1/regular\n8,2,E1,2031-03-03,2031-04-02,J1,A,100,,,regular,7,,,\n`;
  expect(await faultsOf(database, { time: correction })).toEqual([]);
  const april = await open({ from: '2031-04-01', to: '2031-04-30' });
  expect([rowsOf(april.rows), april.earlier]).toEqual([
    [
      ['E1', 'regular', 'J1', -1, -2250, 0],
      ['E2', 'regular', '', 4, 7200, 0],
    ],
    3,
  ]);
  expect(april.proof.posted.amount).toBe(april.proof.handedOver.amount + april.proof.left.amount);
  expect(april.proof.ledger).toBe(april.proof.posted.amount);
  const copy = await temporaryDatabase();
  const book = await exportedBook(database);
  expect(await faultsOf(copy, book)).toEqual([]);
  expect(await exportedBook(copy)).toEqual(book);
});

test('the usual file says how each row comes about: multiplier, pieces, top-up, and what rounding line by line makes', async () => {
  // 0.5 h of overtime at 22.50 is 16.875: twice 16.88 is 33.76, where 1 h would be 33.75.
  const halves = ['2031-03-10', '2031-03-11'].map((day, i) => `9,${i + 1},E1,${day},,J1,A,100,,,overtime,0.5,,,`).join('\n');
  // A line and its reversal come to nothing together, and are no row.
  const undone = '9,3,E2,2031-03-12,,,,,,,regular,2,,,\n9,4,E2,2031-03-12,,,,,,,regular,-2,,,9/3/regular\n';
  expect(await faultsOf(database, { time: `${TIME_HEAD}${halves}\n${undone}` })).toEqual([]);
  const { seen } = await open();
  await act(database, TESTER, handOver, { ...MARCH, seen, employees: null });
  expect((await payrollCsv(reading(database), 1)).trim().split('\n')).toEqual([
    'Payroll number,Name,Pay code,Job,Hours,Rate,Multiplier,Pieces,Top-up,Rounding,Amount',
    ',Ann Ash,OT,J1,2.5,22.5000,1.5,0,0.00,0.01,84.39',
    ',Ann Ash,regular,J1,4,3.2000,,40,0.00,0.00,128.00',
    ',Ann Ash,regular,J1,8,22.5000,1,0,0.00,0.00,180.00',
    ',Ann Ash,regular,J1,4,22.5000,,20,26.00,0.00,90.00',
    ',Ben Birch,regular,,4,18.0000,1,0,0.00,0.00,72.00',
  ]);
});

test('the file has the columns the company set', async () => {
  const { seen } = await open();
  await act(database, TESTER, handOver, { ...MARCH, seen, employees: null });
  const setting = await payrollSetting(reading(database));
  const columns = [
    { title: '=Number', field: 'employee' as const },
    { title: 'Code', field: 'pay-code' as const },
    { title: 'Sum', field: 'amount' as const },
    { title: 'Until', field: 'to' as const },
  ];
  await act(database, TESTER, savePayrollSetting, { seen: setting.seen, columns, declaration: 'All paid.' });
  expect((await payrollCsv(reading(database), 1)).split('\n').slice(0, 3)).toEqual([
    "'=Number,Code,Sum,Until",
    'E1,OT,50.63,2031-03-31',
    'E1,regular,128.00,2031-03-31',
  ]);
});

test('a statement of wages has a row for a worker, classes and rate, day by day, with pieces and top-up', async () => {
  const statement = await wageStatement(reading(database), 'J1', '2031-03-06');
  expect([statement.week, statement.hours, statement.gross]).toEqual(['2031-03-03', 175_000, 44_863]);
  expect(wageStatementCsv(statement, 2).split('\n').slice(1, 5)).toEqual([
    'J1,E1,Ann Ash,fitter,regular,8,0,4,0,0,0,0,12,22.5000,20,26.00,270.00',
    'J1,E1,Ann Ash,fitter,regular,0,4,0,0,0,0,0,4,3.2000,40,0.00,128.00',
    'J1,E1,Ann Ash,fitter,overtime,1.5,0,0,0,0,0,0,1.5,22.5000,0,0.00,50.63',
    '',
  ]);
});

test('a hand-over is taken back while nobody has its file, the last one first; its hours wait for the next, which has a number of its own', async () => {
  const hand = async (employees: string[] | null) => {
    const { seen } = await open();
    return (await act(database, TESTER, handOver, { ...MARCH, seen, employees })).run;
  };
  const undo = (run: number) => act(database, TESTER, undoHandOver, run);
  const before = await open();
  expect([await hand(['E2']), await hand(null)]).toEqual([1, 2]);
  await expect(undo(1)).rejects.toThrow(/Hand-over 2 came after hand-over 1/);
  expect((await payrollRun(reading(database), 1)).undoRefused).toMatch(/Hand-over 2 came after/);
  await undo(2);
  await expect(undo(2)).rejects.toThrow(/was undone on .* already/);
  await undo(1);
  expect(await open()).toEqual(before);
  expect(await hand(null)).toBe(3);
  const runs = (await payrollRuns(reading(database))).runs.map((it) => [it.run, it.hours, it.undoneOn !== null]);
  expect(runs).toEqual([
    [3, 215_000, false],
    [2, 0, true],
    [1, 0, true],
  ]);
  await database.write((sql) => noteUsed(sql, 3, '2031-04-02'));
  await expect(undo(3)).rejects.toThrow(/was taken on 2 Apr 2031: payroll may have it/);
  const copy = await temporaryDatabase();
  const book = await exportedBook(database);
  expect(await faultsOf(copy, book)).toEqual([]);
  expect(await exportedBook(copy)).toEqual(book);
});
