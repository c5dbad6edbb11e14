import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { statusByMonth } from '../screens/statusByMonth';
import { postCosts } from '../costs/postCosts';
import { act, reading } from '../test/act';
import { cleanUp, databaseOf, differences, faultsOf, reportLines, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';

let database: Database;

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
});
afterAll(cleanUp);

describe('work in progress of the small book', () => {
  test('at the end of January: cost 2,500.00 of 6,600.00, so 37.8788 %', async () => {
    // Labour: budget 3,600.00. Material: cost 1,500 + open commitment 500 = 2,000, below the budget of 2,500.
    // E = 6,100.00; f = 2,500 ÷ 6,100 = 40.9836 %; earned 10,000 × 2500/6100 = 4,098.36. Nothing is certified yet.
    expect(await reportLines(database, 'wip', '2031-01-31')).toEqual([
      'J1,"Mill, east wall",10000.00,6100.00,3900.00,39.0000,2500.00,40.9836,4098.36,1598.36,0.00,0.00,4098.36,5901.64,0.00',
      'TOTAL,,10000.00,6100.00,3900.00,39.0000,2500.00,40.9836,4098.36,1598.36,0.00,0.00,4098.36,5901.64,0.00',
    ]);
  });

  test('at the end of February, with a change, a forecast and material not installed', async () => {
    // CS 11,000.00. Labour: cost 2,250 ÷ 60 % = 3,750.00. Material: revised 2,900; 1,800 + open 500 = 2,300, so 2,900.
    // Other 75.50 unbudgeted. E = 6,725.50; C = 4,125.50; U = 300.00.
    // f = 3,825.50 ÷ 6,425.50 = 59.5362 %; earned (11,000 − 300) × f + 300 = 6,670.3758… = 6,670.38.
    // B: certified 3,800 + 1,500 = 5,300.00.
    expect((await reportLines(database, 'wip', '2031-02-28'))[0]).toBe(
      'J1,"Mill, east wall",11000.00,6725.50,4274.50,38.8591,4125.50,59.5362,6670.38,2544.88,5300.00,0.00,1370.38,4329.62,0.00',
    );
  });

  test('in the middle of a month only what is dated by then counts', async () => {
    // 17 February: the change of the 15th counts, the cost of the 18th does not. C = 3,750.00, E = 3,600 + 2,900.
    expect((await reportLines(database, 'wip', '2031-02-17'))[0]).toMatch(
      /^J1,"Mill, east wall",11000\.00,6500\.00,4500\.00,40\.9091,3750\.00,57\.6923,/,
    );
  });
});

test('contract status: what was signed, the change, and how far the estimate is beyond the budget', async () => {
  // Signed 10,000.00 for 6,100.00; the change of 15 February adds 1,000.00 and costs 400.00; E is 6,725.50, as above.
  const row = '10000.00,6100.00,3900.00,1000.00,400.00,11000.00,6500.00,225.50,6725.50,4274.50';
  expect(await reportLines(database, 'contract-status', '2031-02-28')).toEqual([`J1,"Mill, east wall",${row}`, `TOTAL,,${row}`]);
  const months = await statusByMonth(reading(database), 'J1', '2031-02-17');
  // In the middle of February nothing is beyond the budget yet.
  expect(months.map((it) => [it.on, it.changesPrice, it.overrun, it.estimatedProfit])).toEqual([
    ['2031-02-17', 100_000, 0, 450_000],
    ['2031-01-31', 0, 0, 390_000],
  ]);
});

test('quantities: what a posting used counts, and cost without a quantity does not', async () => {
  const budget =
    'job,section,cost_code,cost_type,sov_line,quantity,unit,hours,amount\nJ1,A,100,labour,1,,,120,3600.00\nJ1,A,200,material,2,200,m2,,2500.00\n';
  const own = await databaseOf({ ...SMALL_BOOK, budget });
  // 2,900.00 with the change for 200 m2 is 14.50 each. Nothing that the book posted has a quantity.
  const untouched = 'A,200,material,m2,200,0,200,0,200,14.5000,,';
  expect(await reportLines(own, 'quantities', '2031-03-31', 'J1')).toEqual([untouched]);
  const line = { dated: '2031-03-05', job: 'J1', section: 'A', costCode: '200', costType: 'material' as const, party: 'P' };
  const more = { reference: 'R', hours: null, description: '', commitment: '', uninstalled: false };
  await act(own, TESTER, postCosts, { lines: [{ ...line, ...more, quantity: 600_000, amount: 90_000 }], asOf: '2031-03-31' });
  // 60 m2 for 900.00 are 15.00 each; at the budget they would be 870.00.
  const used = 'A,200,material,m2,200,0,200,60,140,14.5000,15.0000,30.00';
  expect(await reportLines(own, 'quantities', '2031-03-31', 'J1')).toEqual([used]);
  expect(await reportLines(own, 'quantities', '2031-03-04', 'J1')).toEqual([untouched]);
});

test('estimate versus actual: budget rows add up, the change, the forecast, the line without a budget', async () => {
  expect(await reportLines(database, 'estimate-vs-actual', '2031-02-28', 'J1')).toEqual([
    'A,100,labour,3600.00,0.00,3600.00,2250.00,0.00,3750.00,-150.00,120,90,yes',
    'A,200,material,2500.00,400.00,2900.00,1800.00,500.00,2900.00,0.00,0,0,yes',
    'A,900,other,0.00,0.00,0.00,75.50,0.00,75.50,-75.50,0,0,no',
    'TOTAL,,,6100.00,400.00,6500.00,4125.50,500.00,6725.50,-225.50,120,90,',
  ]);
});

describe('the second application', () => {
  test('line by line: 3,800.00 certified of 4,000.00 applied for', async () => {
    // Retention 5 %: 190.00 and 75.00. The new line stands there unbilled.
    expect(await reportLines(database, 'application', '2031-12-31', 'J1', 2)).toEqual([
      '1,A,Framing,6000.00,2000.00,1800.00,0.00,3800.00,63.3333,2200.00,190.00',
      '2,A,Panels,4000.00,500.00,1000.00,0.00,1500.00,37.5000,2500.00,75.00',
      '3,A,Louvres,1000.00,0.00,0.00,0.00,0.00,0.0000,1000.00,0.00',
      'TOTAL,,,11000.00,2500.00,2800.00,0.00,5300.00,48.1818,5700.00,265.00',
    ]);
  });

  test('its summary: net 5,035.00 less 2,565.00 certified before is 2,470.00, with VAT 2,964.00', async () => {
    expect(
      Object.fromEntries(
        (await reportLines(database, 'application-summary', '2031-12-31', 'J1', 2)).map((line) => line.split(',')),
      ),
    ).toEqual({
      original_contract_sum: '10000.00',
      change_orders: '1000.00',
      contract_sum: '11000.00',
      work_to_date: '5300.00',
      materials_on_site: '0.00',
      gross_to_date: '5300.00',
      retention: '265.00',
      retention_released: '0.00',
      net_to_date: '5035.00',
      previously_certified: '2565.00',
      due: '2470.00',
      tax: '494.00',
      payable: '2964.00',
      balance_to_complete: '5965.00',
    });
  });

  test('three days before it was certified it showed what was applied for', async () => {
    expect((await reportLines(database, 'application', '2031-02-25', 'J1', 2))[0]).toBe(
      '1,A,Framing,6000.00,2000.00,2000.00,0.00,4000.00,66.6667,2000.00,200.00',
    );
  });
});

test('hours by task: as budgeted, and then by the share that the forecast says is done', async () => {
  // January: 40 of 120 h, nothing forecast. February: 90 h at 60 % done make 150 in all, 60 to finish, 30 over.
  const hours = (asOf: string) => reportLines(database, 'labour-progress', asOf, 'J1');
  expect(await hours('2031-01-31')).toEqual(['A,100,120,40,33.3333,33.3333,80,120,0', 'TOTAL,,120,40,33.3333,33.3333,80,120,0']);
  expect(await hours('2031-02-28')).toEqual([
    'A,100,120,90,75.0000,60.0000,60,150,30',
    'TOTAL,,120,90,75.0000,60.0000,60,150,30',
  ]);
});

test('ageing at the end of March: 14 days after certification, retention on the last certified, the release by itself', async () => {
  // Application 2: 2,964.00 − 1,000.00 received, due 14 March, 17 days late. Held 265.00 − 100.00. Release 120.00, due 24 March.
  expect(await reportLines(database, 'ageing', '2031-03-31')).toEqual([
    'NORTH,J1,2,2031-02-25,2031-03-14,0.00,1964.00,0.00,0.00,0.00,165.00,2129.00',
    'NORTH,J1,Part release,2031-03-10,2031-03-24,0.00,120.00,0.00,0.00,0.00,0.00,120.00',
    'TOTAL,,,,,0.00,2084.00,0.00,0.00,0.00,165.00,2249.00',
  ]);
});

test('the trial balance at the end of March', async () => {
  // Receivable 3,078 + 2,964 + 120 − 4,078. Tax 513 + 494 + 20. Billings 2,700 + 2,600.
  expect(await reportLines(database, 'trial-balance', '2031-03-31')).toEqual([
    '1000,Bank,4078.00,0.00',
    '1100,Accounts receivable,2084.00,0.00',
    '1150,Retention receivable,165.00,0.00',
    '2200,Tax payable,0.00,1027.00',
    '2900,Job cost clearing,0.00,4125.50',
    '4000,Contract billings,0.00,5300.00',
    '5010,"Job cost, labour",2250.00,0.00',
    '5020,"Job cost, material",1800.00,0.00',
    '5050,"Job cost, other",75.50,0.00',
    'TOTAL,,10452.50,10452.50',
  ]);
});

test('the books tie on every day', async () => {
  for (const asOf of [
    '2031-01-01',
    '2031-01-31',
    '2031-02-05',
    '2031-02-20',
    '2031-02-28',
    '2031-03-10',
    '2031-03-20',
    '2031-12-31',
  ])
    expect(await differences(database, asOf)).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
});

test.each([
  ['wip', 'J9', undefined, /no job J9/],
  ['wip', 'J2', undefined, /tender/],
  ['application', 'J1', 9, /no application 9/],
  ['application-summary', 'J1', 3, /no application 3 by 2031-02-28/],
  ['application', 'J2', 1, /tender/],
] as const)('%s of job %s, application %s is refused', async (name, job, application, message) => {
  await expect(reportLines(database, name, '2031-02-28', job, application)).rejects.toThrow(message);
});
