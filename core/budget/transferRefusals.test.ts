import { expect, test } from '@jest/globals';
import { messageOf, showIn } from '../refusals/messages';
import { transferRefusals } from './transferRefusals';

const of = (amounts: number[], hours: (number | null)[] = [], dated = '2031-04-30') =>
  transferRefusals({
    dated,
    awardedOn: '2031-01-05',
    lines: amounts.map((amount, i) => ({ amount, hours: hours[i] ?? null })),
  }).map((it) => `${it.at}: ${messageOf(it, showIn(2))}`);

test('a transfer adds up to zero, moves something, and is not before the award', () => {
  expect(of([-500_00, 499_99])).toEqual(['lines: A transfer must net to zero; this one is out by −0.01']);
  expect(of([-500_00, 500_00])).toEqual([]);
  // Hours alone are moved too; nothing at all is no transfer.
  expect([of([0, 0], [-40_000, 40_000]), of([0, 0])]).toEqual([
    [],
    ['lines: Nothing is moved; enter what goes in and what goes out'],
  ]);
  expect(of([-1, 1], [], '2031-01-04')).toEqual([
    'dated: 4 Jan 2031 is before the award, 5 Jan 2031; the original budget is frozen from then on',
  ]);
});
