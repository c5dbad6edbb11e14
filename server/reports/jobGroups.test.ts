import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { reading } from '../test/act';
import { cleanUp, databaseOf, LABOUR_TERMS, SMALL_BOOK, TIME_HEAD } from '../test/books';
import type { ReportRequest } from '../reportFiles/report';
import { REPORTS } from './index';

let database: Database;
/** The mill is of the roofers; a yard and a shed, without one and of the cladders. Ann is a roofer, Ben is of no department. */
beforeAll(async () => {
  database = await databaseOf({
    ...SMALL_BOOK,
    ...LABOUR_TERMS,
    departments: 'department,name\nCLAD,Cladding\nROOF,Roofing\n',
    job_kinds: 'kind,name\nSMALL,Small works\n',
    employees: 'employee,name,wage_class,department\nE1,Ann Ash,fitter,ROOF\nE2,Ben Birch,mate,\n',
    jobs:
      'job,name,customer,status,awarded_on,retention_percent,tax_percent,department,kind\n' +
      'J1,"Mill, east wall",NORTH,on-site,2031-01-05,5,20,ROOF,\nJ2,Tender only,NORTH,tender,,5,,ROOF,\n' +
      'J3,Yard,NORTH,awarded,2031-01-05,0,0,,SMALL\nJ4,Shed,NORTH,awarded,2031-01-05,0,0,CLAD,SMALL\n',
    schedule_of_values: `${SMALL_BOOK.schedule_of_values}J3,1,,Gate,300.00\nJ4,1,,Door,500.00\n`,
    time: `${TIME_HEAD.trim()},department\n7,1,E1,2031-03-03,2031-03-03,J4,,100,,,,4,,,,\n7,2,E1,2031-03-04,2031-03-04,,,,,,,2,,,,\n7,3,E2,2031-03-04,2031-03-04,,,,,,,1,,,,\n7,4,E1,2031-03-05,2031-03-05,,,,,,,3,,,,CLAD\n`,
  });
});
afterAll(cleanUp);

const rowsOf = async (name: 'wip' | 'contract-status' | 'time-cost', request: Partial<ReportRequest>) =>
  REPORTS[name](reading(database), { asOf: '2031-03-31', ...request });

test('groups stand in order, those of none last, and what they come to adds up to the company', async () => {
  const { columns, rows, groups } = await rowsOf('wip', { by: 'department' });
  expect(columns[0]).toMatchObject({ key: 'group', title: 'Department' });
  expect(rows.map((it) => [it.job, it.group])).toEqual([
    ['J4', 'CLAD'],
    ['J1', 'ROOF'],
    ['J3', ''],
    ['TOTAL', ''],
  ]);
  expect([...groups!.names]).toEqual([
    ['CLAD', 'CLAD Cladding'],
    ['ROOF', 'ROOF Roofing'],
    ['', 'No department'],
  ]);
  // The mill: 10,000.00 and the change of 1,000.00. The per cents of a group are those of its sums: the mill's own.
  const sums = [...groups!.totals!.values()].map((it) => it.contract_sum);
  expect(sums).toEqual([50_000, 1_100_000, 30_000]);
  expect(rows.at(-1)!.contract_sum).toBe(1_180_000);
  expect(groups!.totals!.get('ROOF')).toMatchObject({ percent_complete: rows[1]!.percent_complete });
  const status = await rowsOf('contract-status', { by: 'kind' });
  expect([...status.groups!.totals!].map(([code, it]) => [code, it.contract_sum])).toEqual([
    ['SMALL', 80_000],
    ['', 1_100_000],
  ]);
});

test('narrowed to a department or a kind, the total is that of what is shown', async () => {
  expect((await rowsOf('wip', { kind: 'SMALL' })).rows.map((it) => [it.job, it.contract_sum])).toEqual([
    ['J3', 30_000],
    ['J4', 50_000],
    ['TOTAL', 80_000],
  ]);
  expect((await rowsOf('wip', { kind: 'SMALL', department: 'CLAD' })).rows.map((it) => it.job)).toEqual(['J4', 'TOTAL']);
  expect((await rowsOf('wip', {})).columns[0]!.key).toBe('job');
});

test('an hour counts in the department of its job, and overhead in its own or that of whoever worked it', async () => {
  const { rows, groups } = await rowsOf('time-cost', { by: 'department', from: '2031-03-01' });
  expect(rows.map((it) => [it.group, it.job, it.hours])).toEqual([
    ['CLAD', 'J4', 40_000],
    ['CLAD', '', 30_000],
    ['ROOF', '', 20_000],
    ['', '', 10_000],
    ['', '', 100_000],
  ]);
  const sum = [...groups!.totals!.values()].reduce((all, it) => all + Number(it.total), 0);
  expect(sum).toBe(rows.at(-1)!.total);
  await expect(rowsOf('time-cost', { by: 'kind' })).rejects.toThrow(/by department alone/);
});
