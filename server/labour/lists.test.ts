import { afterAll, beforeEach, expect, test } from '@jest/globals';
import type { LabourListInput } from '../../wire/labourLists';
import type { Database } from '../db/database';
import { act, reading } from '../test/act';
import { cleanUp, faultsOf, LABOUR_TERMS, SMALL_BOOK, temporaryDatabase, TESTER, TIME_HEAD } from '../test/books';
import { findRate } from './findRate';
import { labourList, planList, saveList } from './saveList';

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
});
afterAll(cleanUp);

/** A line of 9.5 h of E1 on 3 March is posted, and one of E2 with a class of the employee's own. */
const TIME = `${TIME_HEAD}7,1,E1,2031-03-03,,J1,A,100,,,,9.5,,,\n7,2,E2,2031-03-03,,,,,,,,4,,,\n`;
const book = (more: Record<string, string> = {}) => ({ ...SMALL_BOOK, ...LABOUR_TERMS, time: TIME, ...more });

type Row = Record<string, unknown> & { id: number | null };
const rowsOf = async (list: string) => (await labourList(reading(database), list)) as unknown as { seen: string; rows: Row[] };

async function save(list: LabourListInput['list'], change: (rows: Row[]) => Row[]) {
  const { seen, rows } = await rowsOf(list);
  return act(database, TESTER, saveList, { list, seen, rows: change(rows) } as unknown as LabourListInput);
}
const faultsOfSaving = (list: LabourListInput['list'], change: (rows: Row[]) => Row[]) =>
  save(list, change).then(
    () => [],
    (error: { faults: { field: string; message: string }[] }) => error.faults.map((it) => `${it.field}: ${it.message}`),
  );

test('a list is changed, added to and removed from, and two employees exchange their codes', async () => {
  expect(await faultsOf(database, book())).toEqual([]);
  const [first, second] = (await rowsOf('employees')).rows;
  await save('employees', ([ann, ben]) => [
    { ...ann!, employee: 'E2', payrollNumber: '17' },
    { ...ben!, employee: 'E1' },
    { ...ben!, id: null, employee: 'E3', name: 'Cy Cole' },
  ]);
  const { rows, seen } = await rowsOf('employees');
  expect(rows.map((it) => [it.id, it.employee, it.name, it.payrollNumber])).toEqual([
    [first?.id, 'E2', 'Ann Ash', '17'],
    [second?.id, 'E1', 'Ben Birch', ''],
    [expect.any(Number), 'E3', 'Cy Cole', ''],
  ]);
  // What refers to them follows: the rate of 22.50 is Ann's still.
  expect((await rowsOf('pay-rates')).rows[0]).toMatchObject({ employee: 'E2', rate: 225_000 });
  // Who saved in between is not written over.
  await save('employees', (all) => all.slice(0, 2));
  await expect(
    act(database, TESTER, saveList, { list: 'employees', seen, ratesFrom: null, rows: rows as never }),
  ).rejects.toMatchObject({
    code: 'conflict',
  });
});

test('wrong cells are named by row and column, and nothing is saved', async () => {
  expect(await faultsOf(database, book())).toEqual([]);
  const rate = {
    id: null,
    from: '2031-05-01',
    job: '',
    section: '',
    workKind: '',
    wageClass: '',
    employee: '',
    rate: 1,
    atLeast: false,
  };
  expect(
    await faultsOfSaving('pay-rates', (rows) => [
      ...rows,
      rate,
      { ...rate, employee: 'E9' },
      { ...rate, from: '2031-01-01', employee: 'E1' },
    ]),
  ).toEqual([
    'rows.4.employee: duplicate key: 2031-01-01, E1 is already there',
    expect.stringContaining('rows.2.employee: the filled cells make no rung'),
    'rows.3.employee: unknown reference: there is no employee E9',
  ]);
  expect((await rowsOf('pay-rates')).rows).toHaveLength(2);
});

test('what is posted keeps its price: rates, burdens, rules and employees that would alter it are refused', async () => {
  expect(await faultsOf(database, book())).toEqual([]);
  expect(await faultsOfSaving('pay-rates', ([ann, ...rest]) => [{ ...ann!, rate: 230_000 }, ...rest])).toEqual([
    'rows.0.from: This would alter time that is posted: 7/1/regular of 2031-03-03, 7/1/overtime of 2031-03-03',
  ]);
  expect(await faultsOfSaving('pay-rates', (rows) => rows.slice(1))).toEqual([
    'rows: This would alter time that is posted: 7/1/regular of 2031-03-03, 7/1/overtime of 2031-03-03',
  ]);
  // 4 h at 18.00: 19 % are 13.68, not 12.96.
  expect(await faultsOfSaving('burdens', ([it]) => [it!, { ...it!, id: null, wageClass: 'mate', percent: 190_000 }])).toEqual([
    'rows.1.from: This would alter time that is posted: 7/2/regular of 2031-03-03',
  ]);
  expect(await faultsOfSaving('overtime-rules', ([it]) => [{ ...it!, dailyAfter: 90_000 }])).toEqual([
    'rows.0.from: This would alter time that is posted: 7/1/regular of 2031-03-03, 7/1/overtime of 2031-03-03, 7/2/regular of 2031-03-03',
  ]);
  expect(
    await faultsOfSaving('employees', ([ann, ben]) => [
      { ...ann!, endsOn: '2031-03-02' },
      { ...ben!, wageClass: 'fitter' },
    ]),
  ).toEqual([
    'rows.0.endsOn: there is time until 2031-03-03',
    'rows.1.wageClass: posted time has this class and keeps it; give new lines of time a class of their own',
  ]);
  expect(await faultsOfSaving('employees', ([ann]) => [ann!])).toEqual([
    'rows: The employee E2 stays: rates or time name it, 1 times in all',
  ]);
  // From the next day on everything may be otherwise.
  const later = { from: '2031-03-04' };
  expect(await faultsOfSaving('pay-rates', (rows) => [...rows, { ...rows[0]!, ...later, id: null, rate: 230_000 }])).toEqual([]);
  expect(
    await faultsOfSaving('overtime-rules', (rows) => [...rows, { ...rows[0]!, ...later, id: null, dailyAfter: 90_000 }]),
  ).toEqual([]);
  const body = { list: 'burdens', ...(await rowsOf('burdens')) } as unknown as LabourListInput;
  expect((await planList(reading(database), body)).changes).toEqual([]);
});

test('the rate finder says which rung wins, and what became of the others', async () => {
  const rates = `from,job,section,work_kind,wage_class,employee,rate,at_least
2031-01-01,J1,,,fitter,,21.00,yes
2031-01-01,,,weld,fitter,,24.00,
2031-01-01,,,,,E1,22.50,
`;
  expect(await faultsOf(database, book({ pay_rates: rates, time: TIME_HEAD }))).toEqual([]);
  const asked = { employee: 'E1', job: 'J1', section: 'A', workKind: 'weld', wageClass: '', on: '2031-03-03' };
  const found = await findRate(reading(database), asked);
  // The job pays at least 21.00; welding of a fitter 24.00, before the 22.50 of her own.
  expect([found.rate, found.rung]).toEqual([240_000, 'kind-class']);
  expect(found.looked.map((it) => [it.rung, it.found?.rate ?? null, it.outcome])).toEqual([
    ['job-section', null, 'nothing'],
    ['job', 210_000, 'lower'],
    ['kind-employee', null, 'nothing'],
    ['kind-class', 240_000, 'taken'],
    ['employee', 225_000, 'not-reached'],
    ['class', null, 'nothing'],
  ]);
  // 24.00; 18 % are 4.32, and 0.85. Overtime 36.00, the burden without the premium.
  expect(found.costs.map((it) => [it.pay, it.payAmount, it.burden])).toEqual([
    ['regular', 2400, 517],
    ['overtime', 3600, 517],
    ['double', 4800, 517],
  ]);
  const mate = await findRate(reading(database), { ...asked, employee: 'E2' });
  expect([mate.rate, mate.costs, mate.looked.map((it) => it.outcome)]).toEqual([null, [], Array(6).fill('nothing')]);
});

test('once wage classes are a list, it has every class that is used, and what names a class names one of it', async () => {
  expect(await faultsOf(database, book())).toEqual([]);
  const mate = { id: null, wageClass: 'mate', description: '' };
  // E1 is a fitter; the employees and the rate of E2 name mate.
  expect(await faultsOfSaving('wage-classes', () => [mate])).toEqual([
    'rows: The list needs wage class fitter: employees name it',
  ]);
  await save('wage-classes', () => [mate, { id: null, wageClass: 'fitter', description: 'Qualified' }]);
  const other = ([ann, ...rest]: Row[]) => [
    { ...ann!, payrollNumber: '9' },
    ...rest.map((it) => ({ ...it, wageClass: 'rigger' })),
  ];
  expect(await faultsOfSaving('employees', other)).toContain(
    'rows.1.wageClass: unknown reference: there is no wage class rigger',
  );
  await save('wage-classes', (all) => [...all, { id: null, wageClass: 'rigger', description: '' }]);
  expect(await faultsOfSaving('wage-classes', (all) => all.filter((it) => it.wageClass !== 'mate'))).toEqual([
    'rows: The list needs wage class mate: employees, pay rates name it',
  ]);
  // A book is judged by the list as well; a database without one takes any class.
  const rates = 'from,job,section,work_kind,wage_class,employee,rate,at_least\n2032-01-01,,,,welder,,20,\n';
  expect(await faultsOf(database, { pay_rates: rates })).toEqual(['pay_rates:2:wage_class']);
  expect(await faultsOf(await temporaryDatabase(), { ...SMALL_BOOK, ...LABOUR_TERMS, pay_rates: rates })).toEqual([]);
});

const costs = (employee: string, costsAnHour: number | null) => (rows: Row[]) =>
  rows.map((it) => (it.employee === employee ? { ...it, costsAnHour } : it));
const plainRates = async () =>
  (await rowsOf('pay-rates')).rows.flatMap((it) => (it.employee ? [[it.from, it.employee, it.rate]] : []));
async function saveEmployees(change: (rows: Row[]) => Row[], ratesFrom: string | null) {
  const { seen, rows } = await rowsOf('employees');
  return act(database, TESTER, saveList, {
    list: 'employees',
    seen,
    ratesFrom,
    rows: change(rows),
  } as unknown as LabourListInput);
}

test('what an employee costs an hour stands beside the name: another rate counts from the day that is said, a first one from the first day', async () => {
  expect(await faultsOf(database, book())).toEqual([]);
  const beside = async () => (await rowsOf('employees')).rows.map((it) => [it.employee, it.costsAnHour]);
  expect(await beside()).toEqual([
    ['E1', 225_000],
    ['E2', null],
  ]);
  const added = { id: null, name: 'Cy Cole', wageClass: '', endsOn: null, payrollNumber: '', department: '' };
  await saveEmployees(
    (rows) => [
      ...costs('E1', 240_000)(rows),
      { ...added, employee: 'E3', startsOn: '2031-02-10', costsAnHour: 200_000 },
      { ...added, employee: 'E4', startsOn: null, costsAnHour: 210_000 },
    ],
    '2031-04-01',
  );
  expect(await plainRates()).toEqual([
    ['2031-01-01', 'E1', 225_000],
    ['2031-04-01', 'E1', 240_000],
    ['2031-02-10', 'E3', 200_000],
    ['2000-01-01', 'E4', 210_000],
  ]);
  // Left out, it stays; said again from the same day, it is that rate and no second one.
  await saveEmployees(
    (rows) => rows.map(({ costsAnHour: _saved, ...it }) => (it.employee === 'E1' ? { ...it, costsAnHour: 241_000 } : it)),
    '2031-04-01',
  );
  expect((await plainRates()).filter(([, employee]) => employee === 'E1')).toEqual([
    ['2031-01-01', 'E1', 225_000],
    ['2031-04-01', 'E1', 241_000],
  ]);
});

test('a rate that would alter posted time is refused at its employee, and nothing is saved; with posted time even a first one counts from the day said', async () => {
  expect(await faultsOf(database, book())).toEqual([]);
  const refused = (work: Promise<unknown>) =>
    work.then(
      () => [],
      (error: { faults: { field: string }[] }) => error.faults.map((it) => it.field),
    );
  expect(await refused(saveEmployees(costs('E1', 240_000), '2031-03-01'))).toEqual(['rows.0.costsAnHour']);
  expect(await refused(saveEmployees(costs('E2', 190_000), '2031-03-03'))).toEqual(['rows.1.costsAnHour']);
  expect(await refused(saveEmployees(costs('E1', null), '2031-04-01'))).toEqual(['rows.0.costsAnHour']);
  expect(await plainRates()).toEqual([['2031-01-01', 'E1', 225_000]]);
  // Ben, a mate at 18.00 so far, was posted on 3 March.
  await saveEmployees(costs('E2', 190_000), '2031-03-04');
  expect((await plainRates()).at(-1)).toEqual(['2031-03-04', 'E2', 190_000]);
});
