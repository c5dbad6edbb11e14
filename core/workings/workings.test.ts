import { describe, expect, test } from '@jest/globals';
import { valueApplication, type Application, type BillingJob } from '../billing/application';
import { EMPTY_LINE, estimateAtCompletion, type CostLineState, type LineForecast } from '../forecast/estimateAtCompletion';
import { compareCostLines, comparePlain, type CostLineKey } from '../costs/costType';
import { contractSum, originalContractSum, scheduleAt, type SovLine } from '../contract/contract';
import { explainApplication, explainLineRetention } from './applicationWorkings';
import { explainEstimate, explainLine } from './estimateWorkings';

const ref = (figure: string) => ({ figure: { figure, job: '1', line: 7 } });
const state = (more: Partial<CostLineState> = {}): CostLineState => ({
  ...EMPTY_LINE,
  budgeted: true,
  original: 100_000,
  changes: 5000,
  cost: 40_000,
  openCommitment: 2500,
  ...more,
});
const forecast = (more: Partial<LineForecast>): LineForecast => ({
  method: 'to-complete',
  value: 30_000,
  asOf: '2031-03-31',
  costThen: 35_000,
  hoursThen: 0,
  revisedThen: 100_000,
  hoursBudgetedThen: 0,
  ...more,
});
const explained = (it: CostLineState, finished = false) => explainEstimate(it, estimateAtCompletion(it, finished), ref);

describe('the estimate of a line explains itself by the rule that gave it', () => {
  test.each<[string, CostLineState, boolean, RegExp, string[]]>([
    [
      'the budget',
      state(),
      false,
      /^No forecast: the revised budget/,
      ['Revised budget', 'Cost to date, compared', 'Open commitments, compared'],
    ],
    [
      'cost past the budget',
      state({ cost: 110_000 }),
      false,
      /passes the revised budget/,
      ['Cost to date', 'Open commitments', 'Revised budget, passed'],
    ],
    [
      'no budget',
      state({ budgeted: false, original: 0, changes: 0 }),
      false,
      /^No budget and no forecast/,
      ['Cost to date', 'Open commitments'],
    ],
    ['a finished job', state(), true, /^The job is finished/, ['Cost to date', 'Open commitments']],
    [
      'cost to complete',
      state({ forecast: forecast({}) }),
      false,
      /^Forecast by cost to complete/,
      [
        'Forecast of',
        'Cost then',
        'Cost to complete',
        'Budget changes since',
        'The forecast says',
        'Cost to date, compared',
        'Open commitments, compared',
      ],
    ],
    [
      'per cent',
      state({ forecast: forecast({ method: 'percent', value: 500_000 }) }),
      false,
      /^Forecast by percent complete/,
      [
        'Forecast of',
        'Cost then',
        'Done',
        'Budget changes since',
        'The forecast says',
        'Cost to date, compared',
        'Open commitments, compared',
      ],
    ],
    [
      'hours',
      state({ forecast: forecast({ method: 'hours', value: 50_000, hoursThen: 100_000 }) }),
      false,
      /^Forecast by hours to go/,
      [
        'Forecast of',
        'Cost then',
        'Hours then',
        'Hours to go',
        'Budget changes since',
        'The forecast says',
        'Cost to date, compared',
        'Open commitments, compared',
      ],
    ],
  ])('%s', (_, it, finished, rule, labels) => {
    const { rule: said, operands } = explained(it, finished);
    expect(said).toMatch(rule);
    expect(operands.map((operand) => operand.label)).toEqual(labels);
  });

  test('hours before any hour name the budget they were priced from', () => {
    const { operands } = explained(
      state({ forecast: forecast({ method: 'hours', value: 50_000, costThen: 0, hoursBudgetedThen: 400_000 }) }),
    );
    expect(operands.map((it) => it.label)).toContain('Hours budgeted then');
  });

  test('what is spent opens its entries and its orders', () => {
    expect(explained(state()).operands.map((it) => it.figure?.figure)).toEqual(['lineRevised', 'lineActual', 'lineCommitted']);
  });

  test.each(['lineRevised', 'lineVariance'] as const)('%s adds up from its operands', (figure) => {
    const it = state();
    const { operands, result } = explainLine(figure, 'x', it, estimateAtCompletion(it, false), ref);
    expect(operands.reduce((sum, one) => sum + (one.sign === '−' ? -1 : 1) * Number(one.value), 0)).toBe(result);
  });
});

const sov = (line: string, scheduledValue: number, original = true): SovLine => ({
  line,
  section: '',
  description: `line ${line}`,
  scheduledValue,
  quantity: null,
  unit: '',
  retentionRate: null,
  original,
});

describe('the schedule of values', () => {
  const lines = [sov('1', 600), sov('2', 400), sov('9', 0, false)];
  const changes = [
    { changeOrder: 'A', line: '9', amount: 100, approvedOn: '2031-02-10' },
    { changeOrder: 'B', line: '1', amount: -50, approvedOn: '2031-03-01' },
    { changeOrder: 'B', line: '9', amount: 25, approvedOn: '2031-03-01' },
  ];

  test.each([
    [
      '2031-02-09',
      [
        ['1', 600],
        ['2', 400],
      ],
      1000,
    ],
    [
      '2031-02-10',
      [
        ['1', 600],
        ['2', 400],
        ['9', 100],
      ],
      1100,
    ],
    [
      '2031-03-01',
      [
        ['1', 550],
        ['2', 400],
        ['9', 125],
      ],
      1075,
    ],
  ] as const)('on %s', (on, expected, total) => {
    const schedule = scheduleAt(lines, changes, on);
    expect(schedule.map((it) => [it.line, it.scheduledToDate])).toEqual(expected);
    expect([contractSum(schedule), originalContractSum(lines)]).toEqual([total, 1000]);
  });
});

test('cost lines stand by section, code and type in the order of the list', () => {
  const key = (section: string, costCode: string, costType: CostLineKey['costType']): CostLineKey => ({
    section,
    costCode,
    costType,
  });
  const sorted = [
    key('B', '1', 'labour'),
    key('', '9', 'other'),
    key('B', '1', 'material'),
    key('B', '10', 'labour'),
    key('a', '1', 'labour'),
    key('', '9', 'labour'),
  ].sort(compareCostLines);
  expect(sorted.map((it) => `${it.section}/${it.costCode}/${it.costType}`)).toEqual([
    '/9/labour',
    '/9/other',
    'B/1/labour',
    'B/1/material',
    'B/10/labour',
    'a/1/labour',
  ]);
  expect([comparePlain('Z', 'a'), comparePlain('a', 'a'), comparePlain('b', 'a')]).toEqual([-1, 0, 1]);
});

describe('an application explains itself', () => {
  const application = (number: number, work: number): Application => ({
    number,
    dated: `2031-0${number}-20`,
    status: 'certified',
    certifiedOn: `2031-0${number}-25`,
    reference: '',
    lines: [
      { line: '1', work, materials: 100, certifiedWork: null, certifiedMaterials: null },
      { line: '2', work: 50, materials: 0, certifiedWork: null, certifiedMaterials: null },
    ],
  });
  const job: BillingJob = {
    sovLines: [sov('1', 10_000), sov('2', 5000)],
    priceChanges: [],
    retention: { rate: 100_000, materialsRate: 0, step: { at: 500_000, to: 50_000, applies: 'all' }, cap: null },
    taxRate: 200_000,
    applications: [application(1, 2000), application(2, 8000)],
    releases: [],
  };

  test('the first has nothing before it, the second names the first', () => {
    const first = explainApplication(
      'previouslyCertified',
      's',
      '1',
      job,
      valueApplication(job, job.applications[0]!, '2031-12-31'),
    );
    expect([first.operands, first.rule]).toEqual([[], 'Nothing was certified before.']);
    const second = explainApplication(
      'previouslyCertified',
      's',
      '1',
      job,
      valueApplication(job, job.applications[1]!, '2031-12-31'),
    );
    expect(second.operands[0]).toMatchObject({
      label: 'Net to date of application 1',
      figure: { figure: 'net', application: 1 },
    });
    // 2,000 + 100 + 50 less 10 % of 2,050, nothing on materials.
    expect(second.result).toBe(1945);
  });

  test('retention on a line names the rate that holds: 10 % before the step, 5 % after, none on materials', () => {
    const rates = job.applications.map((it) =>
      explainLineRetention('1', 's', job, valueApplication(job, it, '2031-12-31'))!.operands.map((one) => one.value),
    );
    expect(rates).toEqual([
      [2000, 100_000, 100, 0],
      [8000, 50_000, 100, 0],
    ]);
    expect(explainLineRetention('7', 's', job, valueApplication(job, job.applications[0]!, '2031-12-31'))).toBeNull();
  });
});
