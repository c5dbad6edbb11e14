import { JobTable } from '../jobs/models';
import { act, reading } from '../test/act';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import { LedrinError } from '../../core/errors/ledrinError';
import type { Database } from '../db/database';
import { loadBillingJobs } from '../billing/billingJobs';
import { billedBySchedule } from '../billing/billedBySchedule';
import { billingScheduleView } from './billingScheduleView';
import { planView } from '../screens/planView';
import { applicationView } from '../billing/applicationView';
import { jobView } from '../screens/jobView';
import { explain } from '../workings/explain';
import { billingRegister } from '../billing/billingRegister';
import { jobBilling } from '../billing/jobBilling';
import { cleanUp, differences, everything, faultsOf, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { BY_DAY, NOT_BEGUN } from '../test/wholeBook';
import { startApplication } from '../billing/applications';
import { certifyApplication } from '../billing/certify';
import { saveBillingSchedule } from './instalments';
import { saveInstalmentsAsSeen, savePlanAsSeen } from '../test/asSeen';

afterAll(cleanUp);

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  await savePlanAsSeen(database, 'J1', {
    sections: [{ ...NOT_BEGUN, name: 'A', startsOn: '2031-01-10', finishesOn: '2031-06-30' }],
    lines: [],
  });
});

// J1: 6,000.00 and 4,000.00, and from 15 February 1,000.00 of a change, all in A: 11,000.00.
const order = { ...BY_DAY, name: 'On order', day: '2031-01-31', rate: 400_000 };
const panels = { ...BY_DAY, name: 'Panels up', day: '2031-04-15', rate: 500_000 };
const done = { ...BY_DAY, name: 'Done', due: 'finish' as const, stages: ['A'], rate: 100_000 };
const INSTALMENTS: (typeof BY_DAY & { name: string })[] = [order, panels, done];
const saved = (instalments = INSTALMENTS) => saveInstalmentsAsSeen(database, 'J1', instalments);

test('a schedule is planned, due and billed by its days, with the contract of the day', async () => {
  await saved();
  const sql = reading(database);
  // By 31 January 40 % of the 10,000.00 there were; application 1 had 2,700.00.
  expect((await jobBilling(sql, 'J1', '2031-01-31')).schedule).toEqual({ due: 400_000, billed: 270_000 });
  // By April 90 % of 11,000.00; application 3 of March came to 7,250.00.
  expect((await jobBilling(sql, 'J1', '2031-04-30')).schedule).toEqual({ due: 990_000, billed: 725_000 });
  // Each figure of it opens, and comes to the same.
  const told = async (figure: string) => (await explain(sql, { figure, job: 'J1' }, '2031-04-30')).result;
  expect([await told('scheduleDue'), await told('scheduleApplied'), await told('scheduleToBill')]).toEqual([
    990_000, 725_000, 265_000,
  ]);
  expect((await billingRegister(sql, '2031-04-30')).unbilled.map((it) => [it.job, it.bySchedule])).toEqual([['J1', 265_000]]);
  expect((await jobView(sql, 'J1', '2031-01-31')).nextSteps.map((it) => it.text)).toContain(
    'An instalment of the billing schedule is due: start an application',
  );
  const months = (await planView(sql, 'J1', '2031-04-30')).months.filter((it) =>
    ['2031-01', '2031-04', '2031-06'].includes(it.month),
  );
  expect(months.map((it) => it.plannedBilling)).toEqual([440_000, 990_000, 1_100_000]);

  await act(database, TESTER, certifyApplication, 'J1', 3, { version: null, on: '2031-04-02', lines: [] });
  const next = { dated: '2031-04-30', reference: '', bySchedule: true };
  expect(await act(database, TESTER, startApplication, 'J1', next)).toBe(4);
  const { lines, summary } = await applicationView(sql, 'J1', 4, '2031-04-30');
  // 4,400.00 by 6 : 4 : 1, then 5,500.00 by what is left, 3,600 : 2,400 : 600.
  expect(lines.map((it) => [it.work, it.bySchedule])).toEqual([540_000, 360_000, 90_000].map((it) => [it, it]));
  // 9,900.00 less 5 % = 9,405.00; certified before 7,250.00 less 362.50.
  expect([summary.net, summary.due, summary.tax]).toEqual([940_500, 251_750, 50_350]);
  expect(await differences(database, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
});

test('what waits for a stage is due when the stage is really finished', async () => {
  await saved();
  const due = async (on: string) => (await jobBilling(reading(database), 'J1', on)).schedule!.due;
  expect(await due('2031-07-31')).toBe(990_000);
  const dates = { startsOn: '2031-01-10', finishesOn: '2031-06-30', startedOn: '2031-01-12', finishedOn: '2031-07-04' };
  await savePlanAsSeen(database, 'J1', { sections: [{ name: 'A', ...dates }], lines: [] });
  expect([await due('2031-07-03'), await due('2031-07-04')]).toEqual([990_000, 1_100_000]);
  const view = await billingScheduleView(reading(database), 'J1', '2031-04-30');
  expect([view.savedBy, view.stages.map((it) => [it.name, it.costs])]).toEqual([
    'tester',
    // Budget of A: 3,600.00 labour; material 2,500.00 and 400.00 of the change; other cost unbudgeted.
    [['A', { labour: 360_000, material: 290_000, other: 0 }]],
  ]);
  await expect(savePlanAsSeen(database, 'J1', { sections: [], lines: [] })).rejects.toThrow(
    'Section A is waited for by the instalment Done',
  );
});

test('a fixed amount that was billed stays on its lines when a change brings another', async () => {
  const amounts = [400_000, 400_000, 300_000];
  await saved(INSTALMENTS.map((it, i) => ({ ...it, rate: null, amount: amounts[i]! })));
  const job = (await loadBillingJobs(reading(database), 1)).get('J1')!;
  const billed = async (on: string) => [...(await billedBySchedule(reading(database), job, on))!.values()];
  // 4,000.00 by 6 : 4; then 15 February brings line 3. In April 4,000.00 by what is left, 3,600 : 2,400 : 1,000.
  expect(await billed('2031-01-31')).toEqual([240_000, 160_000]);
  expect(await billed('2031-02-28')).toEqual([240_000, 160_000, 0]);
  // 2,057.14…, 1,371.42… and 571.42…: the two odd pence to the larger remainders.
  expect(await billed('2031-04-15')).toEqual([240_000 + 205_714, 160_000 + 137_143, 57_143]);
});

describe('what does not hold', () => {
  test.each([
    ['too little', [order, panels], 'instalments', /9,900\.00.*11,000\.00; 1,100\.00 is still to be scheduled/],
    ['too much', [order, panels, { ...done, rate: 200_000 }], 'instalments.2.rate', /1,100\.00; bill that or less/],
    ['neither', [order, panels, { ...done, rate: null }], 'instalments.2.rate', /enter one of the two/],
    ['both', [{ ...order, amount: 1 }, panels, done], 'instalments.0.rate', /enter one of the two/],
    ['a day of a stage', [order, panels, { ...done, day: '2031-05-01' }], 'instalments.2.day', /take out the day/],
    ['days of a day', [{ ...order, days: 3 }, panels, done], 'instalments.0.days', /counted from a start/],
    ['a stage twice', [order, panels, { ...done, stages: ['A', 'A'] }], 'instalments.2.stages', /twice/],
    ['an unknown stage', [order, panels, { ...done, stages: ['Z'] }], 'instalments.2.stages', /no section Z/],
    ['stages without any', [{ ...order, from: 'stages' as const }, panels, done], 'instalments.0.stages', /name them/],
  ])('%s is told where it stands, and nothing is kept', async (_, instalments, field, message) => {
    const before = await everything(database);
    const fault = await saved(instalments).catch((error: unknown) => error as LedrinError);
    expect(fault).toBeInstanceOf(LedrinError);
    const { faults } = fault as LedrinError;
    expect([faults[0]!.field, faults[0]!.message]).toEqual([field, expect.stringMatching(message)]);
    expect(await everything(database)).toBe(before);
  });

  test('somebody else kept one since, the job is closed, or there is none to bill by', async () => {
    await expect(
      act(database, TESTER, startApplication, 'J1', { dated: '2031-04-30', reference: '', bySchedule: true }),
    ).rejects.toThrow();
    await saved();
    const { seen } = await billingScheduleView(reading(database), 'J1', '2031-04-30');
    await saved([...INSTALMENTS].reverse());
    await expect(act(database, TESTER, saveBillingSchedule, 'J1', { seen, instalments: [] })).rejects.toThrow(
      /This billing schedule changed after you opened it; tester saved here last, at 09:00 on 2031-05-02/,
    );
    await saved([]);
    expect((await jobBilling(reading(database), 'J1', '2031-04-30')).schedule).toBeNull();
    await act(database, TESTER, certifyApplication, 'J1', 3, { version: null, on: '2031-04-02', lines: [] });
    await expect(
      act(database, TESTER, startApplication, 'J1', { dated: '2031-04-30', reference: '', bySchedule: true }),
    ).rejects.toThrow('Job J1 has no billing schedule');
    await database.write((sql) => sql.update(JobTable, { number: 'J1' }, { locked: 1 }));
    await expect(saved()).rejects.toThrow('The job is locked; its billing schedule stays as it is');
    await expect(saveInstalmentsAsSeen(database, 'J2', INSTALMENTS)).rejects.toThrow();
  });
});
