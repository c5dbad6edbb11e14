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

test('what a charged job without a ceiling moved by is its cost, and what is charged for it', async () => {
  const { company, customers, cost_codes } = SMALL_BOOK;
  const charged = await databaseOf({
    company: company!,
    customers: customers!,
    cost_codes: cost_codes!,
    jobs: 'job,name,customer,status,awarded_on,retention_percent,tax_percent,pricing\nJ1,Repairs,NORTH,on-site,2031-01-05,0,20,charged\n',
    budget: 'job,section,cost_code,cost_type,hours,amount\nJ1,A,100,labour,100,3000.00\nJ1,A,200,material,,9000.00\n',
    daywork_terms: 'job,cost_type,markup_percent\nJ1,material,10\n',
    costs:
      'dated,job,section,cost_code,cost_type,reference,hours,amount\n2031-01-15,J1,A,100,labour,T1,40,1000.00\n2031-02-10,J1,A,100,labour,T2,50,1250.00\n2031-02-11,J1,A,200,material,D1,,500.00\n',
  });
  const of = (figure: string) => explain(reading(charged), { figure, job: 'J1' }, '2031-02-28');
  const estimate = await of('estimateMoved');
  expect(estimate.operands.map((it) => [it.label, it.value])).toEqual([
    ['A · 100 Framing · labour: cost', 125_000],
    ['A · 200 Panels · material: cost', 50_000],
  ]);
  // 1,250.00 + 500.00 with 10 % on it = 1,800.00 charged for 1,750.00.
  expect([estimate.result, (await of('contractSumMoved')).result, (await of('profitMoved')).result]).toEqual([
    175_000, 180_000, 5000,
  ]);
  const [job] = (await jobList(reading(charged), '2031-02-28')).jobs;
  expect([job!.contractSum - job!.before!.contractSum, job!.estimate - job!.before!.estimate]).toEqual([180_000, 175_000]);
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
