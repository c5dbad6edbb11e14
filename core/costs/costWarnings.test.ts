import { expect, test } from '@jest/globals';
import { costWarnings, type KnownOfLine, type UnusualLine } from './costWarnings';

const line: UnusualLine = {
  job: 'J1',
  section: 'A',
  dated: '2031-04-12',
  costType: 'material',
  party: 'PANEL',
  reference: 'D7',
  amount: 50_000,
};
const known: KnownOfLine = {
  sameReference: null,
  twice: false,
  sections: new Set(['A', 'B']),
  awardedOn: '2031-01-10',
  usual: 10_000,
  isVendor: true,
};
const warned = (more: Partial<UnusualLine>, of: Partial<KnownOfLine> = {}) =>
  costWarnings({ ...line, ...more }, { ...known, ...of }, '2031-04-30', 2).map((it) => `${it.field}: ${it.message}`);

test('an ordinary line needs no look', () => {
  expect(warned({})).toEqual([]);
  // A job without sections, a cost line without history, an entry just below ten times 100.00, a credit.
  expect(warned({ section: 'West' }, { sections: new Set() })).toEqual([]);
  expect(warned({ amount: 9_999_999 }, { usual: null })).toEqual([]);
  expect(warned({ amount: 99_999 })).toEqual([]);
  expect(warned({ dated: '2030-04-29' }, { awardedOn: null })).toEqual([]);
});

test('each thing that is unusual is said', () => {
  expect(warned({ dated: '2016-02-01' })).toEqual(['dated: 1 Feb 2016 is more than a year from 30 Apr 2031']);
  expect(warned({ dated: '2032-05-02' })).toHaveLength(1);
  expect(warned({ dated: '2031-01-09' })).toEqual(['dated: 9 Jan 2031 is before job J1 was awarded, 10 Jan 2031']);
  expect(warned({ section: 'West' })).toEqual(['section: West is a new section of job J1']);
  expect(warned({}, { sameReference: 12 })).toEqual(['reference: D7 of PANEL is posted already, as document 12']);
  expect(warned({ amount: 1 }, { twice: true })).toEqual(['reference: D7 of PANEL appears twice with 0.01']);
  expect(warned({}, { isVendor: false })).toEqual(['party: There is no vendor PANEL; choose one, or add it']);
  expect(warned({ party: '' }, { isVendor: false })).toEqual([]);
  expect(warned({ amount: -100_000 })).toHaveLength(1);
  expect(warned({ amount: 100_000 })).toEqual(['amount: 1,000.00 is 10 times the usual 100.00 of this line, or more']);
});
