import { expect, test } from '@jest/globals';
import type { Application, BillingJob } from './application';
import { certificationRefusal, leastHeld, receivable, receiptRefusals, releaseRefusals } from './invoiceRefusals';

const application = (number: number, on: string, work: number): Application => ({
  number,
  dated: on,
  status: 'certified',
  certifiedOn: on,
  reference: '',
  lines: [{ line: '1', work, materials: 0, certifiedWork: null, certifiedMaterials: null }],
});
/** 10 % retention until half of 10,000.00 is billed, then 3 % of all: 400.00 held in February, 180.00 in March, 300.00 in June. */
const STEPPED: BillingJob = {
  sovLines: [
    {
      line: '1',
      section: '',
      description: '',
      scheduledValue: 1_000_000,
      quantity: null,
      unit: '',
      retentionRate: null,
      original: true,
    },
  ],
  priceChanges: [],
  retention: { rate: 100_000, materialsRate: null, step: { at: 500_000, to: 30_000, applies: 'all' }, cap: null },
  taxRate: 0,
  applications: [
    application(1, '2031-02-05', 400_000),
    application(2, '2031-03-05', 600_000),
    application(3, '2031-06-05', 1_000_000),
  ],
  releases: [],
};

test('retention is released up to what is held on its day and on every later one', () => {
  expect(leastHeld(STEPPED, '2031-02-20')).toEqual({ held: 18_000, on: '2031-03-05' });
  const release = (amount: number) =>
    releaseRefusals(STEPPED, { dated: '2031-02-20', amount, reference: 'R' }).map((it) => it.facts);
  expect(release(25_000)).toEqual([{ amount: 25_000, held: 18_000, on: '2031-03-05' }]);
  expect(release(18_000)).toEqual([]);
});

test('an application is not certified where a release dated later would then be more than is held', () => {
  const job = {
    ...STEPPED,
    applications: STEPPED.applications.slice(0, 1),
    releases: [{ dated: '2031-04-01', amount: 25_000, reference: 'R' }],
  };
  expect(certificationRefusal(job, application(2, '2031-03-05', 600_000))?.facts).toEqual({
    retention: 18_000,
    released: 25_000,
  });
  expect(certificationRefusal(job, application(2, '2031-03-05', 450_000))).toBeNull();
});

test('what is received lies between zero and what is asked for on every day, whichever is recorded first', () => {
  const invoice = { since: '2031-02-01', payable: 500_000, receipts: [{ dated: '2031-03-20', amount: 307_800 }] };
  const rules = (dated: string, amount: number) => receiptRefusals(invoice, { dated, amount }).map((it) => it.rule);
  // A refund before the money came in: on 10 Feb -3,078.00 would have been received.
  expect(rules('2031-02-10', -307_800)).toEqual(['receipt-below-zero']);
  expect(rules('2031-03-20', -307_800)).toEqual([]);
  // 5,000.00 less the 3,078.00 of March are left, also for February.
  expect([rules('2031-02-10', 192_200), rules('2031-02-10', 192_201)]).toEqual([[], ['receipt-beyond']]);
  expect(rules('2031-01-31', 100)).toEqual(['receipt-too-early']);
  expect([receivable(invoice, '2031-02-10'), receivable({ ...invoice, payable: -100, receipts: [] }, '2031-02-10')]).toEqual([
    192_200, -100,
  ]);
});
