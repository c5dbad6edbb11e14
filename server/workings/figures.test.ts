import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { addDays, lastDay } from '../../core/calendar/plainDate';
import { PROGRESS_FIGURES } from '../../core/progress/figures';
import type { Database } from '../db/database';
import { REPORTS } from '../reports/index';
import { cleanUp, faultsOf, folderText, temporaryDatabase } from '../test/books';
import { explain } from './explain';

let demo: Database;

beforeAll(async () => {
  demo = await temporaryDatabase();
  expect(await faultsOf(demo, folderText('demo/book'))).toEqual([]);
});
afterAll(cleanUp);

/** Days of the sample book: the ends of months, and days within; every one of its last year where the deep tests run. */
function days(): string[] {
  const first = '2030-05-01';
  const all = Array.from({ length: 365 }, (_, i) => addDays(first, i));
  return process.env.LEDRIN_DEEP_TESTS ? all : all.filter((day, i) => day === lastDay(day.slice(0, 7)) || i % 91 === 40);
}

test('every figure of work in progress is on the report what its workings come to, of each job and of all', async () => {
  let compared = 0;
  for (const asOf of days()) {
    await demo.read(async (sql) => {
      const { rows } = await REPORTS.wip(sql, { asOf });
      for (const row of rows)
        for (const [figure, { column }] of Object.entries(PROGRESS_FIGURES)) {
          const of = row.job === 'TOTAL' ? { figure } : { figure, job: String(row.job) };
          expect([asOf, row.job, figure, (await explain(sql, of, asOf)).result]).toEqual([asOf, row.job, figure, row[column]]);
          compared += 1;
        }
    });
  }
  expect(compared).toBeGreaterThan(1500);
});
