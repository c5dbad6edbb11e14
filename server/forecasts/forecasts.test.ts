import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { estimateAtCompletion } from '../../core/forecast/estimateAtCompletion';
import { withForecast } from '../../core/forecast/typedForecast';
import type { ForecastInput, ForecastView } from '../../wire/forecasts';
import type { Database } from '../db/database';
import { jobByNumber } from '../jobs/jobByNumber';
import { estimatedLines } from '../costs/estimatedLines';
import { act, reading } from '../test/act';
import { cleanUp, faultsOf, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { forecastView, saveForecast } from './forecasts';

afterAll(cleanUp);

let database: Database;
beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
});

const ON = '2031-03-31';
const view = (on = ON) => forecastView(reading(database), 'J1', on);
const line = (costType: ForecastInput['lines'][number]['costType'], more: Partial<ForecastInput['lines'][number]> = {}) => ({
  section: 'A',
  costCode: costType === 'labour' ? '100' : '200',
  costType,
  method: 'to-complete' as const,
  value: 250_000,
  note: '',
  ...more,
});
const save = async (lines: ForecastInput['lines'], seen?: string) =>
  act(database, TESTER, saveForecast, 'J1', { seen: seen ?? (await view()).seen, on: ON, lines });
const of = ({ lines }: ForecastView, type: string) => lines.find((it) => it.costType === type)!;

test('what is said is kept with its note, comes to what the page worked out, and what was said before stays beside it', async () => {
  const before = await view();
  await save([line('labour', { method: 'percent', value: 800_000, note: 'Two weeks behind' }), line('material')]);
  const after = await view();
  expect(of(after, 'labour').entered).toEqual({ method: 'percent', value: 800_000, note: 'Two weeks behind' });
  expect(after.lines.map((it) => [it.state, it.before, it.lastMonth])).toEqual(
    before.lines.map((it) => [it.state, it.before, it.lastMonth]),
  );
  const sql = reading(database);
  const reported = await estimatedLines(sql, await jobByNumber(sql, 'J1', 'job'), ON);
  expect(after.lines.map((it) => estimateAtCompletion(withForecast(it.state, it.entered, ON), false).amount)).toEqual(
    reported.map((it) => it.estimate.amount),
  );
  // 2,250.00 spent on labour at 80 %: 2,812.50.
  expect(reported.find((it) => it.costType === 'labour')!.estimate.amount).toBe(281_250);
  const april = await view('2031-04-30');
  expect([of(april, 'labour').entered, of(april, 'labour').before]).toEqual([
    null,
    { method: 'percent', value: 800_000, note: 'Two weeks behind', on: ON },
  ]);
  expect(of(april, 'labour').lastMonth).toBe(281_250);
});

test('last month’s margin is of the contract as it stood then: a change of 1,000.00 was approved on 15 February', async () => {
  const february = await view('2031-02-28');
  const march = await view('2031-03-31');
  expect([february.contractSum - february.contractSumLastMonth, march.contractSum - march.contractSumLastMonth]).toEqual([
    100_000, 0,
  ]);
});

test('saved again without a line, that line has no forecast of the day any more', async () => {
  await save([line('material', { value: 1 })]);
  const { lines } = await view();
  expect(lines.map((it) => it.entered?.value ?? null)).toEqual(lines.map((it) => (it.costType === 'material' ? 1 : null)));
});

test('what somebody saved meanwhile is not written over; a line said twice, or of nothing, is told at its place', async () => {
  const { seen } = await view();
  await save([line('labour')]);
  await expect(save([line('material')], seen)).rejects.toMatchObject({ code: 'conflict' });
  const wrong = save([
    line('labour'),
    line('labour'),
    line('labour', { section: 'New', method: 'percent', value: 1 }),
    line('material', { costCode: '999' }),
  ]);
  await expect(wrong).rejects.toMatchObject({
    faults: ['lines.1.costCode', 'lines.2.value', 'lines.3.costCode'].map((field) => ({ field, message: expect.any(String) })),
  });
  expect(of(await view(), 'labour').entered?.value).toBe(250_000);
});
