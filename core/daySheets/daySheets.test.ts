import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  brokenSignatures,
  chargedEntries,
  EMPTY_DAY,
  withCrewHours,
  withSignature,
  type DayHours,
  type DaySheet,
} from './daySheet';
import { dayRowInWords, leftOutInWords } from './dayWords';
import { mergeDays, takeMine } from './mergeDays';
import { missingDays } from './missingDays';

const task = { section: 'Roof', costCode: '100', workKind: '', pay: null, description: '', charged: false };
const row = (employee: string, hours: number, more: Partial<DayHours> = {}): DayHours => ({
  ...task,
  employee,
  hours: hours * 10_000,
  signature: 0,
  ...more,
});
const day = (more: Partial<DaySheet>): DaySheet => ({ ...EMPTY_DAY, ...more });

test('hours of a crew: a row each; more on the same task is added to it, another task is a row of its own', () => {
  const first = withCrewHours([row('E1', 2)], ['E1', 'E2'], { ...task, hours: 60_000 });
  // E1 has 2 + 6, E2 6.
  expect(first).toEqual([row('E1', 8), row('E2', 6)]);
  const second = withCrewHours(first, ['E2'], { ...task, costCode: '200', hours: 20_000 });
  expect(second).toEqual([row('E1', 8), row('E2', 6), row('E2', 2, { costCode: '200' })]);
  // What is signed stays as it was signed.
  expect(
    withCrewHours([row('E1', 2, { charged: true, signature: 1 })], ['E1'], { ...task, charged: true, hours: 10_000 }),
  ).toHaveLength(2);
});

test('two versions come together: what only one changed is taken, what both changed is asked', () => {
  const base = day({ weather: 'Dry', hours: [row('E1', 8), row('E2', 8)], visitors: [{ name: 'Mr Hale', description: '' }] });
  const mine = day({ ...base, weather: 'Rain', hours: [row('E1', 9), row('E2', 8), row('E3', 4)] });
  const theirs = day({ ...base, notes: 'Scaffold tag renewed', hours: [row('E1', 7.5)], visitors: [] });
  const { merged, clashes } = mergeDays(base, mine, theirs);
  // Rain is mine, the notes theirs; E2 and the visitor were removed by them, E3 added by me; E1 has 9 here and 7.5 there.
  expect(merged).toEqual(day({ weather: 'Rain', notes: 'Scaffold tag renewed', hours: [row('E1', 7.5), row('E3', 4)] }));
  expect(clashes).toEqual([{ part: 'hours', mine: row('E1', 9), theirs: row('E1', 7.5) }]);
  expect(takeMine(merged, clashes[0]!).hours).toEqual([row('E1', 9), row('E3', 4)]);
  expect(leftOutInWords(clashes[0]!, clashes[0]!.mine, 'on the phone', () => 'Ann Ash')).toBe(
    'Hours, on the phone: Ann Ash, Roof · 100, 9 h',
  );
  // One changes what the other removes: asked as well, and mine comes back.
  const gone = mergeDays(base, mine, day({ ...base, hours: [row('E2', 8)] }));
  expect(gone.clashes).toEqual([{ part: 'hours', mine: row('E1', 9), theirs: null }]);
  expect(takeMine(gone.merged, gone.clashes[0]!).hours).toContainEqual(row('E1', 9));
});

test('merging loses nothing: each row of either is in the result, in a clash, or was removed by one that the other left alone', () => {
  const someRows = fc.array(
    fc.record({ name: fc.constantFrom('a', 'b', 'c', 'd'), description: fc.constantFrom('', '1', '2') }),
    {
      maxLength: 5,
    },
  );
  fc.assert(
    fc.property(someRows, someRows, someRows, (was, here, there) => {
      const [base, mine, theirs] = [was, here, there].map((visitors) => day({ visitors })) as [DaySheet, DaySheet, DaySheet];
      const { merged, clashes } = mergeDays(base, mine, theirs);
      const found = [...merged.visitors, ...clashes.flatMap((it) => [it.mine, it.theirs]), ...base.visitors].map((it) =>
        JSON.stringify(it),
      );
      for (const it of [...mine.visitors, ...theirs.visitors]) expect(found).toContain(JSON.stringify(it));
      // The same on both sides, or a change on one side alone, is never asked.
      expect(mergeDays(base, mine, mine)).toEqual({ merged: mine, clashes: [] });
      expect(mergeDays(base, mine, base).clashes).toEqual([]);
      expect(new Set(mergeDays(base, base, theirs).merged.visitors)).toEqual(new Set(theirs.visitors));
    }),
  );
});

test('a signature covers what is marked and not signed yet, and stays as it was signed', () => {
  const before = day({
    hours: [row('E1', 8, { charged: true }), row('E2', 8)],
    equipment: [{ name: 'Lift', hours: 40_000, description: '', charged: true, signature: 0 }],
  });
  const signed = withSignature(before, { name: 'Mr Hale', office: '', signedOn: '2031-03-04', strokes: '1,1 2,2' });
  expect(signed.signatures.map((it) => it.number)).toEqual([1]);
  expect(chargedEntries(signed, 0)).toEqual({ hours: [], equipment: [], deliveries: [] });
  expect(chargedEntries(signed, 1).hours).toEqual([row('E1', 8, { charged: true, signature: 1 })]);
  // More of the day may be entered; what is signed may not be changed, removed, or added to.
  expect(brokenSignatures(signed, { ...signed, notes: 'x', hours: [...signed.hours, row('E3', 1)] })).toEqual([]);
  expect(brokenSignatures(signed, { ...signed, hours: [row('E1', 9, { charged: true, signature: 1 }), row('E2', 8)] })).toEqual([
    'hours',
  ]);
  expect(brokenSignatures(signed, { ...signed, equipment: [] })).toEqual(['equipment']);
  expect(
    brokenSignatures(signed, { ...signed, hours: [...signed.hours, row('E3', 1, { charged: true, signature: 1 })] }),
  ).toEqual(['hours']);
  expect(brokenSignatures(signed, { ...signed, signatures: [] })).toContain('signatures');
});

test('missing are weekdays since the work began that are over and have no sheet', () => {
  // 3 March 2031 is a Monday. Work began on Tuesday; today is Friday; Wednesday has its sheet.
  const of = { since: '2031-03-04', today: '2031-03-07', there: new Set(['2031-03-05']) };
  expect(missingDays('2031-03-03', '2031-03-09', of)).toEqual(['2031-03-04', '2031-03-06']);
  expect(missingDays('2031-03-03', '2031-03-09', { ...of, since: null })).toEqual([]);
  expect(missingDays('2031-03-08', '2031-03-10', { ...of, today: '2031-03-31' })).toEqual(['2031-03-10']);
});

test('rows in words say what is there and leave out what is not', () => {
  expect(dayRowInWords({ name: 'Rail and Rope', headcount: 3, description: 'Rails' }, String)).toBe(
    'Rail and Rope, 3 people, Rails',
  );
  expect(dayRowInWords({ section: '', costCode: '100', quantity: 125_000, unit: 'm2', description: '' }, String)).toBe(
    '100, 12.5 m2',
  );
});
