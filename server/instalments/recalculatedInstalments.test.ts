import { reading } from '../test/act';
import { afterAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addDays } from '../../core/calendar/plainDate';
import { formatCents } from '../../core/money/cents';
import { cleanUp, faultsOf, SMALL_BOOK, temporaryDatabase } from '../test/books';
import { written } from '../test/exact';
import { InstalmentReckoner } from '../test/secondInstalmentCalculation';
import { bookText } from '../test/randomBook';
import type { Rows } from '../test/secondCalculation';
import { loadBillingJobs } from '../billing/billingJobs';
import { jobByNumber } from '../jobs/jobByNumber';
import { billedBySchedule, loadSchedule } from '../billing/billedBySchedule';
import { runs } from '../test/runs';

afterAll(cleanUp);

const day = fc.nat(300).map((n) => addDays('2031-01-01', n));
const maybe = <T>(it: fc.Arbitrary<T>) => fc.oneof(fc.constant(''), it);
const amount = (low: number, high: number) => fc.integer({ min: low, max: high }).map((n) => (n / 100).toFixed(2));
const stage = fc
  .record({ from: day, length: fc.nat(90), began: maybe(fc.nat(20)), took: maybe(fc.nat(120)), planned: fc.boolean() })
  .map(({ from, length, began, took, planned }) => ({
    starts_on: planned ? from : '',
    finishes_on: planned ? addDays(from, length) : '',
    started_on: began === '' ? '' : addDays(from, Number(began)),
    finished_on: began === '' || took === '' ? '' : addDays(from, Number(began) + Number(took)),
  }));
const instalment = fc.record({
  due: fc.constantFrom('', 'day', 'start', 'finish'),
  day: maybe(day),
  days: maybe(fc.integer({ min: -30, max: 60 }).map(String)),
  taken_from: fc.constantFrom('', 'job', 'stages'),
  stages: fc.subarray(['A', 'B', 'C']),
  percent: maybe(fc.integer({ min: 0, max: 700_000 }).map((n) => (n / 10_000).toString())),
  amount: amount(-20_000, 900_000),
});

/** A job with a schedule of values in two sections and none, changes, and a billing schedule, sensible or not. */
const book: fc.Arbitrary<Rows> = fc
  .record({
    status: fc.constantFrom('awarded', 'on-site'),
    dates: fc.record({ starts_on: maybe(fc.constant('2031-02-01')), finishes_on: maybe(fc.constant('2031-11-30')) }),
    sov: fc.array(fc.record({ section: fc.constantFrom('', 'A', 'B'), value: amount(1, 5_000_000) }), {
      minLength: 1,
      maxLength: 6,
    }),
    changes: fc.array(fc.record({ on: day, line: fc.nat(9), amount: amount(-100_000, 700_000) }), { maxLength: 3 }),
    stages: fc.tuple(stage, stage, stage),
    list: fc.array(instalment, { minLength: 1, maxLength: 7 }),
  })
  .map(({ status, dates, sov, changes, stages, list }) => ({
    company: [{ name: 'C', currency: 'GBP' }],
    customers: [{ customer: 'K', name: 'K' }],
    jobs: [{ job: 'J1', name: 'Random', customer: 'K', status, awarded_on: '2031-01-01', ...dates }],
    schedule_of_values: sov.map((it, i) => ({
      job: 'J1',
      sov_line: String(i + 1),
      section: it.section,
      description: 'x',
      scheduled_value: it.value,
    })),
    change_orders: changes.map((it, i) => ({
      job: 'J1',
      change_order: `C${i}`,
      title: 'x',
      status: 'approved',
      raised_on: '2031-01-01',
      decided_on: it.on,
    })),
    change_order_lines: changes.map((it, i) => ({
      job: 'J1',
      change_order: `C${i}`,
      side: 'price',
      sov_line: String(1 + (it.line % sov.length)),
      amount: it.amount,
    })),
    job_sections: ['A', 'B', 'C'].map((section, i) => ({ job: 'J1', section, ...stages[i]! })),
    billing_instalments: list.map((it, i) => {
      const onDay = (it.due || 'day') === 'day';
      const own = it.taken_from === 'stages' && it.stages.length === 0 ? 'job' : it.taken_from;
      return {
        job: 'J1',
        instalment: String(i + 1),
        name: 'x',
        due: it.due,
        day: onDay ? it.day : '',
        days: onDay ? '' : it.days,
        taken_from: own,
        percent: it.percent,
        amount: it.percent ? '' : it.amount,
      };
    }),
    instalment_stages: list.flatMap((it, i) => it.stages.map((section) => ({ job: 'J1', instalment: String(i + 1), section }))),
  }));

test('random billing schedules bill, line by line, what a second reckoning of the rules bills, on any day', async () => {
  let billed = 0;
  await fc.assert(
    fc.asyncProperty(book, fc.array(fc.nat(400), { minLength: 3, maxLength: 5 }), async (rows, days) => {
      const database = await temporaryDatabase();
      try {
        expect(await faultsOf(database, bookText(rows))).toEqual([]);
        const sql = reading(database);
        const { id } = await jobByNumber(sql, 'J1', 'job');
        const job = (await loadBillingJobs(sql, id)).get('J1')!;
        const reckoner = new InstalmentReckoner(rows, 'J1');
        const kept = await loadSchedule(sql, job, '2031-12-31');
        expect(kept!.days).toEqual(kept!.days.map((_, i) => reckoner.day(i)));
        for (const on of days.map((n) => addDays('2031-01-01', n))) {
          const ours = [...(await billedBySchedule(sql, job, on))!].map(([line, cents]) => [line, formatCents(cents, 2)]);
          expect([on, ours]).toEqual([on, [...reckoner.billed(on)].map(([line, it]) => [line, written(it)])]);
          billed += ours.filter(([, it]) => it !== '0.00').length;
        }
      } finally {
        await database.close();
      }
    }),
    { numRuns: runs(20) },
  );
  // Nothing but zeros would say little; how many there are is up to chance.
  expect(billed).toBeGreaterThan(15);
}, 900_000);

test('a job billed by per cent complete has no schedule', async () => {
  const database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  const job = (await loadBillingJobs(reading(database), 1)).get('J1')!;
  expect(await billedBySchedule(reading(database), job, '2031-04-30')).toBeNull();
});
