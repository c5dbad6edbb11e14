import { act } from '../test/act';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import {
  besides,
  cleanUp,
  everything,
  faultsOf,
  SMALL_BOOK,
  temporaryDatabase,
  TESTER,
  writeBookText,
  type BookText,
} from '../test/books';
import { importBook } from './importBook';

afterAll(cleanUp);

/** The small book with one file's text changed. */
function withText(file: string, from: string | RegExp, to: string): BookText {
  const text = SMALL_BOOK[file]!.replace(from, to);
  if (text === SMALL_BOOK[file]) throw new Error(`${from} is not in ${file}`);
  return { ...SMALL_BOOK, [file]: text };
}
const withRow = (file: string, row: string): BookText => ({ ...SMALL_BOOK, [file]: `${SMALL_BOOK[file]}${row}\n` });

describe('a faulty book', () => {
  let database: Database;
  let before: string;

  beforeAll(async () => {
    database = await temporaryDatabase();
    before = await everything(database);
  });

  const cases: [string, BookText, string[]][] = [
    ['an unknown file', { ...SMALL_BOOK, invoices: 'a\n1\n' }, ['invoices:1:']],
    ['an unknown column', withText('vendors', 'vendor,name,kind', 'vendor,name,colour'), ['vendors:1:colour']],
    [
      'a column of a name every object answers to',
      withText('vendors', 'vendor,name,kind', 'vendor,name,__proto__'),
      ['vendors:1:__proto__'],
    ],
    ['and another', withText('vendors', 'vendor,name,kind', 'vendor,name,constructor'), ['vendors:1:constructor']],
    [
      'a missing required column',
      withText('cost_codes', 'cost_code,description', 'cost_code,unit'),
      ['cost_codes:1:description'],
    ],
    ['a column twice', withText('vendors', 'vendor,name,kind', 'vendor,name,name'), ['vendors:1:name']],
    ['a ragged record', withRow('customers', 'SOUTH,South'), ['customers:3:']],
    [
      'an ill-quoted record, rows counted on',
      withText('cost_codes', '200,Panels', '2"00,Panels\n200,Panels\n100,Twice'),
      ['cost_codes:3:', 'cost_codes:5:cost_code'],
    ],
    [
      'a line break inside a cell, which starts no row',
      withText('customers', 'NORTH,Northbeck Estates,14', 'NORTH,"Northbeck\nEstates",x'),
      ['customers:2:terms_days'],
    ],
    ['a missing required cell', withText('jobs', 'J1,"Mill, east wall"', 'J1,'), ['jobs:2:name']],
    ['a bad date', withText('costs', '2031-01-15', '2031-02-30'), ['costs:2:dated']],
    ['a bad number', withText('costs', ',1000.00,', ',"1,000.00",'), ['costs:2:amount']],
    ['too many decimals', withText('budget', '2500.00', '2500.001'), ['budget:4:amount']],
    [
      'too many decimals for a currency with none',
      {
        company: 'name,currency\nA,JPY\n',
        customers: 'customer,name\nC,C\n',
        jobs: 'job,name,customer,awarded_on\n1,A,C,2031-01-01\n',
        schedule_of_values: 'job,sov_line,description,scheduled_value\n1,1,x,10.5\n',
      },
      ['schedule_of_values:2:scheduled_value'],
    ],
    ['an unknown currency', withText('company', 'GBP', 'ZZQ'), ['company:2:currency']],
    ['a percentage above 100', withText('jobs', '2031-01-05,5,20', '2031-01-05,105,20'), ['jobs:2:retention_percent']],
    ['a value outside its list', withText('costs', 'labour,T1', 'labor,T1'), ['costs:2:cost_type']],
    ['a boolean that is neither', withText('costs', ',yes,', ',true,'), ['costs:6:uninstalled']],
    ['an unknown client', withText('jobs', 'wall",NORTH', 'wall",WEST'), ['jobs:2:customer']],
    ['an unknown job, its dependents told once', withText('costs', '2031-01-15,J1', '2031-01-15,J7'), ['costs:2:job']],
    ['an unknown cost code', withText('forecasts', ',100,', ',101,'), ['forecasts:2:cost_code']],
    ['an unknown commitment', withText('costs', 'PO1,1,,', 'PO2,1,,'), ['costs:3:commitment']],
    ['an unknown commitment line', withText('costs', 'PO1,1,,', 'PO1,2,,'), ['costs:3:commitment_line']],
    ['a commitment line of another job', withText('commitments', '2031-01-20,J1', '2031-01-20,J2'), ['costs:3:commitment_line']],
    ['a commitment without its line', withText('costs', 'PO1,1,,', 'PO1,,,'), ['costs:3:commitment_line']],
    ['a duplicate job', withRow('jobs', 'J1,Again,NORTH,tender,,,'), ['jobs:4:job']],
    ['a duplicate SOV line', withRow('schedule_of_values', 'J1,2,,Again,1.00'), ['schedule_of_values:4:sov_line']],
    ['a duplicate forecast', withRow('forecasts', 'J1,2031-02-28,A,100,labour,percent,70'), ['forecasts:3:cost_type']],
    ['a duplicate application line', withRow('application_lines', 'J1,3,1,5000.00,,'), ['application_lines:9:sov_line']],
    [
      'commitment rows that differ',
      withRow('commitments', 'PO1,subcontract,PANEL,2031-01-20,J1,2,A,200,material,5.00'),
      ['commitments:3:kind'],
    ],
    ['an awarded job without its day', withText('jobs', 'on-site,2031-01-05', 'on-site,'), ['jobs:2:awarded_on']],
    ['a closed job without its finish', withText('jobs', 'on-site', 'closed'), ['jobs:2:finished_on']],
    [
      'a decision before the change was raised',
      withText('change_orders', '2031-02-15', '2031-01-31'),
      ['change_orders:2:decided_on'],
    ],
    ['an approval without its day', withText('change_orders', ',2031-02-15', ','), ['change_orders:2:decided_on']],
    [
      'a new SOV line without a description',
      withText('change_order_lines', 'price,3,Louvres', 'price,3,'),
      ['change_order_lines:2:description'],
    ],
    [
      'a price line without its SOV line',
      withText('change_order_lines', 'price,1,', 'price,,'),
      ['change_order_lines:4:sov_line'],
    ],
    [
      'a cost line without code and type',
      withText('change_order_lines', 'A,200,material', 'A,,'),
      ['change_order_lines:3:cost_code', 'change_order_lines:3:cost_type'],
    ],
    ['installed before delivered', withText('costs', '2031-03-02', '2031-02-19'), ['costs:6:installed_on']],
    ['certified before dated', withText('applications', '2031-02-05', '2031-01-30'), ['applications:2:certified_on']],
    ['an application before the award', withText('applications', '1,2031-01-31', '1,2031-01-04'), ['applications:2:dated']],
    ['application dates that fall', withText('applications', '3,2031-03-31', '3,2031-02-24'), ['applications:4:dated']],
    [
      'certified out of order',
      withText('applications', '2,2031-02-25,certified,2031-02-28', '2,2031-01-31,certified,2031-02-04'),
      ['applications:3:certified_on'],
    ],
    [
      'certified before one that is not',
      {
        ...withText('applications', '1,2031-01-31,certified,2031-02-05', '1,2031-01-31,submitted,'),
        receipts: 'dated,job,application,amount\n',
      },
      ['applications:3:status'],
    ],
    [
      'a gap in the numbers',
      {
        ...withText('applications', 'J1,3,', 'J1,4,'),
        application_lines: SMALL_BOOK.application_lines!.replaceAll('J1,3,', 'J1,4,'),
      },
      ['applications:4:application'],
    ],
    [
      'a line passed by its work',
      withText('application_lines', 'J1,3,1,5000.00', 'J1,3,1,6000.01'),
      ['application_lines:6:work_to_date'],
    ],
    [
      'a line passed with its materials',
      withText('application_lines', 'J1,3,1,5000.00,,', 'J1,3,1,5000.00,1000.01,'),
      ['application_lines:6:materials_on_site'],
    ],
    [
      'a certified figure that passes',
      withText('application_lines', '3800.00', '6000.01'),
      ['application_lines:4:certified_work_to_date'],
    ],
    [
      'a line billed before its change is approved',
      withText('change_orders', '2031-02-15', '2031-04-15'),
      ['application_lines:8:work_to_date'],
    ],
    [
      'a line billed before and left out',
      withText('application_lines', 'J1,3,2,2000.00,,\n', ''),
      ['applications:4:application'],
    ],
    ['more released than held', withText('retention_releases', '100.00', '265.01'), ['retention_releases:2:amount']],
    ['released before it is held', withText('retention_releases', '2031-03-10', '2031-02-04'), ['retention_releases:2:amount']],
    [
      'a release with a number for a reference',
      withText('retention_releases', 'Part release', '12'),
      ['retention_releases:2:reference'],
    ],
    ['a receipt before certification', withText('receipts', '2031-02-20', '2031-02-04'), ['receipts:2:dated']],
    ['a receipt on what is not certified', withRow('receipts', '2031-04-20,J1,3,5.00,'), ['receipts:4:dated']],
    ['a receipt on an unknown release', withRow('receipts', '2031-04-20,J1,Other,5.00,'), ['receipts:4:application']],
    ['more received than asked for', withText('receipts', '1000.00', '2964.01'), ['receipts:3:amount']],
    ['a receipt that takes back more than came', withText('receipts', '1000.00', '-100000.00'), ['receipts:3:amount']],
    [
      'half a retention step',
      withText(
        'jobs',
        'retention_percent,tax_percent\nJ1,"Mill, east wall",NORTH,on-site,2031-01-05,5,20',
        'retention_step_at_percent,tax_percent\nJ1,"Mill, east wall",NORTH,on-site,2031-01-05,50,20',
      ),
      ['jobs:2:retention_step_to_percent', 'jobs:3:retention_step_to_percent'],
    ],
    [
      'no retention beside a rate',
      withText(
        'jobs',
        'tax_percent\nJ1,"Mill, east wall",NORTH,on-site,2031-01-05,5,20',
        'no_retention\nJ1,"Mill, east wall",NORTH,on-site,2031-01-05,5,yes',
      ),
      ['jobs:2:no_retention'],
    ],
    ['an entry of neither amount nor hours', withRow('costs', '2031-01-15,J1,A,200,material,D,,,0,,,,'), ['costs:7:amount']],
    ['labour marked as uninstalled', withRow('costs', '2031-01-15,J1,A,100,labour,D,,,5,,,yes,'), ['costs:7:uninstalled']],
    ['no company at all', { customers: SMALL_BOOK.customers! }, ['company:1:']],
    [
      'several at once, in order',
      { ...withText('costs', '2031-01-15', 'x'), vendors: 'vendor,name,kind\nPANEL,,shop\n' },
      ['vendors:2:name', 'vendors:2:kind', 'costs:2:dated'],
    ],
  ];

  test.each(cases)('%s', async (_, book, expected) => {
    expect((await faultsOf(database, book)).sort()).toEqual([...expected].sort());
  });

  test('a file that is not UTF-8 is one fault, and what refers to it is not blamed', async () => {
    const folder = writeBookText(SMALL_BOOK);
    const { writeFileSync } = await import('node:fs');
    writeFileSync(join(folder, 'customers.csv'), Buffer.from([0x63, 0xff, 0xfe]));
    await expect(act(database, TESTER, importBook, folder, besides(database))).rejects.toMatchObject({
      faults: [{ file: 'customers.csv', row: 1, column: '' }],
    });
  });

  test('leaves the database as it was', async () => {
    expect(await everything(database)).toBe(before);
  });
});
