import { afterAll, expect, test } from '@jest/globals';
import { reading } from '../test/act';
import { cleanUp, faultsOf, SMALL_BOOK, temporaryDatabase } from '../test/books';
import { achievedHours } from './achievedHours';

afterAll(cleanUp);

test('what a unit took is of jobs that are finished by then: quantities and hours of a code together', async () => {
  const database = await temporaryDatabase();
  const jobs =
    'job,name,customer,status,awarded_on,finished_on,retention_percent\nJ1,Mill,NORTH,closing-out,2031-01-05,2031-03-31,5\n';
  const budget =
    'job,section,cost_code,cost_type,sov_line,quantity,unit,hours,amount\nJ1,A,100,labour,1,300,m2,100,3000.00\nJ1,A,100,labour,1,60,m2,20,600.00\nJ1,A,200,material,2,,,,2500.00\n';
  const book = { ...SMALL_BOOK, jobs, budget, applications: '', application_lines: '', receipts: '', retention_releases: '' };
  expect(await faultsOf(database, Object.fromEntries(Object.entries(book).filter(([, text]) => text !== '')))).toEqual([]);
  expect((await achievedHours(reading(database), '2031-03-30')).codes).toEqual([]);
  // 120 h for 360 m2 were planned; 40 and 50 h were posted.
  const perUnit = { planned: 3333, achieved: 2500 };
  const figures = { quantity: 3_600_000, planned: 1_200_000, used: 900_000, perUnit };
  expect((await achievedHours(reading(database), '2031-03-31')).codes).toEqual([
    {
      costCode: '100',
      description: 'Framing',
      unit: 'm2',
      ...figures,
      tasks: [{ ...figures, job: 'J1', jobName: 'Mill', section: 'A', costCode: '100', description: 'Framing', unit: 'm2' }],
    },
  ]);
});
