import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { jobList } from '../screens/jobList';
import { cleanUp, databaseOf, faultsOf, folderText, SMALL_BOOK, temporaryDatabase } from '../test/books';
import { reading } from '../test/act';
import { explain } from './explain';

let demo: Database;
beforeAll(async () => {
  demo = await temporaryDatabase();
  expect(await faultsOf(demo, folderText('demo/book'))).toEqual([]);
});
afterAll(cleanUp);

test('what moved since the end of January opens into the change order, the forecast and the cost it comes from', async () => {
  const small = await databaseOf(SMALL_BOOK);
  const of = (figure: string) => explain(reading(small), { figure, job: 'J1' }, '2031-02-28');
  // The change of 15 February: 1,000.00 on the contract, 400.00 on the panels. Framing is forecast at 3,750.00 instead of 3,600.00, and
  // 75.50 were spent with no budget.
  expect((await of('contractSumMoved')).operands).toMatchObject([{ label: 'C1, approved 15 Feb 2031', value: 100_000 }]);
  const estimate = await of('estimateMoved');
  expect(estimate.operands.map((it) => [it.label, it.value])).toEqual([
    ['A · 100 Framing · labour: forecast of 28 Feb 2031', 15_000],
    ['A · 200 Panels · material: change orders', 40_000],
    ['A · 900 Other · other: cost beyond what was expected', 7550],
  ]);
  expect([estimate.result, (await of('profitMoved')).result]).toEqual([62_550, 37_450]);
  // 38.8591 % at the end of February, 39.0 % at the end of January.
  expect((await of('marginMoved')).result).toBe(388_591 - 390_000);
});

test('on the sample book what moved is what the list of jobs shows, and adds up, of every job in every month', async () => {
  let compared = 0;
  for (const asOf of ['2030-12-31', '2031-02-14', '2031-03-31', '2031-04-30'])
    for (const job of (await jobList(reading(demo), asOf)).jobs) {
      if (!job.before || !job.inSchedule) continue;
      const of = (figure: string) => explain(reading(demo), { figure, job: job.number }, asOf);
      for (const [figure, moved] of [
        ['contractSumMoved', job.contractSum - job.before.contractSum],
        ['estimateMoved', job.estimate - job.before.estimate],
      ] as const) {
        const { result, operands } = await of(figure);
        expect([asOf, job.number, figure, result]).toEqual([asOf, job.number, figure, moved]);
        expect(operands.reduce((sum, it) => sum + Number(it.value), 0)).toBe(moved);
        compared += 1;
      }
      // Nothing moved without a reason in words.
      expect((await of('estimateMoved')).operands.filter((it) => !it.label.includes(': '))).toEqual([]);
    }
  expect(compared).toBeGreaterThan(60);
});
