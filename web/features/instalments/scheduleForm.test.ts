import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Instalment } from '../../../core/instalments/instalment';
import type { BillingScheduleView } from '../../../wire/instalments';
import type { GridRow } from '../../kit/grid/gridTypes';
import { instalmentRow, readSchedule, scheduleCodecs } from './scheduleForm';
import { workSchedule } from './workSchedule';

const STAGES = ['Shed 1', 'Shed 2', 'Plant + deck'];
const codecsWith = (stages: readonly string[]) => scheduleCodecs({ stages, month: '2031-04', digits: 2 });
const codecs = codecsWith(STAGES);

test('what is shown is read back as it was', () => {
  const due = fc.oneof(
    fc.record({ due: fc.constant('day' as const), day: fc.constantFrom(null, '2031-04-30', '2029-12-01'), days: fc.constant(0) }),
    fc.record({
      due: fc.constantFrom('start' as const, 'finish' as const),
      day: fc.constant(null),
      days: fc.integer({ min: -3650, max: 3650 }),
    }),
  );
  const part = fc.oneof(
    fc.record({ rate: fc.integer({ min: 0, max: 1_000_000 }), amount: fc.constant(null) }),
    fc.record({ rate: fc.constant(null), amount: fc.integer({ min: -1e12, max: 1e12 }) }),
  );
  const stages = fc.constantFrom([], ['Shed 1'], ['Shed 1', 'Shed 2'], ['Plant + deck'], ['Shed 2', 'Plant + deck', 'Shed 1']);
  fc.assert(
    fc.property(due, part, stages, fc.boolean(), (when, what, waits, own) => {
      const from = own && waits.length > 0 ? ('stages' as const) : ('job' as const);
      const instalment: Instalment = { name: 'One', stages: waits, ...when, ...what, from };
      const { faults, read } = readSchedule([{}, instalmentRow(instalment, codecs)], codecs);
      expect([...faults]).toEqual([]);
      expect(read).toEqual([{ row: 1, instalment }]);
    }),
  );
});

describe('as it is typed', () => {
  test.each([
    // Left empty, it is taken from the stages it names; else from the job. Names in any case, ends of words.
    [
      { name: 'a', part: '25%', due: 'Finish +14', stages: 'shed 1+SHED 2' },
      { stages: ['Shed 1', 'Shed 2'], due: 'finish', days: 14, from: 'stages', rate: 250_000 },
    ],
    [
      { name: 'a', part: '1,200', due: '30', from: 'j' },
      { stages: [], due: 'day', day: '2031-04-30', days: 0, from: 'job', amount: 120_000 },
    ],
  ])('%j', (row, expected) => {
    const { faults, read } = readSchedule([row], codecs);
    expect([...faults]).toEqual([]);
    expect(read[0]!.instalment).toMatchObject(expected);
  });

  test.each([
    ['name', { part: '1.00', due: '30' }, 'Expected a name'],
    [
      'due',
      { name: 'a', part: '1.00', due: 'soon' },
      '"soon" is not a valid date; enter one such as 30 Apr 2031, or start, finish, finish + 14',
    ],
    ['part', { name: 'a', due: '30' }, 'Expected an amount, or a percentage such as 25 %'],
    ['part', { name: 'a', due: '30', part: '101 %' }, '"101 %" is not a percentage from 0 to 100'],
    ['stages', { name: 'a', part: '1.00', stages: 'Shed 9' }, 'The job has no section Shed 9; add it to the plan first'],
    ['stages', { name: 'a', part: '1.00', from: 'stages' }, 'Expected the stages it is taken from'],
    ['from', { name: 'a', part: '1.00', from: 'us' }, 'Expected one of stages, job'],
  ])('%s is told where it stands: %j', (key, row, message) => {
    expect([...readSchedule([{}, row], codecs).faults]).toEqual([[`1.${key}`, message]]);
  });
});

test('a schedule on the screen is worked as the server bills it, and more than there is told in its row', () => {
  const NO_DATES = { startsOn: null, finishesOn: null, startedOn: null, finishedOn: null };
  const view: BillingScheduleView = {
    seen: '',
    instalments: [],
    savedBy: null,
    savedAt: null,
    job: NO_DATES,
    termsDays: 30,
    retentionOn: null,
    stages: [{ ...NO_DATES, name: 'Shed 1', startedOn: '2031-04-02', costs: {} }],
    lines: [
      { line: '1', section: 'Shed 1', scheduled: 60_000, retentionRate: null },
      { line: '2', section: '', scheduled: 40_000, retentionRate: null },
    ],
    retentionRule: { rate: 50_000, materialsRate: null, step: null, cap: null },
    costs: [],
    payments: [],
    due: 0,
    billed: 0,
    closed: null,
  };
  const rows: GridRow[] = [
    { name: 'a', stages: 'Shed 1', due: 'start + 7', part: '50 %' },
    {},
    { name: 'b', due: '', part: '800' },
  ];
  const { read } = readSchedule(rows, codecsWith(['Shed 1']));
  const worked = workSchedule(view, read, '2031-04-30', 2);
  // 50 % of 600.00 fell due on 9 April; 700.00 are left of the job, 800.00 are asked.
  expect([worked.due, worked.days.map((it) => it.reached)]).toEqual([30_000, ['2031-04-09', null]]);
  expect([...worked.faults]).toEqual([['2.part', 'More than is left of what it is taken from, 700.00; bill that or less']]);
  // 5 % of it are held; the other bill has no day.
  expect([worked.cash.months.at(-1)!.received, worked.cash.undated]).toEqual([28_500, 80_000]);
});
