import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addDays } from '../calendar/plainDate';
import { sum } from '../money/cents';
import { WHOLE } from '../money/rate';
import { cashCurve } from './cashCurve';
import { dueDay, type Instalment, type StageDates } from './instalment';
import { atIntervals, byPayments, byStages, daysAtIntervals } from './proposedInstalments';
import { scheduledToDate, valueInstalments as valueBy, type TakenLine } from './valueInstalments';

const NONE: StageDates = { startsOn: null, finishesOn: null, startedOn: null, finishedOn: null };
const DRAFT: Instalment = {
  name: 'x',
  stages: [],
  due: 'day',
  day: '2031-04-01',
  days: 0,
  from: 'job',
  rate: null,
  amount: 0,
};
const of = (more: Partial<Instalment>): Instalment => ({ ...DRAFT, ...more });
/** Where nothing has fallen due. */
const valueInstalments = (list: readonly Instalment[], lines: readonly TakenLine[]) =>
  valueBy(
    list,
    lines,
    list.map(() => ({ reached: null })),
  );

describe('when an instalment falls due', () => {
  const dates = {
    job: { ...NONE, startsOn: '2031-01-05', finishesOn: '2031-12-20' },
    stages: new Map<string, StageDates>([
      ['A', { startsOn: '2031-02-01', finishesOn: '2031-03-31', startedOn: '2031-02-03', finishedOn: '2031-04-02' }],
      ['B', { ...NONE, startsOn: '2031-03-01', finishesOn: '2031-05-31' }],
      ['C', NONE],
    ]),
  };
  test.each([
    // A day is a day. A stage that came counts from when it came, one that has not from its plan, then the job's.
    [of({ day: '2031-04-01' }), '2031-04-01', '2031-04-01'],
    [of({ day: null }), null, null],
    [of({ due: 'start', stages: ['A'] }), '2031-02-03', '2031-02-03'],
    [of({ due: 'finish', stages: ['A'], days: 14 }), '2031-04-16', '2031-04-16'],
    [of({ due: 'finish', stages: ['B'], days: -1 }), '2031-05-30', null],
    [of({ due: 'finish', stages: ['C'] }), '2031-12-20', null],
    [of({ due: 'finish' }), '2031-12-20', null],
    // Bundled: begun with the first, finished with the last.
    [of({ due: 'start', stages: ['B', 'A'] }), '2031-02-03', '2031-02-03'],
    [of({ due: 'finish', stages: ['A', 'B'] }), '2031-05-31', null],
    [of({ due: 'finish', stages: ['gone'] }), '2031-12-20', null],
  ])('%#', (instalment, expected, reached) => {
    expect(dueDay(instalment, dates)).toEqual({ expected, reached });
  });
});

// 1,000.00 of A in two lines, 500.00 of B, 200.00 without a section: 1,700.00.
const LINES = [
  { line: '1', section: 'A', scheduled: 75_000 },
  { line: '2', section: 'A', scheduled: 25_000 },
  { line: '3', section: 'B', scheduled: 50_000 },
  { line: '4', section: '', scheduled: 20_000 },
];

describe('what an instalment comes to', () => {
  test('per cents of a base are worked to date; stages are taken first, the job from what they leave', () => {
    const valued = valueInstalments(
      [
        // 10 % of 1,700.00 = 170.00, over what is left beside the stages' 1,000.00: lines 3 (500.00) and 4 (200.00):
        // 121.428… and 48.571…: the penny to line 3.
        of({ rate: 100_000 }),
        // 33.3333 % of 1,000.00 = 333.33, three to one: 249.9975 and 83.3325: the penny to line 1.
        of({ stages: ['A'], from: 'stages', rate: 333_333 }),
        // The rest of A: 1,000.00 − 333.33 = 666.67; each line's own rest.
        of({ stages: ['A'], from: 'stages', rate: 666_667 }),
        // What is left: 1,700.00 − 170.00 − 1,000.00 = 530.00.
        of({ amount: 53_000 }),
      ],
      LINES,
    );
    expect(valued.instalments.map((it) => [it.amount, it.parts, it.problem])).toEqual([
      [17_000, [0, 0, 12_143, 4_857], null],
      [33_333, [25_000, 8_333, 0, 0], null],
      [66_667, [50_000, 16_667, 0, 0], null],
      [53_000, [0, 0, 37_857, 15_143], null],
    ]);
    expect([valued.contractSum, valued.total, valued.left]).toEqual([170_000, 170_000, 0]);
    const days = ['2031-01-31', '2031-02-28', null, '2031-03-31'].map((reached) => ({ expected: reached, reached }));
    // By 28 February the first two; the third waits for its stage.
    expect(scheduledToDate(valued, days, 4, '2031-02-28')).toEqual([25_000, 8_333, 12_143, 4_857]);
  });

  test('what a change adds after a fixed amount fell due takes none of it; what it takes off is not billed', () => {
    // 600.00 and 400.00; in March a third line of 200.00 came, and 100.00 more on the first: 1,300.00.
    const changed: TakenLine[] = [
      { line: '1', section: '', scheduled: 70_000, changes: [{ on: '2031-03-01', amount: 10_000 }] },
      { line: '2', section: '', scheduled: 40_000, changes: [] },
      { line: '3', section: '', scheduled: 20_000, changes: [{ on: '2031-03-01', amount: 20_000 }] },
    ];
    const list = [of({ amount: 50_000 }), of({ amount: 50_000 }), of({ amount: 30_000 })];
    const parts = (...reached: (string | null)[]) =>
      valueBy(
        list,
        changed,
        reached.map((it) => ({ reached: it })),
      ).instalments.map((it) => it.parts);
    // 500.00 of February by 6 : 4, as it was billed. The rest, 400.00 : 200.00 : 200.00, by what is left: 500.00 takes
    // 250.00, 125.00 and 125.00; the last clears each line.
    expect(parts('2031-02-01', '2031-04-01', null)).toEqual([
      [30_000, 20_000, 0],
      [25_000, 12_500, 12_500],
      [15_000, 7_500, 7_500],
    ]);
    // 1,000.00 of February is all there was then. 300.00 more than that, billed by then, takes what is there now.
    expect(parts('2031-02-01', '2031-02-02', '2031-02-03')).toEqual([
      [30_000, 20_000, 0],
      [30_000, 20_000, 0],
      [10_000, 0, 20_000],
    ]);
    // 600.00 less 200.00 since: not 300.00 of 500.00 but by 4 : 4, so that the line is not billed beyond its value.
    const less: TakenLine[] = [
      { line: '1', section: '', scheduled: 40_000, changes: [{ on: '2031-03-01', amount: -20_000 }] },
      { line: '2', section: '', scheduled: 40_000 },
    ];
    expect(valueBy([of({ amount: 50_000 })], less, [{ reached: '2031-02-01' }]).instalments[0]!.parts).toEqual([25_000, 25_000]);
  });

  test('more than a stage has, or a stage without lines, is told where it stands', () => {
    const valued = valueInstalments(
      [
        of({ stages: ['B'], from: 'stages', amount: 50_001 }),
        of({ stages: ['Z'], from: 'stages', amount: 5 }),
        of({ amount: -1 }),
        // 1,700.00 − 500.01 + 0.01 are left.
        of({ amount: 120_001 }),
        of({ stages: [], from: 'stages', amount: 0 }),
      ],
      LINES,
    );
    expect(valued.instalments.map((it) => it.problem)).toEqual([
      { kind: 'too-much', left: 50_000 },
      { kind: 'no-lines', stages: ['Z'] },
      { kind: 'too-little', left: 119_999 },
      { kind: 'too-much', left: 120_000 },
      null,
    ]);
    expect(valued.left).toBe(170_000 - 50_001 - 5 + 1 - 120_001);
  });

  const dayOf = fc.constantFrom('2031-01-15', '2031-02-15', '2031-03-15');
  const lines = fc.array(
    fc
      .record({
        line: fc.constant('x'),
        section: fc.constantFrom('', 'A', 'B'),
        original: fc.nat(1e9),
        changes: fc.array(fc.record({ on: dayOf, amount: fc.nat(1e8) }), { maxLength: 2 }),
      })
      .map(({ original, ...it }): TakenLine => ({ ...it, scheduled: original + sum(it.changes.map((one) => one.amount)) })),
    { minLength: 1, maxLength: 6 },
  );
  const reached = fc.array(fc.record({ reached: fc.option(dayOf) }), { minLength: 12, maxLength: 12 });
  test('a whole schedule bills every line in full and none more on the way', () => {
    fc.assert(
      fc.property(
        lines,
        reached,
        fc.array(fc.nat(WHOLE), { maxLength: 5 }),
        fc.array(fc.nat(WHOLE), { maxLength: 5 }),
        (sov, days, a, b) => {
          // Per cents cut anywhere, of A and of what is left of the job beside it, taken in turns.
          const cuts = (at: number[]) => [...at, WHOLE].sort((x, y) => x - y).map((it, i, all) => it - (all[i - 1] ?? 0));
          const inA = sum(sov.filter((it) => it.section === 'A').map((it) => it.scheduled));
          const rest = sum(sov.map((it) => it.scheduled)) - inA;
          const ofA = sov.some((it) => it.section === 'A')
            ? cuts(a).map((rate) => of({ stages: ['A'], from: 'stages', rate }))
            : [];
          const ofJob = cuts(b).map((_, i, all) =>
            of({ amount: Math.floor(rest / all.length) + (i < rest % all.length ? 1 : 0) }),
          );
          const list = [0, 1, 2, 3, 4, 5].flatMap((i) => [...ofJob.slice(i, i + 1), ...ofA.slice(i, i + 1)]);
          const { instalments, left } = valueBy(list, sov, days);
          expect(left).toBe(0);
          const toDate = sov.map(() => 0);
          for (const it of instalments) {
            expect([sum(it.parts), it.problem]).toEqual([it.amount, null]);
            it.parts.forEach((part, i) => {
              expect(part).toBeGreaterThanOrEqual(0);
              toDate[i] = toDate[i]! + part;
            });
          }
          expect(toDate).toEqual(sov.map((it) => it.scheduled));
        },
      ),
    );
  });
});

describe('ways to lay a schedule out', () => {
  test('at intervals: the day of the month is kept where the month has it', () => {
    const by = (from: string, until: string, every: number, unit: 'weeks' | 'months') =>
      daysAtIntervals({ from, until, every, unit }).map((it) => it.slice(5));
    expect(by('2031-01-30', '2031-04-30', 1, 'months')).toEqual(['01-30', '02-28', '03-30', '04-30']);
    expect(by('2031-02-28', '2031-08-31', 2, 'months')).toEqual(['02-28', '04-30', '06-30', '08-31']);
    expect(by('2031-01-06', '2031-02-03', 2, 'weeks')).toEqual(['01-06', '01-20', '02-03']);
    expect(by('2031-01-06', '2031-01-05', 2, 'weeks')).toEqual([]);
    expect(daysAtIntervals({ from: '0001-01-01', until: '9999-12-31', every: 1, unit: 'weeks' })).toHaveLength(501);
    // 100.00 by three: the odd penny to the first.
    expect(atIntervals(['2031-01-31', '2031-02-28', '2031-03-31'], 10_000).map((it) => [it.name, it.day, it.amount])).toEqual([
      ['Instalment 1 of 3', '2031-01-31', 3_334],
      ['Instalment 2 of 3', '2031-02-28', 3_333],
      ['Instalment 3 of 3', '2031-03-31', 3_333],
    ]);
  });

  test('by stages: material at the start, labour at the finish, two on a bill', () => {
    const stages = [
      // 300 + 100 of 1,000: with the next, (400 + 200) ÷ 1,600 = 37.5 %.
      { name: 'A', costs: { material: 300, equipment: 100, labour: 600 } },
      { name: 'B', costs: { material: 200, labour: 400 } },
      // Nothing but material: all at its start.
      { name: 'C', costs: { material: 5 } },
    ];
    const rows = (bundle: number, list = stages) =>
      byStages({ stages: list, atStart: ['material', 'equipment'], bundle, days: 7 }).map((it) => [
        ...[it.name, it.stages.join('+'), it.due, it.rate, it.days],
      ]);
    expect(rows(2)).toEqual([
      ['A to B, start', 'A+B', 'start', 375_000, 7],
      ['A to B, finish', 'A+B', 'finish', 625_000, 7],
      ['C, start', 'C', 'start', WHOLE, 7],
    ]);
    expect(rows(1, [{ name: 'D', costs: {} as never }])).toEqual([['D, finish', 'D', 'finish', WHOLE, 7]]);
  });

  test('from what the client agreed to: a day, else the stage named, else still to be given', () => {
    const payment = { name: 'p', rate: 250_000, amount: null, dueOn: null, stage: '' };
    const rows = byPayments([{ ...payment, dueOn: '2031-06-01' }, { ...payment, stage: ' lot 1 ' }, payment], ['Lot 1']);
    expect(rows.map((it) => [it.due, it.day, it.stages, it.rate])).toEqual([
      ['day', '2031-06-01', [], 250_000],
      ['finish', null, ['Lot 1'], 250_000],
      ['day', null, [], 250_000],
    ]);
  });
});

describe('the cash curve', () => {
  const RETENTION = { rate: 50_000, materialsRate: null, step: null, cap: null };
  const input = {
    bills: [
      { day: '2031-03-10', parts: [40_000, 20_000] },
      { day: '2031-01-15', parts: [30_000, 0] },
      { day: null, parts: [0, 10_000] },
    ],
    lineRates: [null, 100_000],
    retention: RETENTION,
    contractSum: 100_000,
    termsDays: 30,
    retentionOn: null,
    costs: [
      { month: '2031-01', amount: 20_000 },
      { month: '2031-02', amount: 15_000 },
    ],
  };
  test('money comes its terms after the bill, less retention', () => {
    // 15 January: 300.00, 5 % held 15.00, 285.00 on 14 February. 10 March: 600.00; held to date 35.00 + 20.00 = 55.00, so
    // 600.00 − 40.00 = 560.00 on 9 April. Cost 200.00, then 350.00 to date.
    const cash = cashCurve(input);
    expect(cash.months.map((it) => Object.values(it))).toEqual([
      ['2031-01', 30_000, 0, 20_000, -20_000],
      ['2031-02', 30_000, 28_500, 35_000, -6_500],
      ['2031-03', 90_000, 28_500, 35_000, -6_500],
      ['2031-04', 90_000, 84_500, 35_000, 49_500],
    ]);
    expect([cash.lowest!.month, cash.undated, cash.retentionLeft]).toEqual(['2031-01', 10_000, 5_500]);
  });

  test('what is held comes after its release, never before the last bill', () => {
    // Released on 1 June, paid on 1 July; agreed too early, with the last bill.
    const months = (retentionOn: string) => cashCurve({ ...input, retentionOn }).months;
    expect(months('2031-06-01').at(-1)).toEqual({
      month: '2031-07',
      billed: 90_000,
      received: 90_000,
      cost: 35_000,
      inHand: 55_000,
    });
    expect(months('2031-02-01').at(-1)!.month).toBe('2031-04');
    expect(cashCurve({ ...input, bills: [], costs: [] })).toEqual({ months: [], lowest: null, undated: 0, retentionLeft: 0 });
  });

  test('all that has a day is received in the end, or said to be held', () => {
    const bill = fc.record({
      day: fc.nat(900).map((it) => addDays('2031-01-01', it)),
      parts: fc.tuple(fc.nat(1e8), fc.nat(1e8)),
    });
    fc.assert(
      fc.property(fc.array(bill, { minLength: 1, maxLength: 8 }), fc.option(fc.nat(1500)), (bills, release) => {
        const retentionOn = release === null ? null : addDays('2031-01-01', release);
        const { months, retentionLeft } = cashCurve({ ...input, bills, retentionOn, contractSum: 1e9 });
        const total = sum(bills.flatMap((it) => [...it.parts]));
        expect(months.at(-1)!.received + retentionLeft).toBe(total);
        expect(months.at(-1)!.billed).toBe(total);
        if (retentionOn) expect(retentionLeft).toBe(0);
      }),
    );
  });
});
