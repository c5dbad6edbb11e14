import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Database } from '../../db/database';
import {
  cleanUp,
  differences,
  faultsOf,
  LABOUR_TERMS,
  reportLines,
  SMALL_BOOK,
  temporaryDatabase,
  TIME_HEAD,
  type BookText,
} from '../../test/books';
import { exportedBook as exported } from '../../test/wholeBook';
import { reading } from '../../test/act';
import { runs } from '../../test/runs';

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
});
afterAll(cleanUp);

const LABOUR = { ...SMALL_BOOK, ...LABOUR_TERMS };
const withTime = (rows: string): BookText => ({ ...LABOUR, time: TIME_HEAD + rows });
const lines = async (report: 'time-cost' | 'payroll', asOf = '2031-03-31') => reportLines(database, report, asOf);

test('a day of 9.5 h is cut, priced, posted to the job and to wages, and goes out as it was cut', async () => {
  expect(await faultsOf(database, withTime('7,1,E1,2031-03-03,,J1,A,100,,,,9.5,,,\n7,2,E2,2031-03-03,,,,,,,,4,,,\n'))).toEqual(
    [],
  );
  // 8 × 22.50 = 180.00 and 32.40 + 6.80; 1.5 × 22.50 × 1.5 = 50.63 and 6.08 + 1.28. 4 × 18 = 72.00, 12.96 + 3.40, no job.
  expect(await lines('time-cost')).toEqual([
    '7,1,E1,2031-03-03,J1,A,100,,fitter,regular,8,,22.5000,employee,180.00,39.20,219.20,regular',
    '7,1,E1,2031-03-03,J1,A,100,,fitter,overtime,1.5,,22.5000,employee,50.63,7.36,57.99,OT',
    '7,2,E2,2031-03-03,,,,,mate,regular,4,,18.0000,class,72.00,16.36,88.36,regular',
    'TOTAL,,,,,,,,,,13.5,,,,302.63,62.92,365.55,',
  ]);
  expect(await lines('payroll')).toEqual([
    'E1,OT,J1,1.5,22.5000,50.63',
    'E1,regular,J1,8,22.5000,180.00',
    'E2,regular,,4,18.0000,72.00',
    'TOTAL,,,13.5,,302.63',
  ]);
  // 2,250.00 of the small book and 277.19; wages 302.63, burden 62.92, overhead 88.36.
  const balance = await reportLines(database, 'trial-balance', '2031-03-31');
  expect(balance).toEqual(
    expect.arrayContaining([
      '2800,Wages clearing,0.00,302.63',
      '5010,"Job cost, labour",2527.19,0.00',
      '6010,Overhead labour,88.36,0.00',
      '6090,Burden applied,0.00,62.92',
    ]),
  );
  expect(await differences(database, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
  const book = await exported(database);
  expect(book['time.csv'] ?? book.time).toMatch(/^,7,1,E1,2031-03-03,,J1,A,100,,,regular,8,,,,,,,,,,,,$/m);
  const copy = await temporaryDatabase();
  expect(await faultsOf(copy, book)).toEqual([]);
  expect(await exported(copy)).toEqual(book);
  for (const report of ['time-cost', 'payroll', 'trial-balance', 'wip', 'tie-out'] as const)
    expect(await reportLines(copy, report, '2031-03-31')).toEqual(await reportLines(database, report, '2031-03-31'));
});

test('piece work is paid by the piece, or topped up; a sheet posted in the next month counts there and is worked in this', async () => {
  const rows = '7,1,E1,2031-02-03,2031-03-01,J1,A,200,,,,5,40,,\n7,2,E1,2031-02-04,2031-03-01,J1,A,200,,,,8,40,,\n';
  expect(await faultsOf(database, withTime(rows))).toEqual([]);
  // 40 × 3.20 = 128.00 against 112.50 of 5 h; 8 h are 180.00 against 128.00. Burdens on the pay: 23.04 + 4.25, 32.40 + 6.80.
  expect(await reportLines(database, 'time-cost', '2031-02-28')).toEqual([
    '7,1,E1,2031-02-03,J1,A,200,,fitter,regular,5,40,3.2000,piece,128.00,27.29,155.29,regular',
    '7,2,E1,2031-02-04,J1,A,200,,fitter,regular,8,40,22.5000,employee,180.00,39.20,219.20,regular',
    'TOTAL,,,,,,,,,,13,,,,308.00,66.49,374.49,',
  ]);
  expect(await lines('time-cost')).toEqual(['TOTAL,,,,,,,,,,0,,,,0.00,0.00,0.00,']);
  const cost = (asOf: string) =>
    reading(database).anyRows('SELECT sum(amount) AS cost FROM cost_entry WHERE posted_on <= $1 AND time_line_id IS NOT NULL', [
      asOf,
    ]);
  expect([await cost('2031-02-28'), await cost('2031-03-01')]).toEqual([[{ cost: null }], [{ cost: 37_449 }]]);
});

test('a line is put right by one that reverses it, of the book or of the database, once; what is posted keeps its price', async () => {
  const first = '7,1,E1,2031-03-03,,J1,A,100,,,regular,8,,,\n';
  expect(await faultsOf(database, withTime(first))).toEqual([]);
  const later = (rows: string, more: BookText = {}) => faultsOf(database, { time: TIME_HEAD + rows, ...more });
  const back = '8,1,E1,2031-03-03,2031-04-01,J1,A,100,,,regular,-8,,,7/1/regular\n';
  expect(await later(back + '8,2,E1,2031-03-03,2031-04-01,J1,A,100,,,,6,,,\n')).toEqual([]);
  expect((await lines('time-cost')).map((it) => it.split(',').slice(10, 17).join())).toEqual([
    ...['8,,22.5000,employee,180.00,39.20,219.20', '-8,,22.5000,employee,-180.00,-39.20,-219.20'],
    ...['6,,22.5000,employee,135.00,29.40,164.40', '6,,,,135.00,29.40,164.40'],
  ]);
  expect(await differences(database, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
  expect(await later('9,1,E1,2031-03-03,,J1,A,100,,,regular,-8,,,7/1/regular\n')).toEqual(['time:2:reverses']);
  expect(await later('9,1,E1,2031-03-03,,J1,A,100,,,regular,-7,,,8/2/regular\n')).toEqual(['time:2:hours']);
  // A rise for a day that is posted, a rule and a burden that would alter it.
  const rate = 'from,employee,rate\n2031-03-01,E1,23\n';
  expect(await faultsOf(database, { pay_rates: rate })).toEqual(['pay_rates:2:from']);
  expect(await faultsOf(database, { pay_rates: rate.replace('03-01', '03-04') })).toEqual([]);
  expect(await faultsOf(database, { burdens: 'burden,from,per_hour\nSTATE,2031-02-01,1\n' })).toEqual(['burdens:2:from']);
  expect(await faultsOf(database, { overtime_rules: 'from,daily_after\n2031-03-01,5\n' })).toEqual(['overtime_rules:2:from']);
  const copy = await temporaryDatabase();
  const book = await exported(database);
  expect(await faultsOf(copy, book)).toEqual([]);
  expect(await exported(copy)).toEqual(book);
});

test('any time comes in, ties, pays the hours that were entered, and goes out and in the same', async () => {
  const day = fc.integer({ min: 1, max: 14 }).map((n) => `2031-03-${String(n).padStart(2, '0')}`);
  const line = fc.record({
    employee: fc.constantFrom('E1', 'E2'),
    dated: day,
    onJob: fc.boolean(),
    hours: fc.integer({ min: 1, max: 15_000 }),
    pay: fc.constantFrom('', 'regular', 'overtime', 'double'),
    late: fc.boolean(),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(line, { minLength: 1, maxLength: 12 }), async (all) => {
      const rows = all.map(({ employee, dated, onJob, hours, pay, late }, i) => {
        const where = onJob ? 'J1,A,100' : ',,';
        return `7,${i + 1},${employee},${dated},${late ? '2031-03-20' : ''},${where},,,${pay},${(hours / 10_000).toFixed(4)},,,\n`;
      });
      const [first, second] = [await temporaryDatabase(), await temporaryDatabase()];
      const limits = { overtime_rules: 'from,daily_after,double_after,weekly_after\n2031-01-01,1,2,4\n' };
      expect(await faultsOf(first, { ...withTime(rows.join('')), ...limits })).toEqual([]);
      expect(await differences(first, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
      const paid = await reading(first).anyRows('SELECT sum(hours) AS hours FROM time_line');
      expect(paid).toEqual([{ hours: all.reduce((sum, it) => sum + it.hours, 0) }]);
      const book = await exported(first);
      expect(await faultsOf(second, book)).toEqual([]);
      expect(await exported(second)).toEqual(book);
      for (const report of ['time-cost', 'payroll', 'tie-out', 'trial-balance'] as const)
        expect(await reportLines(second, report, '2031-03-31')).toEqual(await reportLines(first, report, '2031-03-31'));
    }),
    { numRuns: runs(5) },
  );
});

describe('what makes no sense is named by file, row and column', () => {
  test.each([
    ['30 February', '7,1,E1,2031-02-30,,J1,A,100,,,,8,,,\n', 'time:2:dated'],
    ['25 hours of a day', '7,1,E1,2031-03-03,,J1,A,100,,,,15,,,\n7,2,E1,2031-03-03,,J1,A,100,,,,10,,,\n', 'time:3:hours'],
    ['before somebody started', '7,1,E1,2030-12-31,,J1,A,100,,,,8,,,\n', 'time:2:dated'],
    ['after somebody left', '7,1,E2,2031-04-01,,J1,A,100,,,,8,,,\n', 'time:2:dated'],
    ['somebody unknown', '7,1,E9,2031-03-03,,J1,A,100,,,,8,,,\n', 'time:2:employee'],
    ['no cost code on a job', '7,1,E1,2031-03-03,,J1,A,,,,,8,,,\n', 'time:2:cost_code'],
    ['an accounting date before the day', '7,1,E1,2031-03-03,2031-03-02,J1,A,100,,,,8,,,\n', 'time:2:posted_on'],
    ['hours below nothing', '7,1,E1,2031-03-03,,J1,A,100,,,,-8,,,\n', 'time:2:hours'],
    ['a line twice', '7,1,E1,2031-03-03,,J1,A,100,,,,8,,,\n7,1,E1,2031-03-03,,J1,A,100,,,,8,,,\n', 'time:3:pay'],
    [
      'a line that is cut into one that is there',
      '7,1,E1,2031-03-03,,J1,A,100,,,overtime,1,,,\n7,1,E1,2031-03-03,,J1,A,100,,,,9,,,\n',
      'time:3:pay',
    ],
    ['no piece rate', '7,1,E1,2031-03-03,,J1,A,100,,,,8,5,,\n', 'time:2:units'],
    ['no rate', '7,1,E2,2031-03-03,,J1,A,100,,porter,,8,,,\n', 'time:2:employee'],
  ])('%s', async (_, rows, fault) => {
    expect(await faultsOf(database, withTime(rows))).toEqual([fault]);
  });

  test('piece work that took no hours of its own is paid by the piece', async () => {
    expect(await faultsOf(database, withTime('7,1,E1,2031-03-03,,J1,A,200,,,,0,40,,\n'))).toEqual([]);
    // 40 × 3.20 = 128.00, and 18 % of it; nothing an hour.
    expect(await lines('payroll')).toEqual(['E1,regular,J1,0,3.2000,128.00', 'TOTAL,,,0,,128.00']);
    expect((await lines('time-cost'))[0]).toMatch(/,128\.00,23\.04,151\.04,regular$/);
  });

  test('rates without a rung, pay codes of both, thresholds in the wrong order', async () => {
    expect(
      await faultsOf(database, {
        ...LABOUR,
        pay_rates: 'from,job,rate\n2031-01-01,J1,20\n',
        pay_codes: 'pay_code,pay,job,work_kind\nX,regular,J1,weld\n',
        overtime_rules: 'from,daily_after,double_after\n2031-01-01,10,8\n',
      }),
    ).toEqual(['pay_rates:2:employee', 'overtime_rules:2:double_after', 'pay_codes:2:work_kind']);
  });

  test('what is not posted yet costs nothing and goes out open', async () => {
    expect(await faultsOf(database, withTime('7,1,E1,2031-03-03,,J1,A,100,,,,9.5,,submitted,\n'))).toEqual([]);
    expect(await lines('time-cost')).toEqual(['TOTAL,,,,,,,,,,0,,,,0.00,0.00,0.00,']);
    const book = await exported(database);
    expect(book['time.csv'] ?? book.time).toMatch(/^,7,1,E1,2031-03-03,,J1,A,100,,,,9.5,,submitted,,,,,,,,,,$/m);
  });
});
