import { afterAll, expect, test } from '@jest/globals';
import {
  databaseOf,
  cleanUp,
  differences,
  faultsOf,
  LABOUR_TERMS,
  reportLines,
  temporaryDatabase,
  type BookText,
} from '../test/books';
import { exportedBook } from '../test/wholeBook';

afterAll(cleanUp);

/*
 * J1 has a contract of 1,000.00 and a budget of 800.00. In January it costs 200.00, and 100.00 of daywork, at 20 % on material: 120.00,
 * invoiced. J2 is charged, with a ceiling of 500.00.
 */
const BOOK: BookText = {
  ...LABOUR_TERMS,
  company: 'name,currency,tax_name,tax_percent\nAldergate Cladding,GBP,VAT,20\n',
  customers: 'customer,name,terms_days\nNORTH,Northbeck Estates,14\nSOUTH,Southmoor Homes,\n',
  cost_codes: 'cost_code,description\n100,Framing\n200,Panels\n',
  jobs: 'job,name,customer,awarded_on,pricing,charge_ceiling\nJ1,Mill,NORTH,2031-01-05,,\nJ2,Repairs,SOUTH,2031-01-05,charged,500.00\n',
  schedule_of_values: 'job,sov_line,description,scheduled_value\nJ1,1,Panels,1000.00\n',
  budget: 'job,section,cost_code,cost_type,amount\nJ1,,200,material,800.00\n',
  daywork_terms: 'job,cost_type,markup_percent\nJ1,material,20\nJ1,labour,10\nJ2,material,20\n',
  charge_rates:
    'from,job,customer,work_kind,employee,wage_class,rate\n2031-01-01,,,,,fitter,40\n2031-01-01,,NORTH,,,fitter,45\n2031-02-05,J1,,,E1,,50\n',
  costs: `dated,job,section,cost_code,cost_type,reference,amount,charge,charge_from,markup_percent,daywork_invoice
2031-01-10,J1,,200,material,M1,200.00,,,,
2031-01-15,J1,,200,material,M2,100.00,yes,,,D-1
2031-02-12,J1,,200,material,M3,50.00,hold,,5,
2031-02-10,J2,,200,material,R1,100.00,,,,D-1
2031-02-11,J2,,200,subcontract,R2,300.00,,,,D-1
2031-03-05,J2,,200,material,R3,40.00,no,,,
`,
  time: `sheet,line,employee,dated,job,section,cost_code,hours,charge
7,1,E1,2031-02-03,J1,,100,8,yes
7,2,E1,2031-02-06,J1,,100,8,yes
7,3,E2,2031-02-03,J1,,100,4,yes
`,
  applications: 'job,application,dated,status,certified_on\nJ1,1,2031-01-31,certified,\n',
  application_lines: 'job,application,sov_line,work_to_date\nJ1,1,1,300.00\n',
  daywork_invoices: 'job,invoice,dated,cut_off,shown\nJ1,D-1,2031-01-31,2031-01-31,\nJ2,D-1,2031-02-20,2031-02-15,one-line\n',
  daywork_credits: 'job,invoice,credit_note,dated,amount,reason\nJ2,D-1,CN-1,2031-02-25,50.00,Agreed\n',
  receipts: 'dated,job,application,amount\n2031-03-01,J2,D-1,400.00\n',
};

test('daywork beside a contract is earned at its charge, and the method works on what is left', async () => {
  const books = await databaseOf(BOOK);
  // 200 ÷ 800 is a quarter: 250.00 + 120.00 earned, 420.00 billed.
  expect((await reportLines(books, 'wip', '2031-01-31'))[0]).toBe(
    'J1,Mill,1120.00,900.00,220.00,19.6429,300.00,25.0000,370.00,70.00,420.00,50.00,0.00,750.00,0.00',
  );
  expect((await reportLines(books, 'estimate-vs-actual', '2031-01-31', 'J1'))[0]).toBe(
    ',200,material,800.00,100.00,900.00,300.00,0.00,900.00,0.00,0,0,yes',
  );
  expect((await reportLines(books, 'contract-status', '2031-01-31'))[0]).toBe(
    'J1,Mill,1000.00,800.00,200.00,120.00,100.00,1120.00,900.00,0.00,900.00,220.00',
  );
  expect(await reportLines(books, 'ageing', '2031-01-31')).toEqual([
    'NORTH,J1,1,2031-01-31,2031-02-14,360.00,0.00,0.00,0.00,0.00,0.00,360.00',
    'NORTH,J1,D-1,2031-01-31,2031-02-14,144.00,0.00,0.00,0.00,0.00,0.00,144.00',
    'TOTAL,,,,,504.00,0.00,0.00,0.00,0.00,0.00,504.00',
  ]);
});

test('hours are charged by the first rung that has a rate, their burden with them; without one at cost with markup', async () => {
  const books = await databaseOf(BOOK);
  // 8 h at 22.50: 180.00 and 39.20. On the 3rd the client's rate, 8 × 45; from the 5th the job's for the employee, 8 × 50.
  // 4 h at 18.00: 72.00 and 12.96 + 3.40; with 10 %: 79.20 and 18.00 (17.996). Held: 50.00 with its own 5 %.
  expect(await reportLines(books, 'daywork', '2031-02-28', 'J1')).toEqual([
    '2031-01-15,cost,M2,material,100.00,120.00,D-1',
    '2031-02-03,time,7/1,labour,180.00,360.00,open',
    '2031-02-03,time,7/1,labour,39.20,0.00,open',
    '2031-02-03,time,7/3,labour,72.00,79.20,open',
    '2031-02-03,time,7/3,labour,16.36,18.00,open',
    '2031-02-06,time,7/2,labour,180.00,400.00,open',
    '2031-02-06,time,7/2,labour,39.20,0.00,open',
    '2031-02-12,cost,M3,material,50.00,52.50,hold',
    'TOTAL,,,,676.76,1029.70,',
  ]);
  // Held cost is the contract's own: 250 of 800. Charged: 120 + 857.20.
  expect((await reportLines(books, 'wip', '2031-02-28'))[0]).toBe(
    'J1,Mill,1977.20,1426.76,550.44,27.8394,876.76,31.2500,1289.70,412.94,420.00,0.00,869.70,687.50,0.00',
  );
});

test('a charged job earns what is charged up to its ceiling, less what was credited in part', async () => {
  const books = await databaseOf(BOOK);
  // 120.00 + 300.00, 50.00 credited. Cost 400.00, then 40.00 that is not charged.
  expect((await reportLines(books, 'wip', '2031-03-31'))[1]).toBe(
    'J2,Repairs,500.00,440.00,60.00,12.0000,440.00,100.0000,370.00,-70.00,370.00,0.00,0.00,130.00,0.00',
  );
  // 420.00 and 84.00 tax, less 60.00, less 400.00 received.
  expect((await reportLines(books, 'ageing', '2031-03-31'))[2]).toBe(
    'SOUTH,J2,D-1,2031-02-20,2031-03-22,0.00,44.00,0.00,0.00,0.00,0.00,44.00',
  );
  for (const on of ['2031-01-31', '2031-02-20', '2031-02-28', '2031-03-31'])
    expect(await differences(books, on)).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
});

test('a book of charged cost goes out and comes in the same, what was credited in full and invoiced again with it', async () => {
  const again = {
    ...BOOK,
    costs: BOOK.costs!.replace('M2,100.00,yes,,,D-1', 'M2,100.00,yes,,,D-1;D-2'),
    daywork_invoices:
      'job,invoice,dated,cut_off,shown,credited_on,credit_note\nJ1,D-1,2031-01-31,2031-01-31,,2031-02-10,CN-1\nJ1,D-2,2031-02-10,2031-02-10,cost-types,,\nJ2,D-1,2031-02-20,2031-02-15,one-line,,\n',
  };
  const books = await databaseOf(again);
  expect((await reportLines(books, 'daywork', '2031-02-28', 'J1'))[0]).toBe('2031-01-15,cost,M2,material,100.00,120.00,D-2');
  expect((await reportLines(books, 'daywork', '2031-02-05', 'J1'))[0]).toBe('2031-01-15,cost,M2,material,100.00,120.00,D-1');
  const copy = await databaseOf(await exportedBook(books));
  for (const on of ['2031-01-31', '2031-02-10', '2031-03-31'])
    for (const name of ['wip', 'ageing', 'trial-balance', 'contract-status'] as const)
      expect([name, await reportLines(copy, name, on)]).toEqual([name, await reportLines(books, name, on)]);
  expect(await exportedBook(copy)).toEqual(await exportedBook(books));
});

test.each([
  [
    'a mark without a job',
    { time: BOOK.time!.replace('E1,2031-02-03,J1,,100,8,yes', 'E1,2031-02-03,,,,8,yes') },
    ['time:2:charge'],
  ],
  [
    'an invoice of another job',
    { costs: BOOK.costs!.replace('M2,100.00,yes,,,D-1', 'M2,100.00,yes,,,D-9') },
    ['costs:3:daywork_invoice'],
  ],
  ['not marked', { costs: BOOK.costs!.replace('M2,100.00,yes', 'M2,100.00,hold') }, ['costs:3:daywork_invoice']],
  [
    'after the cut-off',
    { costs: BOOK.costs!.replace('M2,100.00,yes,,', 'M2,100.00,yes,2031-02-01,') },
    ['costs:3:daywork_invoice'],
  ],
  ['by two', { costs: BOOK.costs!.replace('R1,100.00,,,,D-1', 'R1,100.00,,,,D-1;D-1') }, ['costs:5:daywork_invoice']],
  [
    'a cut-off after the invoice',
    { daywork_invoices: BOOK.daywork_invoices!.replace('2031-01-31,2031-01-31', '2031-01-30,2031-01-31') },
    ['daywork_invoices:2:cut_off'],
  ],
  ['a ceiling passed', { jobs: BOOK.jobs!.replace('500.00', '419.99') }, ['daywork_invoices:3:invoice']],
  ['a ceiling of a fixed job', { jobs: BOOK.jobs!.replace('2031-01-05,,', '2031-01-05,,9.00') }, ['jobs:2:charge_ceiling']],
  [
    'a method of a charged job',
    {
      jobs: 'job,name,customer,awarded_on,pricing,revenue_method\nJ1,Mill,NORTH,2031-01-05,,\nJ2,Repairs,SOUTH,2031-01-05,charged,hours\n',
    },
    ['jobs:3:revenue_method'],
  ],
  [
    'a schedule of a charged job',
    { schedule_of_values: `${BOOK.schedule_of_values}J2,1,Panels,1.00\n` },
    ['schedule_of_values:3:job'],
  ],
  [
    'credited beyond the invoice',
    { daywork_credits: BOOK.daywork_credits!.replace('50.00', '420.01') },
    ['daywork_credits:2:amount'],
  ],
  [
    'credited before the invoice',
    { daywork_credits: BOOK.daywork_credits!.replace('2031-02-25', '2031-02-19') },
    ['daywork_credits:2:dated'],
  ],
  ['more received than is left', { receipts: BOOK.receipts!.replace('400.00', '444.01') }, ['receipts:2:amount']],
  [
    'credited below what is received',
    { daywork_credits: BOOK.daywork_credits!.replace('2031-02-25,50.00', '2031-03-02,100.00') },
    ['daywork_credits:2:amount'],
  ],
  ['a charge rate of two', { charge_rates: `${BOOK.charge_rates}2031-01-01,,,,E1,mate,9\n` }, ['charge_rates:5:wage_class']],
] satisfies [string, BookText, string[]][])('%s is a fault of its file, row and column', async (_, spoilt, faults) => {
  expect(await faultsOf(await temporaryDatabase(), { ...BOOK, ...spoilt })).toEqual(faults);
});
