import { expect, test } from '@jest/globals';
import { describeDetail } from './describeDetail';

const exact = (cents: number) => (cents / 100).toFixed(2);

test('what was changed stands with what it was before; what stayed the same does not', () => {
  const was = { name: 'Mill', site: 'Dock', retention: { rate: 50_000, cap: null }, startsOn: '2031-04-01' };
  const now = { name: 'Mill', site: 'Quay', retention: { rate: 30_000, cap: null }, startsOn: null };
  expect(describeDetail({ was, now, reason: 'moved' }, exact)).toEqual([
    { name: 'reason', was: null, now: 'moved' },
    { name: 'site', was: 'Dock', now: 'Quay' },
    { name: 'retention rate', was: '5.0 %', now: '3.0 %' },
    { name: 'starts on', was: '1 Apr 2031', now: '–' },
  ]);
});

test('amounts, hours and lists are written as people read them; what pages carry is left out', () => {
  const detail = { seen: 'abc', total: 125_050, lines: [{ hours: 75_000, amount: -300 }] };
  expect(describeDetail(detail, exact).map((it) => [it.name, it.now])).toEqual([
    ['total', '1250.50'],
    ['lines 1 hours', '7.5'],
    ['lines 1 amount', '-3.00'],
  ]);
});
