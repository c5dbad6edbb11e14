import { expect, test } from '@jest/globals';
import { farAheadRefusal } from './postingDay';

test('a day more than a year after today and all that is known of the job is taken for a slip', () => {
  const known = ['2031-04-30', null, '2031-01-15'];
  expect(farAheadRefusal('2032-04-30', known)).toBeNull();
  expect(farAheadRefusal('2041-04-30', known)?.facts).toEqual({ on: '2041-04-30', newest: '2031-04-30' });
  // A job planned to end in 2035 takes what is dated then.
  expect(farAheadRefusal('2035-12-31', [...known, '2035-06-30'])).toBeNull();
});
