import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { addDays, lastDay } from '../../core/calendar/plainDate';
import { AGEING_FIGURE_NAMES, AGEING_FIGURES } from '../../core/billing/ageingFigures';
import { SUMMARY_FIGURE_NAMES, SUMMARY_FIGURES } from '../../core/billing/summaryFigures';
import { LINE_FIGURE_NAMES, LINE_FIGURES } from '../../core/forecast/lineFigures';
import { STATUS_FIGURE_NAMES, STATUS_FIGURES } from '../../core/progress/contractStatus';
import { statusName } from '../../core/workings/contractStatusWorkings';
import { QUANTITY_FIGURES } from '../../core/forecast/quantities';
import { quantityLines } from '../costs/lineQuantities';
import { REPORT_FIGURES } from '../../core/progress/figures';
import type { Database } from '../db/database';
import { REPORTS } from '../reports/index';
import { cleanUp, faultsOf, folderText, temporaryDatabase } from '../test/books';
import { estimateView } from '../screens/jobView';
import { JobTable } from '../jobs/models';
import { ApplicationTable } from '../billing/models';
import { known, present } from '../../core/errors/known';
import type { Workings } from '../../core/workings/workings';
import { loadBillingJob } from '../billing/billingJobs';
import { jobByNumber } from '../jobs/jobByNumber';
import { explain, FIGURE_FAMILIES } from './explain';

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
        for (const { figure, column } of REPORT_FIGURES) {
          const of = row.job === 'TOTAL' ? { figure } : { figure, job: String(row.job) };
          expect([asOf, row.job, figure, (await explain(sql, of, asOf)).result]).toEqual([asOf, row.job, figure, row[column]]);
          compared += 1;
        }
    });
  }
  expect(compared).toBeGreaterThan(1500);
});

test('every figure of the contract status is what its workings come to and add up to; what work in progress has as well is the same', async () => {
  let summed = 0;
  for (const asOf of days().slice(-5))
    await demo.read(async (sql) => {
      const [status, wip] = [await REPORTS['contract-status'](sql, { asOf }), await REPORTS.wip(sql, { asOf })];
      expect(status.rows.map((it) => it.job)).toEqual(wip.rows.map((it) => it.job));
      for (const [i, row] of status.rows.entries()) {
        const at = [asOf, row.job];
        const [cost, changes, overrun] = [Number(row.original_cost), Number(row.changes_cost), Number(row.overrun)];
        expect([...at, cost + changes + overrun]).toEqual([...at, row.estimated_cost]);
        for (const name of STATUS_FIGURE_NAMES) {
          const { column, same } = STATUS_FIGURES[name];
          if (same !== null) expect([...at, name, row[column]]).toEqual([...at, name, present(wip.rows[i])[column]]);
          const figure = statusName(name);
          const workings = await explain(sql, row.job === 'TOTAL' ? { figure } : { figure, job: String(row.job) }, asOf);
          expect([...at, name, workings.result, added(workings)]).toEqual([...at, name, row[column], row[column]]);
          summed += 1;
        }
      }
    });
  expect(summed).toBeGreaterThan(300);
});

/** What the operands come to where they are only added and taken off; null where a rule multiplies, divides or compares. */
function added({ operands }: Workings): number | null {
  if (operands.some((it, i) => it.unit === 'text' || it.unit === 'percent' || (i > 0 && !['+', '−'].includes(it.sign))))
    return null;
  return operands.reduce((total, it) => total + (it.sign === '−' ? -1 : 1) * Number(it.value), 0);
}

test('every figure of an application is in its summary report what its workings come to, and the operands add up to it', async () => {
  let summed = 0;
  await demo.read(async (sql) => {
    const applications = await sql.find(ApplicationTable, {});
    const jobs = new Map((await sql.find(JobTable, {})).map((it) => [it.id, it.number]));
    for (const { job_id, number, dated } of applications) {
      const job = known(jobs, job_id);
      const { rows } = await REPORTS['application-summary'](sql, { asOf: dated, job, application: number });
      const reported = new Map(rows.map((row) => [row.item, row.amount]));
      for (const figure of SUMMARY_FIGURE_NAMES) {
        const workings = await explain(sql, { figure, job, application: number }, dated);
        const at = [job, number, figure];
        expect([...at, workings.result]).toEqual([...at, reported.get(SUMMARY_FIGURES[figure].item)]);
        const sum = added(workings);
        if (sum === null || figure === 'retention') continue;
        expect([...at, sum]).toEqual([...at, workings.result]);
        summed += 1;
      }
    }
  });
  expect(summed).toBeGreaterThan(800);
});

test('every figure of estimate versus actual adds up: the lines to the total, and the operands to the line', async () => {
  let summed = 0;
  for (const asOf of days().slice(-4))
    await demo.read(async (sql) => {
      for (const { number: job } of await sql.find(JobTable, {})) {
        const { lines } = await estimateView(sql, job, asOf);
        for (const figure of LINE_FIGURE_NAMES) {
          const { key } = LINE_FIGURES[figure];
          const at = [asOf, job, figure];
          const total = await explain(sql, { figure, job }, asOf);
          expect([...at, total.result, added(total)]).toEqual([...at, lines.reduce((sum, it) => sum + it[key], 0), total.result]);
          const [line] = lines;
          if (!line) continue;
          const workings = await explain(sql, { figure, job, line: line.id }, asOf);
          expect([...at, workings.result]).toEqual([...at, line[key]]);
          const sum = added(workings);
          if (sum === null || figure === 'lineEstimate') continue;
          expect([...at, sum]).toEqual([...at, workings.result]);
          summed += 1;
        }
      }
    });
  expect(summed).toBeGreaterThan(200);
});

test('every figure by quantity is in the report what its workings come to, and what is used and left adds up to what was budgeted', async () => {
  let compared = 0;
  await demo.read(async (sql) => {
    for (const { number: job } of await sql.find(JobTable, {})) {
      const { rows } = await REPORTS.quantities(sql, { asOf: '2031-04-30', job });
      const lines = await quantityLines(sql, await jobByNumber(sql, job, 'job'), '2031-04-30');
      for (const [i, row] of rows.entries()) {
        expect(Number(row.used) + Number(row.left)).toBe(Number(row.budgeted) + Number(row.changes));
        for (const [figure, { column, unit }] of Object.entries(QUANTITY_FIGURES)) {
          const workings = await explain(sql, { figure, job, line: present(lines[i]).id }, '2031-04-30');
          expect([job, figure, workings.result]).toEqual([job, figure, row[column] === '' ? 0 : row[column]]);
          const sum = added(workings);
          if (sum !== null && unit !== 'unit-cost') expect([job, figure, sum]).toEqual([job, figure, workings.result]);
          compared += 1;
        }
      }
    }
  });
  expect(compared).toBeGreaterThan(50);
});

test('every figure of the ageing is what its workings come to, and each invoice adds up: what is open and what is held', async () => {
  let compared = 0;
  for (const asOf of days())
    await demo.read(async (sql) => {
      const { rows } = await REPORTS.ageing(sql, { asOf });
      for (const row of rows.slice(0, -1)) {
        const [job, invoice, amounts] = [String(row.job), String(row.application), amountsOf(row)];
        const of = /^\d+$/.test(invoice)
          ? { figure: 'applicationOpen', job, application: Number(invoice) }
          : { figure: 'releaseOpen', job, release: invoice };
        const at = [asOf, job, invoice];
        expect([...at, amounts.open + amounts.held]).toEqual([...at, row.total]);
        if (amounts.open !== 0) expect([...at, (await explain(sql, of, asOf)).result]).toEqual([...at, amounts.open]);
        if (amounts.held !== 0)
          expect([...at, (await explain(sql, { figure: 'retentionHeld', job }, asOf)).result]).toEqual([...at, amounts.held]);
        compared += 1;
      }
    });
  expect(compared).toBeGreaterThan(150);
});

/** What the figures of an invoice come to, by what explains them. */
function amountsOf(row: Record<string, string | number>): { open: number; held: number } {
  const sums = { open: 0, held: 0 };
  for (const name of AGEING_FIGURE_NAMES) {
    const { column, explainedBy } = AGEING_FIGURES[name];
    if (explainedBy) sums[explainedBy] += Number(row[column]);
  }
  return sums;
}

test('every figure that is registered explains itself, and none is registered twice', async () => {
  const names = FIGURE_FAMILIES.flatMap(({ of, figures }) => figures.map((it) => `${of} ${it}`));
  expect(new Set(names).size).toBe(names.length);
  await demo.read(async (sql) => {
    const [sovLine] = (await loadBillingJob(sql, (await jobByNumber(sql, '2101', 'job')).id)).sovLines;
    const [byQuantity] = await quantityLines(sql, await jobByNumber(sql, '2101', 'job'), '2031-04-30');
    const refs = {
      'all jobs': {},
      job: { job: '2101', sovLine: present(sovLine).line },
      application: { job: '2101', application: 1, sovLine: present(sovLine).line },
    };
    for (const { of, figures } of FIGURE_FAMILIES)
      for (const figure of figures) {
        const line = Object.hasOwn(QUANTITY_FIGURES, figure) ? { line: present(byQuantity).id } : {};
        const { title, rule, subject } = await explain(sql, { figure, ...refs[of], ...line }, '2031-04-30');
        expect([figure, title !== '', rule.endsWith('.'), subject !== '']).toEqual([figure, true, true, true]);
      }
    await expect(explain(sql, { figure: 'none', job: '2101' }, '2031-04-30')).rejects.toThrow(
      'There is no figure "none" to explain',
    );
  });
});
