import { expect, test } from '@jest/globals';
import { formOf, lotsBy, planCodecs, readPlan } from './planForm';

const codecs = planCodecs('2031-04');

test('a plan shown is read back as it was; what is wrong is said where it stands', () => {
  const view = {
    sections: [
      {
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
    ],
    lines: [{ section: 'A', costCode: '100', costType: 'labour' as const, startsOn: '2031-02-01', finishesOn: '2031-02-28' }],
  };
  const read = readPlan(formOf(view, codecs), codecs);
  expect([...read.faults]).toEqual([]);
  expect(read.input).toEqual({
    sections: [{ name: 'A', startsOn: '2031-01-01', finishesOn: null, startedOn: '2031-01-03', finishedOn: '2031-04-02' }],
    lines: view.lines,
  });
  const bad = readPlan(
    { sections: [{ startsOn: '5 May', finishesOn: '4 May' }, {}], lines: [{ costType: 'x', startsOn: 'soon' }] },
    codecs,
  );
  expect([...bad.faults.keys()].sort()).toEqual([
    'lines.0.costCode',
    'lines.0.costType',
    'lines.0.finishesOn',
    'lines.0.startsOn',
    'sections.0.finishesOn',
    'sections.0.name',
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
