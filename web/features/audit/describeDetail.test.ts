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

test('lines of a week sheet stand by person, day and task; an emptied one says what it was; a limit is an amount', () => {
  const was = { 'E1, 3 Mar 2031, J1 · A · 100': { hours: 95_000 }, 'E2, 3 Mar 2031, overhead': { hours: 40_000 } };
  const now = { 'E1, 3 Mar 2031, J1 · A · 100': { hours: 80_000, pay: 'overtime' } };
  expect(describeDetail({ week: '2031-03-03', was, now }, exact)).toEqual([
    { name: 'week', was: null, now: '3 Mar 2031' },
    { name: 'E1, 3 Mar 2031, J1 · A · 100 hours', was: '9.5', now: '8' },
    { name: 'E2, 3 Mar 2031, overhead hours', was: '4', now: '–' },
    { name: 'E1, 3 Mar 2031, J1 · A · 100 pay', was: '–', now: 'overtime' },
  ]);
  expect(describeDetail({ was: { above: 50_000 }, now: { above: 0 } }, exact)).toEqual([
    { name: 'above', was: '500.00', now: '0.00' },
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
