import { expect, test } from '@jest/globals';
import { entriesOf, inJob, postingPlace } from '../../core/places/place';
import { addressOf, moveAddressOf } from './addressOf';

test('a named place has one address: parts, documents and filters, with what a number may hold written safely', () => {
  expect(
    [
      inJob({ number: '2108' }, 'job-file'),
      inJob({ number: 'A/7' }, 'application', 3),
      inJob({ number: '2108' }, 'award', 2),
      inJob({ number: '2108' }, 'change', 'CO 1'),
      entriesOf({ number: '2108' }, { section: 'Sports hall', from: '2031-04-01' }),
      postingPlace(169),
    ].map(addressOf),
  ).toEqual([
    '/jobs/2108/file',
    '/jobs/A%2F7/billing/3',
    '/jobs/2108/estimates/2/award',
    '/jobs/2108/changes/CO%201',
    '/jobs/2108/costs?section=Sports+hall&from=2031-04-01',
    '/ledger/postings/169',
  ]);
});

test('what cost entries stand behind leads to where they are moved, narrowed alike; nothing else does', () => {
  expect(moveAddressOf(entriesOf({ number: 'A/7' }, { section: '', code: '0310' }))).toBe(
    '/costs/correct?way=move&job=A%2F7&section=&code=0310',
  );
  expect(moveAddressOf(inJob({ number: 'A/7' }, 'budget'))).toBeNull();
});
