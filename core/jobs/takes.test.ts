import { expect, test } from '@jest/globals';
import { ALL_JOB_STATUSES, movesOn } from './jobStatus';
import { takes, takesRefusal, whyNotTaken, type Given } from './takes';

test('what a job takes in each state; locked, it takes nothing', () => {
  const taking = (what: Given) => ALL_JOB_STATUSES.filter((status) => takes({ status, locked: false }, what));
  expect(taking('bills')).toEqual(['awarded', 'on-site', 'closing-out']);
  expect([taking('cost'), taking('time')]).toEqual(Array(2).fill(['tender', 'awarded', 'on-site', 'closing-out']));
  expect([taking('changes'), taking('transfers')]).toEqual(Array(2).fill(['awarded', 'on-site']));
  expect([taking('daySheets'), taking('forecasts')]).toEqual(Array(2).fill(['awarded', 'on-site', 'closing-out']));
  expect(taking('receipts').at(-1)).toBe('closed');
  expect(ALL_JOB_STATUSES.filter((status) => takes({ status, locked: true }, 'cost'))).toEqual([]);
  expect(takesRefusal({ number: 'J1', status: 'tender', locked: false }, 'changes')?.facts).toEqual({
    job: 'J1',
    why: 'is a tender; a tender takes no change orders',
  });
  expect(whyNotTaken({ status: 'cancelled', locked: false }, 'bills')).toBe('is cancelled; it is not billed');
});

test('no state is without a way on: from each a job comes to its close, or may be taken up again', () => {
  const reached = (from: string, seen = new Set<string>()): Set<string> => {
    for (const next of movesOn(from)) if (!seen.has(next)) reached(next, seen.add(next));
    return seen;
  };
  for (const status of ALL_JOB_STATUSES)
    expect([status, status === 'closed' || reached(status).has('closed')]).toEqual([status, true]);
});
