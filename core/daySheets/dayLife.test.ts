import { expect, test } from '@jest/globals';
import { movesFrom } from '../life/life';
import { EMPTY_DAY, type DaySheet } from './daySheet';
import { DAY_LIFE, DAY_STATES, dayState } from './dayLife';

test('a day sheet is deleted only while no client signed it and the office left its hours; a signature counts first', () => {
  const signature = { number: 1, name: 'Mr Hale', office: '', signedOn: '2031-03-04', strokes: '1,1 2,2' };
  const signed: DaySheet = { ...EMPTY_DAY, signatures: [signature] };
  expect([dayState(EMPTY_DAY, true), dayState(EMPTY_DAY, false), dayState(signed, true), dayState(signed, false)]).toEqual([
    'written',
    'taken over',
    'signed',
    'signed',
  ]);
  expect(DAY_STATES.filter((state) => movesFrom(DAY_LIFE, state).delete)).toEqual(['written']);
});
