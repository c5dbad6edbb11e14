import { afterAll, expect, test } from '@jest/globals';
import { jobByNumber } from '../jobs/jobByNumber';
import { estimateView } from '../screens/jobView';
import { costBySovLine } from './costBySovLine';
import { reading } from '../test/act';
import { cleanUp, faultsOf, SMALL_BOOK, temporaryDatabase } from '../test/books';

afterAll(cleanUp);

test('cost of a change order falls to the SOV line it names, and cost that names none stands by itself', async () => {
  const database = await temporaryDatabase();
  const book = {
    ...SMALL_BOOK,
    change_orders: `${SMALL_BOOK.change_orders}J1,C9,Hatch,approved,2031-01-05,2031-01-10\n`,
    change_order_lines: `${SMALL_BOOK.change_order_lines}J1,C9,price,9,Hatch,A,,,,1000.00\nJ1,C9,cost,9,Hatch,A,100,labour,,900.00\nJ1,C9,cost,,Hoist,A,100,equipment,,50.00\n`,
  };
  expect(await faultsOf(database, book)).toEqual([]);
  const { revenue, unserved, lines } = await estimateView(reading(database), 'J1', '2031-01-31');
  // Labour of section A: 3,600.00 for line 1, and 900.00 for line 9 that the change brought; each has its own.
  const revised = Object.fromEntries(revenue.map((it) => [it.line, it.revised]));
  expect([revised['1'], revised['9'], unserved.revised]).toEqual([360_000, 90_000, 5_000]);
  for (const key of ['revised', 'actual', 'estimate'] as const)
    expect(revenue.reduce((sum, it) => sum + it[key], unserved[key])).toBe(lines.reduce((sum, it) => sum + it[key], 0));
});

test('a cost line that serves two is shared by its budget there', async () => {
  const database = await temporaryDatabase();
  const shared = {
    ...SMALL_BOOK,
    budget: 'job,section,cost_code,cost_type,sov_line,amount\nJ1,A,100,labour,1,3000.00\nJ1,A,100,labour,2,1000.00\n',
  };
  expect(await faultsOf(database, shared)).toEqual([]);
  const served = await costBySovLine(reading(database), await jobByNumber(reading(database), 'J1', 'job'), '2031-01-31');
  // 1,000.00 spent of 4,000.00: three quarters for line 1.
  expect([served.get('1')!.actual, served.get('2')!.actual]).toEqual([75_000, 25_000]);
});
