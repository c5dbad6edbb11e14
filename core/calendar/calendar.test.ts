import { expect, test } from '@jest/globals';
import { displayDate, displayPeriod, withDisplayDates } from './displayDate';
import { firstEntryDay } from './firstEntryDay';
import { monthIndex } from './month';
import { addDays, addMonths, daysBetween, isPlainDate, lastDay } from './plainDate';

test.each(['2031-02-29', '2031-13-01', '2031-00-10', '2031-4-30', '31-04-30', '2031-04-31', '2100-02-29', '', '0000-01-01'])(
  '%s is no day',
  (text) => {
    expect(isPlainDate(text)).toBe(false);
  },
);

test('leap years, month ends and steps over the year', () => {
  expect([isPlainDate('2032-02-29'), isPlainDate('2000-02-29'), lastDay('2032-02'), lastDay('2031-12')]).toEqual([
    true,
    true,
    '2032-02-29',
    '2031-12-31',
  ]);
  expect([addMonths('2031-11', 3), addMonths('2031-01', -1), addMonths('2031-05', -17)]).toEqual([
    '2032-02',
    '2030-12',
    '2029-12',
  ]);
  expect([addDays('2031-02-27', 3), addDays('2031-01-01', -1), daysBetween('2031-03-01', '2031-02-27')]).toEqual([
    '2031-03-02',
    '2030-12-31',
    -2,
  ]);
  // 2031 × 12 + 3: April is the fourth month, counted from 0.
  expect(monthIndex('2031-04-30')).toBe(24_375);
});

test('days and months as people read them', () => {
  expect([displayDate('2031-04-03'), displayDate(null), displayPeriod('2031-04')]).toEqual(['3 Apr 2031', '', 'Apr 2031']);
});

test.each([
  // Today within the month that is looked at, a month before it, one to come: the earlier of both.
  ['2026-11-25', '2026-11-30', '2026-11', '2026-11-25'],
  ['2026-11-25', '2026-10-31', '2026-11', '2026-10-31'],
  ['2026-11-25', '2026-12-31', '2026-11', '2026-11-25'],
  ['2026-11-25', '2026-12-31', null, '2026-11-25'],
  // A day that was chosen within the month.
  ['2026-11-25', '2026-11-15', '2026-11', '2026-11-15'],
  // A document of next month makes no books of days to come.
  ['2026-11-25', '2026-12-31', '2026-12', '2026-11-25'],
  // Books that have reached 2031: what is looked at, but for the month of today.
  ['2026-11-25', '2031-04-30', '2031-04', '2031-04-30'],
  ['2026-11-25', '2026-11-30', '2031-04', '2026-11-25'],
])('on %s, looking at %s in books up to %s, a document is dated %s at first', (today, lastDay, newest, expected) => {
  expect(firstEntryDay(today, lastDay, newest)).toBe(expected);
});

test('days within a sentence are written as everywhere', () => {
  expect(withDisplayDates('certified on 2031-09-05, before 2031-10-01; DN-2031-09')).toBe(
    'certified on 5 Sep 2031, before 1 Oct 2031; DN-2031-09',
  );
});
