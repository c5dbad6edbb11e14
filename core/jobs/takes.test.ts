import { expect, test } from '@jest/globals';
import { ALL_JOB_STATUSES } from './jobStatus';
import { takes, whyNotTaken } from './takes';

test('what a job takes in each state; locked, it takes nothing', () => {
  const taking = (what: 'cost' | 'time' | 'bills') => ALL_JOB_STATUSES.filter((status) => takes({ status, locked: false }, what));
  expect(taking('bills')).toEqual(['awarded', 'on-site', 'closing-out']);
  expect([taking('cost'), taking('time')]).toEqual(Array(2).fill(['tender', 'awarded', 'on-site', 'closing-out']));
  expect(ALL_JOB_STATUSES.filter((status) => takes({ status, locked: true }, 'cost'))).toEqual([]);
  expect(whyNotTaken({ status: 'cancelled', locked: false }, 'bills')).toBe('is cancelled; it is not billed');
});
