import { expect, test } from '@jest/globals';
import { dayIn, isTimeZone } from './dayIn';

test.each([
  // Half past eight in the morning of 1 May in Auckland is still 30 April in London, 21:30 by summer time.
  ['2031-04-30T20:30:00Z', 'Pacific/Auckland', '2031-05-01'],
  ['2031-04-30T20:30:00Z', 'Europe/London', '2031-04-30'],
  ['2031-04-30T23:30:00Z', 'Europe/London', '2031-05-01'],
  ['2031-05-01T02:00:00Z', 'America/New_York', '2031-04-30'],
])('at %s it is, in %s, %s', (at, zone, day) => expect([dayIn(at, zone), dayIn(new Date(at), zone)]).toEqual([day, day]));

test('a zone has a name that is known', () => {
  expect(['Europe/London', 'UTC', 'Nowhere/At_All', 'x'].map(isTimeZone)).toEqual([true, true, false, false]);
});
