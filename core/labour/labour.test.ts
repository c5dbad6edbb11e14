import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Burden } from './burdens';
import { splitTime, type OpenTime, type OvertimeRule } from './overtime';
import { payCodeOf } from './payCodes';
import { hoursAUnit } from './productivity';
import { explainRate, rateOn, rungOf, type PayRate, type RateFor } from './payRates';
import { priceTime, type LabourTerms, type TimeToPrice } from './priceTime';

/** Hours in ten-thousandths; rates in ten-thousandths of a pound. */
const h = (hours: number) => Math.round(hours * 10_000);
const rule = (more: Partial<OvertimeRule> = {}): OvertimeRule => ({
  from: '2031-01-01',
  dailyAfter: h(8),
  doubleAfter: null,
  weeklyAfter: null,
  weekStarts: 'monday',
  ...more,
});
const open = (dated: string, hours: number, more: Partial<OpenTime> = {}): OpenTime => ({
  dated,
  hours: h(hours),
  pay: null,
  hasUnits: false,
  reversesOn: null,
  ...more,
});
const cut = (...args: Parameters<typeof splitTime>) =>
  splitTime(...args).map((parts) => parts.map(([pay, hours]) => `${hours / 10_000} ${pay}`).join(' + '));

describe('a day is cut', () => {
  // 7 April 2031 is a Monday.
  test('9.5 h with daily-after 8: 8 regular, 1.5 overtime; over two jobs in the order of the lines', () => {
    expect(cut([open('2031-04-07', 9.5)], [], [rule()])).toEqual(['8 regular + 1.5 overtime']);
    expect(cut([open('2031-04-07', 6), open('2031-04-07', 5)], [], [rule()])).toEqual(['6 regular', '2 regular + 3 overtime']);
  });

  test('12 h with double after 10: 8, 2 and 2; without a rule, or without a daily limit, all regular', () => {
    expect(cut([open('2031-04-07', 12)], [], [rule({ doubleAfter: h(10) })])).toEqual(['8 regular + 2 overtime + 2 double']);
    expect(cut([open('2031-04-07', 12)], [], [])).toEqual(['12 regular']);
    expect(cut([open('2031-04-07', 12)], [], [rule({ dailyAfter: null })])).toEqual(['12 regular']);
  });

  test('given lines count first, wherever they stand, as does what is posted; piece work counts as given', () => {
    const given = open('2031-04-07', 6, { pay: 'regular' });
    expect(cut([open('2031-04-07', 5), given], [], [rule()])).toEqual(['2 regular + 3 overtime', '6 regular']);
    const posted = [{ dated: '2031-04-07', pay: 'regular' as const, hours: h(7) }];
    expect(cut([open('2031-04-07', 5)], posted, [rule()])).toEqual(['1 regular + 4 overtime']);
    expect(cut([open('2031-04-07', 5), open('2031-04-07', 6, { hasUnits: true })], [], [rule()])).toEqual([
      ...['2 regular + 3 overtime', '6 regular'],
    ]);
    // Given overtime fills the way to double: 8 regular, then 10 − 8 − 2 = 0 overtime left.
    const late = open('2031-04-07', 2, { pay: 'overtime' });
    expect(cut([open('2031-04-07', 9), late], [], [rule({ doubleAfter: h(10) })])).toEqual([
      '8 regular + 1 double',
      '2 overtime',
    ]);
  });

  test('a rule holds from its day on', () => {
    const rules = [rule(), rule({ from: '2031-04-08', dailyAfter: h(7) })];
    expect(cut([open('2031-04-07', 9), open('2031-04-08', 9)], [], rules)).toEqual([
      ...['8 regular + 1 overtime', '7 regular + 2 overtime'],
    ]);
  });
});

describe('a week is cut', () => {
  test('a week that begins on another day by a new rule counts the hours that lie before the rule', () => {
    // Weeks from Monday until 29 July 2031, from Friday since 30 July, a Wednesday: Thursday 31 July lies in the week of Friday 25 July.
    const weekly = { dailyAfter: null, weeklyAfter: h(40) };
    const rules = [rule(weekly), rule({ ...weekly, from: '2031-07-30', weekStarts: 'friday' })];
    const days = ['2031-07-25', '2031-07-28', '2031-07-29', '2031-07-30', '2031-07-31'].map((it) => open(it, 8.25));
    // Four days of 8.25 are 33: of the fifth 7 are left, and 1.25 is beyond.
    expect(cut(days, [], rules)).toEqual([...Array(4).fill('8.25 regular'), '7 regular + 1.25 overtime']);
    // The same where they are posted already.
    const posted = days.slice(0, 4).map(({ dated, hours }) => ({ dated, hours, pay: 'regular' as const }));
    expect(cut(days.slice(4), posted, rules)).toEqual(['7 regular + 1.25 overtime']);
  });

  const week = [7, 8, 9, 10, 11].map((day) => open(`2031-04-${String(day).padStart(2, '0')}`, 9));
  test('five days of 9 h, daily after 8, weekly after 38: 8 + 1 each, and of Friday 6 regular', () => {
    expect(cut(week, [], [rule({ weeklyAfter: h(38) })]).at(-1)).toBe('6 regular + 3 overtime');
    // What is posted of the week counts first, also of a later day: 8 h on Saturday leave 30.
    const posted = [{ dated: '2031-04-12', pay: 'regular' as const, hours: h(8) }];
    expect(cut(week, posted, [rule({ weeklyAfter: h(38) })]).slice(-2)).toEqual(['6 regular + 3 overtime', '9 overtime']);
  });

  test('the week begins on its weekday; a given regular line counts in its order and is never cut', () => {
    // Beginning on Thursday, the three days before lie in the week before.
    expect(cut(week, [], [rule({ weeklyAfter: h(20), weekStarts: 'thursday' })])).toEqual([
      ...['8 regular + 1 overtime', '8 regular + 1 overtime', '4 regular + 5 overtime'],
      ...['8 regular + 1 overtime', '8 regular + 1 overtime'],
    ]);
    const given = [...week.slice(0, 4), open('2031-04-11', 9, { pay: 'regular' })];
    expect(cut(given, [], [rule({ weeklyAfter: h(30) })]).slice(-2)).toEqual(['6 regular + 3 overtime', '9 regular']);
  });

  test('a line that reverses counts where what it reverses stands', () => {
    // Monday’s 8 h and their reversal on Friday come to nothing; three days of 8 h are before Friday, so 6 of 30 are left.
    const [monday, ...rest] = week;
    const back = open('2031-04-11', -8, { pay: 'regular', reversesOn: '2031-04-07' });
    expect(cut([monday!, back, ...rest], [], [rule({ weeklyAfter: h(30) })]).at(-1)).toBe('6 regular + 3 overtime');
  });
});

test('the parts of a line add up to it, whatever the rules; nothing given is changed', () => {
  const days = fc.integer({ min: 1, max: 28 }).map((day) => `2031-04-${String(day).padStart(2, '0')}`);
  const lines = fc.array(
    fc.tuple(days, fc.integer({ min: 1, max: h(12) }), fc.constantFrom(null, 'regular' as const, 'overtime' as const)),
    { maxLength: 12 },
  );
  const limit = fc.option(fc.integer({ min: 0, max: h(12) }));
  fc.assert(
    fc.property(lines, limit, limit, (all, daily, weekly) => {
      const asked = all.map(([dated, hours, pay]) => ({ ...open(dated, 0), hours, pay }));
      const parts = splitTime(asked, [], [rule({ dailyAfter: daily, doubleAfter: daily && daily + h(2), weeklyAfter: weekly })]);
      expect(parts.map((it) => it.reduce((sum, [, hours]) => sum + hours, 0))).toEqual(asked.map((it) => it.hours));
      asked.forEach(({ pay, hours }, i) => pay && expect(parts[i]).toEqual([[pay, hours]]));
      for (const it of parts.flat()) expect(it[1]).toBeGreaterThan(0);
    }),
  );
});

const NOTHING: RateFor = { job: '', section: '', workKind: '', wageClass: '', employee: '' };
const rate = (pounds: number, of: Partial<RateFor>, more: Partial<PayRate> = {}): PayRate => ({
  ...NOTHING,
  ...of,
  from: '2031-01-01',
  rate: pounds * 10_000,
  atLeast: false,
  ...more,
});
const WORK: RateFor = { job: 'J1', section: 'East', workKind: 'welding', wageClass: 'fitter', employee: 'E1' };

describe('the rate of an hour', () => {
  const all = [
    rate(6, { wageClass: 'fitter' }),
    rate(5, { employee: 'E1' }),
    rate(4, { workKind: 'welding', wageClass: 'fitter' }),
    rate(3, { workKind: 'welding', employee: 'E1' }),
    rate(2, { job: 'J1', wageClass: 'fitter' }),
    rate(1, { job: 'J1', section: 'East', wageClass: 'fitter' }),
  ];
  const found = (rates: readonly PayRate[], ownClass = false, day = '2031-04-07', work = WORK) => {
    const it = rateOn(rates, work, ownClass, day);
    return it && [it.rate / 10_000, it.rung];
  };

  test('is of the first rung that has one; a class of the line’s own comes before the employee', () => {
    const taken = all.map((_, i) => found(all.slice(0, all.length - i)));
    expect(taken).toEqual([
      ...[
        [1, 'job-section'],
        [2, 'job'],
        [3, 'kind-employee'],
        [4, 'kind-class'],
        [5, 'employee'],
        [6, 'class'],
      ],
    ]);
    expect(found(all.slice(0, 2), true)).toEqual([6, 'class']);
    expect(found([], false)).toBeNull();
    expect(found(all, false, '2031-04-07', { ...NOTHING, employee: 'E2', wageClass: 'mate' })).toBeNull();
    // What was looked at is shown, in order.
    expect(explainRate(all, WORK, true, '2031-04-07').looked.map((it) => it.rung)).toEqual([
      ...['job-section', 'job', 'kind-employee', 'kind-class', 'class', 'employee'],
    ]);
  });

  test('is the newest of its rung by the day; at least: the higher of it and what comes after', () => {
    const raised = [rate(20, { employee: 'E1' }), rate(21, { employee: 'E1' }, { from: '2031-04-07' })];
    expect([found(raised, false, '2031-04-06'), found(raised)]).toEqual([
      [20, 'employee'],
      [21, 'employee'],
    ]);
    expect(found(raised, false, '2030-12-31')).toBeNull();
    const least = (pounds: number) => rate(pounds, { job: 'J1', wageClass: 'fitter' }, { atLeast: true });
    expect([found([least(25), ...raised]), found([least(19), ...raised]), found([least(25)])]).toEqual([
      ...[
        [25, 'job'],
        [21, 'employee'],
        [25, 'job'],
      ],
    ]);
    // Of two that are at least, and a plain one after them, the highest.
    const two = [rate(10, { job: 'J1', section: 'East', wageClass: 'fitter' }, { atLeast: true }), least(30), ...raised];
    expect(found(two)).toEqual([30, 'job']);
  });

  test('cells that make no rung are none', () => {
    expect([rungOf({ ...NOTHING, job: 'J1' }), rungOf({ ...WORK, job: '' }), rungOf(NOTHING)]).toEqual([null, null, null]);
    expect(rungOf({ ...NOTHING, workKind: 'welding', employee: 'E1' })).toBe('kind-employee');
  });
});

const burden = (more: Partial<Burden>): Burden => ({
  burden: 'STATE',
  from: '2031-01-01',
  to: null,
  job: '',
  wageClass: '',
  percent: 0,
  perHour: 0,
  onPremium: false,
  ...more,
});
const TERMS: LabourTerms = { rates: [rate(22.5, { employee: 'E1' })], pieceRates: [], burdens: [] };
const time = (more: Partial<TimeToPrice>): TimeToPrice => ({
  employee: 'E1',
  dated: '2031-04-07',
  job: 'J1',
  section: '',
  costCode: '100',
  workKind: '',
  wageClass: '',
  employeeClass: 'fitter',
  pay: 'regular',
  hours: h(8),
  units: null,
  ...more,
});
const priced = (line: Partial<TimeToPrice>, terms: Partial<LabourTerms> = {}) => {
  const it = priceTime(time(line), { ...TERMS, ...terms }, 2);
  return typeof it === 'string' ? it : [it.rate / 10_000, it.rung, it.payAmount, it.burden];
};

describe('a line is priced', () => {
  test('8 h at 22.50 are 180.00; 1.5 h overtime 50.625, so 50.63; burden 18 % without the premium and 0.85 an hour', () => {
    // 18 % of 180.00 = 32.40, 8 × 0.85 = 6.80. 18 % of 33.75 = 6.075, so 6.08; 1.5 × 0.85 = 1.275, so 1.28.
    const burdens = [burden({ percent: 180_000, perHour: 8500 })];
    expect(priced({}, { burdens })).toEqual([22.5, 'employee', 18_000, 3920]);
    expect(priced({ pay: 'overtime', hours: h(1.5) }, { burdens })).toEqual([22.5, 'employee', 5063, 736]);
    // With the premium: 18 % of 50.63 = 9.1134.
    expect(priced({ pay: 'overtime', hours: h(1.5) }, { burdens: [burden({ percent: 180_000, onPremium: true })] })).toEqual([
      ...[22.5, 'employee', 5063, 911],
    ]);
    expect(priced({ employee: 'E2' })).toBe('no-rate');
  });

  test('of a burden the row that fits best on the day holds, then the newest; another burden comes on top', () => {
    const rows = [
      burden({ perHour: 10_000 }),
      burden({ perHour: 20_000, from: '2031-04-07' }),
      burden({ perHour: 30_000, wageClass: 'fitter', to: '2031-04-08' }),
      burden({ perHour: 40_000, job: 'J1', from: '2031-04-09' }),
      burden({ burden: 'TOOLS', perHour: 5000, job: 'J2' }),
    ];
    const of = (dated: string, more: Partial<TimeToPrice> = {}) =>
      priced({ dated, hours: h(1), ...more }, { burdens: rows })?.[3];
    expect([of('2031-04-06', { employeeClass: 'mate' }), of('2031-04-07', { employeeClass: 'mate' })]).toEqual([100, 200]);
    expect([of('2031-04-08'), of('2031-04-09'), of('2031-04-09', { job: 'J2' })]).toEqual([300, 400, 200 + 50]);
  });

  test('by the piece: 40 units at 3.20 are 128.00; topped up to the hours where they pay more', () => {
    const piece = { from: '2031-01-01', costCode: '100', workKind: '', rate: 32_000, topsUp: true };
    const pieceRates = [piece, { ...piece, workKind: 'welding', rate: 50_000, topsUp: false }];
    expect(priced({ hours: h(5), units: h(40) }, { pieceRates })).toEqual([3.2, 'piece', 12_800, 0]);
    // 8 h at 22.50 are 180.00, more than 128.00.
    expect(priced({ units: h(40) }, { pieceRates })).toEqual([22.5, 'employee', 18_000, 0]);
    expect(priced({ units: h(40), workKind: 'welding' }, { pieceRates })).toEqual([5, 'piece', 20_000, 0]);
    expect(priced({ units: h(40), workKind: 'welding' }, { pieceRates: [piece] })).toEqual([22.5, 'employee', 18_000, 0]);
    expect([
      priced({ units: h(1), costCode: '200' }, { pieceRates }),
      priced({ units: h(1), employee: 'E2' }, { pieceRates }),
    ]).toEqual([...['no-piece-rate', 'no-rate']]);
    // A burden of piece work is on the pay, premium or not.
    const burdens = [burden({ percent: 100_000 })];
    expect(priced({ units: h(40), hours: h(9), pay: 'overtime' }, { pieceRates, burdens })).toEqual([
      22.5,
      'employee',
      30_375,
      3038,
    ]);
  });
});

test('a pay code is by the job, else by the kind of work, else by the class, else its name', () => {
  const code = (payCode: string, job = '', workKind = '') => ({ payCode, pay: 'overtime' as const, job, workKind });
  const codes = [code('OT'), code('OT-J1', 'J1'), code('OT-WELD', '', 'welding')];
  const of = (job: string, workKind: string, pay: 'regular' | 'overtime' = 'overtime') =>
    payCodeOf(codes, { pay, job, workKind });
  expect([of('J1', 'welding'), of('J2', 'welding'), of('J2', ''), of('J1', '', 'regular')]).toEqual([
    ...['OT-J1', 'OT-WELD', 'OT', 'regular'],
  ]);
});

test('hours a unit: as budgeted over the quantity, so far over what is done of it', () => {
  // 120 h for 400 m2 are 0.3; 90 h for half of it 0.45; of a third 0.675. Nothing done, or no quantity, says nothing.
  const of = (percentDone: number, quantity: number | null) =>
    hoursAUnit({ budgeted: 1_200_000, used: 900_000, percentDone }, quantity);
  expect(of(500_000, 4_000_000)).toEqual({ planned: 3000, achieved: 4500 });
  expect(of(333_333, 4_000_000).achieved).toBe(6750);
  expect(of(0, 4_000_000)).toEqual({ planned: 3000, achieved: null });
  expect([of(500_000, null), of(500_000, 0)]).toEqual([
    { planned: null, achieved: null },
    { planned: null, achieved: null },
  ]);
});
