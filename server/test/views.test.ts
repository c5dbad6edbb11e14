import { act, reading } from './act';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { certifyApplication } from '../billing/certify';
import { cleanUp, databaseOf, faultsOf, folderText, SMALL_BOOK, temporaryDatabase, TESTER } from './books';
import { explain } from '../workings/explain';
import { applicationView } from '../billing/applicationView';
import { agedInvoices } from '../billing/invoices';
import { billingRegister } from '../billing/billingRegister';
import { jobBilling } from '../billing/jobBilling';
import { estimateView, jobView } from '../screens/jobView';

let small: Database;
let demo: Database;

beforeAll(async () => {
  [small, demo] = [await databaseOf(SMALL_BOOK), await databaseOf(folderText('demo/book'))];
});
afterAll(cleanUp);

describe("a job's page", () => {
  test('has its schedule as of the month, with what is billed on each line', async () => {
    const january = await jobView(reading(small), 'J1', '2031-01-31');
    expect(january.sov.map((it) => [it.line, it.scheduledToDate, it.billed])).toEqual([
      ['1', 600_000, 0],
      ['2', 400_000, 0],
    ]);
    const march = await jobView(reading(small), 'J1', '2031-03-31');
    expect(march.sov.map((it) => [it.line, it.scheduledToDate, it.changes, it.billed])).toEqual([
      ['1', 600_000, 0, 380_000],
      ['2', 400_000, 0, 150_000],
      ['3', 100_000, 100_000, 0],
    ]);
    expect([march.open, march.overdue, march.retentionHeld, march.pendingChanges]).toEqual([208_400, 208_400, 16_500, 70_000]);
  });

  test('tells the change orders as they stood', async () => {
    const before = await jobView(reading(small), 'J1', '2031-02-14');
    expect(before.changeOrders).toMatchObject([
      { number: 'C1', status: 'issued', decidedOn: null, price: 100_000, cost: 40_000 },
    ]);
    const after = await jobView(reading(small), 'J1', '2031-02-28');
    expect(after.changeOrders.map((it) => [it.number, it.status])).toEqual([
      ['C1', 'approved'],
      ['C2', 'issued'],
    ]);
  });

  test('leads to what waits', async () => {
    const texts = async (asOf: string, job = 'J1') => (await jobView(reading(small), job, asOf)).nextSteps.map((it) => it.text);
    expect(await texts('2031-03-31')).toEqual([
      'Application 3: awaiting certificate',
      'Overdue payment: chase',
      '1 line has cost and no budget: check coding',
      '1 budget line runs over',
      '1 change order awaiting approval',
    ]);
    expect(await texts('2031-04-30')).toContain('Application due this month');
    expect(await texts('2031-03-31', 'J2')).toEqual(['A tender without an estimate: price it']);
    // Of the sample company: the client of 2110 asked about CO1 on 28 April, and nobody has answered.
    const asked = async (asOf: string) => (await jobView(reading(demo), '2110', asOf)).nextSteps[0];
    expect(await asked('2031-04-28')).toEqual({
      text: 'Hester Lowe asks about CO1: answer',
      to: { place: 'change', job: '2110', document: 'CO1' },
    });
    expect((await asked('2031-04-27'))!.text).not.toMatch(/asks/);
  });

  test('has cost and billing to the end of every month', async () => {
    const { months } = await jobView(reading(small), 'J1', '2031-03-31');
    expect(months).toEqual([
      { month: '2031-01', cost: 250_000, billed: 0, budget: 610_000 },
      { month: '2031-02', cost: 412_550, billed: 530_000, budget: 610_000 },
      { month: '2031-03', cost: 412_550, billed: 530_000, budget: 610_000 },
    ]);
  });
});

describe('revenue beside cost', () => {
  test('each SOV line with the cost of the budget lines that serve it', async () => {
    const { revenue } = await estimateView(reading(small), 'J1', '2031-02-28');
    // Labour serves line 1 alone, material line 2 alone; the new line has no budget that names it.
    expect(revenue.map((it) => [it.line, it.scheduled, it.revised, it.actual, it.estimate])).toEqual([
      ['1', 600_000, 360_000, 225_000, 375_000],
      ['2', 400_000, 290_000, 180_000, 290_000],
      ['3', 100_000, 0, 0, 0],
    ]);
  });
});

describe('an application on the screen', () => {
  test('says what cost has earned beside what is billed', async () => {
    const view = await applicationView(reading(small), 'J1', 3, '2031-03-31');
    // Line 1: 6,000 × 2,250 ÷ 3,750 = 3,600.00. Line 2: 4,000 × 1,800 ÷ 2,900 = 2,482.76.
    expect(view.lines.map((it) => [it.line, it.work, it.previousWork, it.earnedByCost])).toEqual([
      ['1', 500_000, 380_000, 360_000],
      ['2', 200_000, 150_000, 248_276],
      ['3', 25_000, 0, null],
    ]);
    expect(Object.entries(view.refused).flatMap(([move, why]) => (why === null ? [move] : []))).toEqual(['return', 'certify']);
    expect(view.journal!.lines.reduce((sum, it) => sum + it.debit - it.credit, 0)).toBe(0);
  });

  test('what cost has earned is of its own day, whenever it is looked at, and so are its workings', async () => {
    const [then, later] = [
      await applicationView(reading(small), 'J1', 1, '2031-01-31'),
      await applicationView(reading(small), 'J1', 1, '2031-12-31'),
    ];
    expect(later.lines.map((it) => it.earnedByCost)).toEqual(then.lines.map((it) => it.earnedByCost));
    const ref = { figure: 'sovLineEarned', job: 'J1', sovLine: '1', on: then.dated };
    const worked = await explain(reading(small), ref, '2031-12-31');
    expect(worked.result).toBe(then.lines[0]!.earnedByCost);
    expect(worked.operands.map((it) => it.figure?.on)).toEqual(worked.operands.map(() => then.dated));
  });

  test('certified after the month shown is shown as it stood, and says so', async () => {
    const view = await applicationView(reading(small), 'J1', 2, '2031-02-27');
    expect(view).toMatchObject({ status: 'submitted', certifiedLater: '2031-02-28' });
    expect(view.refused.certify).toBe('Application 2 is certified; only a submitted one can be certified');
    expect([view.lines[0]!.work, view.summary.payable]).toEqual([400_000, view.summary.due + view.summary.tax]);
    expect((await explain(reading(small), { figure: 'payable', job: 'J1', application: 2 }, '2031-02-27')).result).toBe(
      view.summary.payable,
    );
  });

  test('keeps what was applied for beside what was certified', async () => {
    const view = await applicationView(reading(small), 'J1', 2, '2031-03-31');
    expect(view.lines[0]).toMatchObject({ work: 380_000, appliedWork: 400_000 });
    expect(view).toMatchObject({ received: 100_000, dueOn: '2031-03-14', refused: { receive: null } });
  });
});

describe('the billing register', () => {
  test('has what is open or in work, and the live jobs that wait', async () => {
    // Application 3: 7,250.00 less 362.50 is 6,887.50; less 5,035.00 is 1,852.50; with 20 % tax 2,223.00.
    const register = await billingRegister(reading(small), '2031-04-30');
    expect(register.applications.map((it) => [it.number, it.status, it.payable - it.received, it.daysLate])).toEqual([
      [2, 'certified', 196_400, 47],
      [3, 'submitted', 222_300, 0],
    ]);
    expect(register.unbilled.map((it) => [it.job, it.lastNumber])).toEqual([['J1', 3]]);
    expect((await billingRegister(reading(small), '2031-03-31')).unbilled).toEqual([]);
  });

  test('comes to what ageing and accounts receivable have outstanding, invoices of released retention among it', async () => {
    const database = await temporaryDatabase();
    expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
    const sum = (amounts: readonly number[]) => amounts.reduce((total, it) => total + it, 0);
    for (const asOf of ['2031-02-28', '2031-03-14', '2031-03-15', '2031-04-30']) {
      const { applications, releases } = await billingRegister(reading(database), asOf);
      const certified = applications.filter((it) => it.status === 'certified');
      const open = sum([...certified, ...releases].map((it) => it.payable - it.received));
      const aged = await agedInvoices(reading(database), asOf, null);
      expect([asOf, open]).toEqual([asOf, sum(aged.map((it) => it.total - it.retentionHeld))]);
    }
    // The book's release of 15 March is one of them.
    expect((await billingRegister(reading(database), '2031-03-15')).releases).toHaveLength(1);
  });

  test('shows an application certified later as submitted, valued as it was', async () => {
    const database = await temporaryDatabase();
    expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
    await act(database, TESTER, certifyApplication, 'J1', 3, {
      version: null,
      on: '2031-05-02',
      lines: [{ line: '1', work: 400_000, materials: 0 }],
    });
    const row = (asOf: string) =>
      billingRegister(reading(database), asOf).then((it) => it.applications.find((one) => one.number === 3)!);
    expect(await row('2031-04-30')).toMatchObject({ status: 'submitted', gross: 725_000, certifiedOn: null });
    expect(await row('2031-05-31')).toMatchObject({ status: 'certified', gross: 625_000, dueOn: '2031-05-16' });
  });

  test('of one job says why the next application cannot be started', async () => {
    expect((await jobBilling(reading(small), 'J1', '2031-03-31')).canStart).toBe(
      'Application 3 is submitted; certify it before the next one is started',
    );
    expect((await jobBilling(reading(small), 'J2', '2031-03-31')).canStart).toBe('Job J2 is a tender; a tender is not billed');
    expect((await jobBilling(reading(small), 'J1', '2031-03-31')).releases).toMatchObject([
      { reference: 'Part release', amount: 10_000, tax: 2000, received: 0, dueOn: '2031-03-24' },
    ]);
  });
});

describe('workings', () => {
  test('lead from a total down to the entries: schedule, job, line, month, ledger', async () => {
    const sql = reading(demo);
    const all = await explain(sql, { figure: 'estimate' }, '2031-04-30');
    const job = await explain(sql, all.operands.find((it) => it.figure!.job === '2107')!.figure!, '2031-04-30');
    const labour = job.operands.find((it) => it.label.includes('0340 Standing seam · labour'))!;
    const line = await explain(sql, labour.figure!, '2031-04-30');
    expect(line.rule).toMatch(/^Forecast by hours to go/);
    expect(line.result).toBe(labour.value);
    const actual = await explain(sql, line.operands.find((it) => it.figure?.figure === 'lineActual')!.figure!, '2031-04-30');
    const entries = { place: 'costs', job: '2107', filter: { section: 'Sports hall', code: '0340', type: 'labour' } };
    for (const it of actual.operands) expect(it.to).toMatchObject(entries);
    expect(actual.operands.reduce((sum, it) => sum + Number(it.value), 0)).toBe(actual.result);
  });

  test('of every cost line of the sample company come to its figure, and additions add up', async () => {
    const sql = reading(demo);
    for (const number of ['2101', '2107', '2110']) {
      const { lines } = await estimateView(sql, number, '2031-04-30');
      for (const line of lines) {
        for (const [figure, value] of [
          ['lineOriginal', line.original],
          ['lineChanges', line.changes],
          ['lineActual', line.actual],
          ['lineHoursActual', line.hoursActual],
          ['lineHoursBudgeted', line.hoursBudgeted],
        ] as const) {
          const it = await explain(sql, { figure, job: number, line: line.id }, '2031-04-30');
          expect([figure, it.result, it.operands.reduce((sum, one) => sum + Number(one.value), 0)]).toEqual([
            figure,
            value,
            value,
          ]);
        }
      }
    }
  });

  test('of an application add up from its lines', async () => {
    const sql = reading(demo);
    for (const figure of ['work', 'gross', 'originalContractSum', 'changeOrders', 'net', 'due', 'payable', 'balanceToComplete']) {
      const it = await explain(sql, { figure, job: '2104', application: 14 }, '2031-04-30');
      expect([figure, it.operands.reduce((sum, one) => sum + (one.sign === '−' ? -1 : 1) * Number(one.value), 0)]).toEqual([
        figure,
        it.result,
      ]);
    }
  });

  test('of every SOV line come to what the screens show', async () => {
    for (const [database, number, asOf] of [
      [small, 'J1', '2031-03-31'],
      [demo, '2104', '2031-04-30'],
    ] as const) {
      const sql = reading(database);
      const result = async (figure: string, sovLine: string) =>
        (await explain(sql, { figure, job: number, sovLine }, asOf)).result;
      for (const line of (await jobView(sql, number, asOf)).sov) {
        expect([await result('sovLineScheduled', line.line), await result('sovLineBilled', line.line)]).toEqual([
          line.scheduledToDate,
          line.billed,
        ]);
      }
      for (const row of (await estimateView(sql, number, asOf)).revenue) {
        const served = [
          await result('sovLineRevised', row.line),
          await result('sovLineActual', row.line),
          await result('sovLineEstimate', row.line),
        ];
        expect([row.line, ...served]).toEqual([row.line, row.revised, row.actual, row.estimate]);
      }
    }
    expect((await explain(reading(small), { figure: 'sovLineEarned', job: 'J1', sovLine: '2' }, '2031-03-31')).result).toBe(
      248_276,
    );
  });

  test('of what was signed go down to the estimate lines it was priced with', async () => {
    for (const line of (await jobView(reading(demo), '2098', '2031-04-30')).sov) {
      const it = await explain(reading(demo), { figure: 'sovLineSigned', job: '2098', sovLine: line.line }, '2031-04-30');
      expect(it.result).toBe(line.scheduledValue);
      expect(it.operands.reduce((sum, one) => sum + Number(one.value), 0)).toBe(it.result);
      expect(it.operands[0]).toMatchObject({ to: { place: 'estimate', job: '2098', document: '1' } });
    }
  });

  test('of what is open name the payable and every receipt', async () => {
    // 2,964.00 asked for, 1,000.00 received.
    const it = await explain(reading(small), { figure: 'applicationOpen', job: 'J1', application: 2 }, '2031-03-31');
    expect([it.result, it.operands.map((one) => one.value)]).toEqual([196_400, [296_400, 100_000]]);
    expect(
      (await explain(reading(small), { figure: 'releaseOpen', job: 'J1', release: 'Part release' }, '2031-03-31')).result,
    ).toBe(12_000);
  });

  test('say how retention came about where the cap holds', async () => {
    const it = await explain(reading(demo), { figure: 'retention', job: '2104', application: 14 }, '2031-04-30');
    expect(it.operands.filter((one) => one.unit === 'text').map((one) => [one.label, one.value])).toEqual([['Cap', 'applied']]);
    const lines = it.operands.filter((one) => one.label.startsWith('On '));
    expect(lines.reduce((sum, one) => sum + Number(one.value), 0)).toBe(it.result);
    const line = await explain(reading(demo), lines[0]!.figure!, '2031-04-30');
    expect([line.result, line.rule]).toEqual([lines[0]!.value, expect.stringMatching(/spread over the lines/)]);
  });
});
