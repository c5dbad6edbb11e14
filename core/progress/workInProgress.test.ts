import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { explainProgress, explainTotal, type DerivedFigure } from '../workings/progressWorkings';
import { PROGRESS_FIGURES } from './figures';
import { followedPercent, NO_DAYWORK, totalProgress, workInProgress, type JobPosition } from './workInProgress';

const job = (more: Partial<JobPosition>): JobPosition => ({
  method: 'cost-to-cost',
  finished: false,
  contractSum: 240_000_000,
  estimate: 180_000_000,
  cost: 45_000_000,
  billed: 64_000_000,
  uninstalled: 0,
  labourHours: 0,
  labourHoursAtCompletion: 0,
  workAppliedFor: 0,
  daywork: NO_DAYWORK,
  charged: null,
  ...more,
});

describe('cost to cost', () => {
  test('a quarter spent is a quarter earned: 2.4m at 25 % is 600,000.00, overbilled 40,000.00', () => {
    expect(workInProgress(job({}))).toMatchObject({
      complete: 250_000,
      earned: 60_000_000,
      profitToDate: 15_000_000,
      overbilled: 4_000_000,
      underbilled: 0,
      backlog: 180_000_000,
      lossProvision: 0,
      margin: 250_000,
    });
  });

  test('uninstalled materials earn their cost and no profit: 3.5m × 0.2 + 1.5m', () => {
    const it = workInProgress(
      job({ contractSum: 500_000_000, estimate: 400_000_000, cost: 200_000_000, uninstalled: 150_000_000, billed: 0 }),
    );
    expect(it).toMatchObject({ complete: 200_000, earned: 220_000_000, profitToDate: 20_000_000, underbilled: 220_000_000 });
  });

  test('nothing to divide by, and more spent than estimated', () => {
    expect(workInProgress(job({ estimate: 0, cost: 0 })).complete).toBe(0);
    expect(workInProgress(job({ estimate: 45_000_000, cost: 50_000_000 }))).toMatchObject({
      complete: 1_000_000,
      earned: 240_000_000,
    });
    expect(workInProgress(job({ cost: -100 })).earned).toBe(0);
  });
});

test('a loss is taken whole at once: contract 100, estimate 120, half done', () => {
  // Earned 50, cost 60: a loss of 10 is in already, 10 more are set aside; profit to date −20.
  expect(workInProgress(job({ contractSum: 10_000, estimate: 12_000, cost: 6000, billed: 0 }))).toMatchObject({
    earned: 5000,
    lossProvision: 1000,
    profitToDate: -2000,
  });
});

test('by hours, and physical', () => {
  expect(workInProgress(job({ method: 'hours', labourHours: 30, labourHoursAtCompletion: 120, uninstalled: 5 }))).toMatchObject({
    complete: 250_000,
    uninstalled: 0,
  });
  // 1,800,000.00 applied for of 2,400,000.00.
  expect(workInProgress(job({ method: 'physical', workAppliedFor: 180_000_000 }))).toMatchObject({
    complete: 750_000,
    earned: 180_000_000,
  });
});

describe('completed contract', () => {
  test('nothing until it is finished, but an expected loss', () => {
    expect(workInProgress(job({ method: 'completed' }))).toMatchObject({ earned: 0, profitToDate: 0, backlog: 240_000_000 });
    expect(workInProgress(job({ method: 'completed', estimate: 250_000_000 }))).toMatchObject({
      lossProvision: 10_000_000,
      profitToDate: -10_000_000,
    });
  });

  test('everything once it is', () => {
    expect(workInProgress(job({ method: 'completed', finished: true, estimate: 200_000_000, cost: 200_000_000 }))).toMatchObject({
      earned: 240_000_000,
      profitToDate: 40_000_000,
    });
  });
});

const position = fc.record<JobPosition>({
  method: fc.constantFrom('cost-to-cost', 'hours', 'physical', 'completed'),
  finished: fc.boolean(),
  contractSum: fc.nat(1e10),
  estimate: fc.nat(1e10),
  cost: fc.nat(1e10),
  billed: fc.nat(1e10),
  uninstalled: fc.nat(1e8),
  labourHours: fc.nat(1e8),
  labourHoursAtCompletion: fc.nat(1e8),
  workAppliedFor: fc.nat(1e10),
  daywork: fc.record({ cost: fc.nat(1e8), charge: fc.nat(1e9), billed: fc.nat(1e9) }),
  charged: fc.option(fc.record({ ceiling: fc.option(fc.nat(1e10)) })),
});

test('what is earned and what is left make the contract, and billing is over or under, never both', () => {
  fc.assert(
    fc.property(position, (it) => {
      const row = workInProgress(it);
      expect(row.earned + row.backlog).toBe(row.contractSum);
      if (!it.charged) expect(row.contractSum).toBe(it.contractSum + it.daywork.charge);
      expect(row.billed - row.earned).toBe(row.overbilled - row.underbilled);
      expect(Math.min(row.overbilled, row.underbilled)).toBe(0);
      expect(row.complete).toBeGreaterThanOrEqual(0);
      expect(row.complete).toBeLessThanOrEqual(1_000_000);
      // The whole expected loss is in profit to date, at whatever stage.
      const loss = it.charged ? row.estimatedProfit : row.estimatedProfit - (it.daywork.charge - it.daywork.cost);
      if (loss < 0 && it.charged?.ceiling !== null)
        expect(row.profitToDate).toBeLessThanOrEqual(loss + (it.charged ? 0 : it.daywork.charge - it.daywork.cost) + 1);
    }),
  );
});

test('the total is the sum of its rows, and its percentages come from the sums', () => {
  const rows = [
    workInProgress(job({})),
    workInProgress(job({ contractSum: 60_000_000, estimate: 60_000_000, cost: 60_000_000, billed: 0 })),
  ];
  // Margin (600,000 + 0) ÷ 3,000,000; complete (450,000 + 600,000) ÷ (1,800,000 + 600,000).
  expect(totalProgress(rows)).toMatchObject({
    contractSum: 300_000_000,
    estimatedProfit: 60_000_000,
    margin: 200_000,
    complete: 437_500,
    overbilled: 4_000_000,
    underbilled: 60_000_000,
  });
});

test('workings name the operands their figure comes from, and the sums among them come out', () => {
  const derived = Object.keys(PROGRESS_FIGURES).filter(
    (it) => !['contractSum', 'estimate', 'cost', 'billed'].includes(it),
  ) as DerivedFigure[];
  fc.assert(
    fc.property(position, (it) => {
      const row = workInProgress(it);
      for (const figure of derived) {
        const { operands, result, rule } = explainProgress(figure, 'Job 1', '1', it, row);
        expect(result).toBe(row[figure]);
        expect(rule.length).toBeGreaterThan(10);
        if (!['estimatedProfit', 'backlog', 'profitToDate'].includes(figure)) continue;
        expect(operands.reduce((sum, one) => sum + (one.sign === '−' ? -1 : 1) * Number(one.value), 0) + 0).toBe(result + 0);
      }
    }),
  );
  const jobs = [{ number: '1', name: 'A', progress: workInProgress(job({})) }];
  expect(explainTotal('earned', totalProgress(jobs.map((one) => one.progress)), jobs)).toMatchObject({
    result: 60_000_000,
    operands: [{ value: 60_000_000, figure: { figure: 'earned', job: '1' } }],
  });
});

test('percent complete is written with as many places as it takes to follow earned revenue to the penny', () => {
  const base = {
    method: 'cost-to-cost' as const,
    finished: false,
    billed: 0,
    labourHours: 0,
    labourHoursAtCompletion: 0,
    workAppliedFor: 0,
    daywork: NO_DAYWORK,
    charged: null,
    contractSum: 30_000,
    estimate: 30_000,
    cost: 10_000,
    uninstalled: 0,
  };
  // A third of 300.00 is 100.00: 33.3 % of it would be 99.90, 33.33 % 99.99, 33.333 % 99.999, which is 100.00.
  expect(followedPercent(base)).toBe('33.333 %');
  expect(followedPercent({ ...base, cost: 15_000 })).toBe('50.0 %');
  const cents = (max: number) => fc.integer({ min: 0, max });
  fc.assert(
    fc.property(cents(1e11), cents(1e11), cents(1e11), cents(1e9), (contractSum, estimate, cost, uninstalled) => {
      const job = { ...base, contractSum, estimate, cost, uninstalled };
      const [whole = '', places = ''] = followedPercent(job).replace(' %', '').split('.');
      const den = 100n * 10n ** BigInt(places.length);
      const share = BigInt(whole + places);
      const exact = BigInt(contractSum - uninstalled) * share;
      // Half away from zero, as the rules round.
      const doubled = 2n * (exact < 0n ? -exact : exact);
      const rounded = (doubled + den) / (2n * den);
      expect(Number(exact < 0n ? -rounded : rounded) + uninstalled).toBe(workInProgress(job).earned);
    }),
  );
});
