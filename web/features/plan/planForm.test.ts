import { expect, test } from '@jest/globals';
import { formOf, lotsBy, readPlan } from './planForm';

test('a plan shown is read back as it was; what is wrong is said where it stands', () => {
  const view = {
    sections: [
      {
        ...{
          name: 'A',
          startsOn: '2031-01-01',
          finishesOn: null,
          startedOn: '2031-01-03',
          finishedOn: '2031-04-02',
          scheduled: 0,
          billed: 0,
          revised: 0,
          actual: 0,
          estimate: 0,
        },
      },
    ],
    lines: [{ section: 'A', costCode: '100', costType: 'labour' as const, startsOn: '2031-02-01', finishesOn: '2031-02-28' }],
  };
  const read = readPlan(formOf(view), '2031-04');
  expect([...read.faults]).toEqual([]);
  expect(read.input).toEqual({
    sections: [{ name: 'A', startsOn: '2031-01-01', finishesOn: null, startedOn: '2031-01-03', finishedOn: '2031-04-02' }],
    lines: view.lines,
  });
  const bad = readPlan(
    { sections: [{ startsOn: '5 May', finishesOn: '4 May' }, {}], lines: [{ type: 'x', startsOn: 'soon' }] },
    '2031-04',
  );
  expect([...bad.faults.keys()]).toEqual([
    'sections.0.name',
    'sections.0.finishesOn',
    'lines.0.code',
    'lines.0.startsOn',
    'lines.0.finishesOn',
    'lines.0.type',
  ]);
});

test('lots come from one pattern, each with dates of its own', () => {
  // Ten days each, a week apart, from 28 April.
  expect(lotsBy('Lot #', 2, '2031-04-28', 10, 7)).toEqual([
    { name: 'Lot 1', startsOn: '28 Apr 2031', finishesOn: '7 May 2031' },
    { name: 'Lot 2', startsOn: '5 May 2031', finishesOn: '14 May 2031' },
  ]);
  expect(lotsBy('House', 1, null, 10, 7)).toEqual([{ name: 'House 1', startsOn: '', finishesOn: '' }]);
});
