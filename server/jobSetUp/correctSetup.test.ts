import { closeBooks } from '../ledger/closing';
import { afterAll, beforeEach, expect, test } from '@jest/globals';
import type { SetupCorrection } from '../../wire/jobs';
import type { Database } from '../db/database';
import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { act, reading } from '../test/act';
import { cleanUp, differences, faultsOf, reportLines, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { postCosts } from '../costs/postCosts';
import { deleteJob, moveJob } from '../jobs/jobLife';
import { createJob } from './createJob';
import { jobSetup } from './jobSetup';
import { correctSetup } from './correctSetup';
import { EXAMPLES } from '../test/postedBodies';

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  await act(database, TESTER, createJob, {
    ...EXAMPLES.createJob.body,
    number: 'N1',
    status: 'awarded',
    awardedOn: '2031-04-01',
  });
});
afterAll(cleanUp);

const correct = async (more: Partial<SetupCorrection> = {}) => {
  const { seen } = await jobSetup(reading(database), 'N1');
  return act(database, TESTER, correctSetup, 'N1', {
    seen,
    reason: 'typed the tender, not the contract',
    contractSum: 70_000,
    sov: [
      { line: '2', section: '', description: 'Cladding', scheduledValue: 40_000, quantity: null, unit: '', retentionRate: null },
      { line: '1', section: 'B', description: 'Roof', scheduledValue: 30_000, quantity: 10_000, unit: 'm2', retentionRate: 0 },
    ],
    budget: [
      {
        section: 'B',
        costCode: '200',
        costType: 'material',
        sovLine: '1',
        description: '',
        quantity: null,
        unit: '',
        hours: null,
        amount: 9000,
      },
    ],
    ...more,
  });
};
const move = (status: 'on-site' | 'cancelled' | 'awarded', reason = '') =>
  act(database, TESTER, moveJob, 'N1', { status, on: '2031-04-02', reason });
const refusal = (work: Promise<unknown>) =>
  work.then(
    () => 'done',
    (error: Error) => error.message,
  );

test('schedule and budget are what they should have been, and what they were is recorded', async () => {
  const before = await jobSetup(reading(database), 'N1');
  await correct();
  const after = await jobSetup(reading(database), 'N1');
  expect(after.sov.map((it) => [it.line, it.scheduledValue, it.unit])).toEqual([
    ['2', 40_000, ''],
    ['1', 30_000, 'm2'],
  ]);
  // No line is left of what the budget was.
  expect(await reportLines(database, 'estimate-vs-actual', '2031-04-30', 'N1')).toHaveLength(2);
  const wip = await reportLines(database, 'wip', '2031-04-30');
  expect(wip.find((it) => it.startsWith('N1,'))).toMatch(/,700\.00,90\.00,610\.00,/);
  const recorded = await reading(database).get(
    query(shape({ detail: t.text }), `SELECT detail FROM audit WHERE command = 'correct-setup'`),
  );
  expect(JSON.parse(recorded!.detail)).toMatchObject({ was: { sov: before.sov, budget: before.budget } });
});

test('it must come to the contract sum, and name lines and codes that are there', async () => {
  expect(await refusal(correct({ contractSum: 70_001 }))).toMatch(/0.01 short of the contract sum/);
  const budget = [
    {
      section: '',
      costCode: '999',
      costType: 'other' as const,
      sovLine: '7',
      description: '',
      quantity: null,
      unit: '',
      hours: null,
      amount: 1,
    },
  ];
  const error = await correct({ budget }).catch((it: { faults: { field: string }[] }) => it.faults.map(({ field }) => field));
  expect(error).toEqual(['budget.0.sovLine', 'budget.0.costCode']);
});

test('cost, also on site, freezes nothing; a figure in closed books, an application and closing out do', async () => {
  const line = {
    dated: '2031-04-02',
    job: 'N1',
    section: '',
    costCode: '200',
    costType: 'other' as const,
    party: '',
    reference: 'R',
  };
  await act(database, TESTER, postCosts, {
    lines: [{ ...line, hours: null, amount: 5, description: '', commitment: '', uninstalled: false }],
    asOf: '2031-04-30',
  });
  expect((await jobSetup(reading(database), 'J1')).frozen).toMatch(/frozen: it was applied for payment/);
  expect(await refusal(move('cancelled', 'client stopped'))).toMatch(/Something is posted/);
  expect(await refusal(act(database, TESTER, deleteJob, 'N1'))).toMatch(/posted cost.*cancel it instead/);
  await move('on-site', '');
  await correct();
  // What is spent stands on its line, budgeted or not.
  expect(await reportLines(database, 'estimate-vs-actual', '2031-04-30', 'N1')).toContainEqual(
    expect.stringMatching(/^,200,other,0\.00,.*,0\.05,/),
  );
  await act(database, TESTER, closeBooks, { to: '2031-04-02', reason: '' });
  expect(await refusal(correct())).toMatch(/frozen: it was awarded on a day in books that are closed/);
});

test('an awarded job nothing is posted to is cancelled with a reason, is in no report, and can be taken up again', async () => {
  expect(await refusal(move('cancelled'))).toMatch(/Enter a reason/);
  await move('cancelled', 'client stopped');
  expect((await reportLines(database, 'wip', '2031-04-30')).some((it) => it.startsWith('N1,'))).toBe(false);
  expect(await refusal(move('on-site', 'go'))).toMatch(/it moves on to awarded/);
  await move('awarded', 'client changed their mind');
  expect((await reportLines(database, 'wip', '2031-04-30')).some((it) => it.startsWith('N1,'))).toBe(true);
  // In reports of days that are closed it stays as it is.
  await act(database, TESTER, closeBooks, { to: '2031-04-30', reason: '' });
  expect(await refusal(move('cancelled', 'client stopped'))).toBe(
    'Job N1 counts from 1 Apr 2031 on, in books that are closed up to 30 Apr 2031; it cannot be cancelled unless the books are opened again first',
  );
  expect(await refusal(act(database, TESTER, deleteJob, 'N1'))).toMatch(
    /it cannot be deleted unless the books are opened again first$/,
  );
  expect(await refusal(correct())).toMatch(/awarded on a day in books that are closed/);
  await act(database, TESTER, closeBooks, { to: null, reason: 'tried' });
  await act(database, TESTER, deleteJob, 'N1');
  expect(await differences(database, '2031-04-30')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
});
