import { expect, test } from '@jest/globals';
import type { ForecastLine, ForecastView } from '../../../wire/forecasts';
import { forecastLine } from '../../test/costLines';
import { forecastCodecs, oneWay, rowsOf, workForecast } from './forecastForm';

const codecs = forecastCodecs(2);
const line = (costCode: string, more: Partial<ForecastLine> = {}) =>
  forecastLine({ id: Number(costCode), costCode, lastMonth: null, ...more });
const view: ForecastView = {
  seen: '',
  on: '2031-04-30',
  contractSum: 3_000_000,
  contractSumLastMonth: 3_000_000,
  closed: null,
  finished: false,
  lines: [line('100', { entered: { method: 'percent', value: 800_000, note: 'Late' } }), line('200'), line('300')],
};

test('a forecast shown is read back as it was, and comes to what the reports say', () => {
  const { faults, lines, input } = workForecast(view, rowsOf(view, codecs), codecs);
  expect([...faults]).toEqual([]);
  expect(input).toEqual([{ section: 'A', costCode: '100', costType: 'labour', method: 'percent', value: 800_000, note: 'Late' }]);
  // 4,000.00 at 80 % are 5,000.00; without a forecast the budget of 10,000.00 holds.
  expect(lines.map((it) => it.estimate)).toEqual([500_000, 1_000_000, 1_000_000]);
});

test('of the ways to say it the one typed last counts; what cannot be read stays in its cell', () => {
  const before = rowsOf(view, codecs);
  const rows = oneWay([{ ...before[0], hours: '100' }, { 'to-complete': 'lots' }, { note: 'why' }], before);
  expect(rows[0]).toEqual({ $key: '100', line: '100', hours: '100', note: 'Late' });
  const { faults, lines, input } = workForecast(view, rows, codecs);
  expect([...faults.keys()]).toEqual(['1.to-complete', '2.note']);
  // 100 hours more at 80.00: 4,000.00 + 8,000.00.
  expect([lines[0]?.estimate, input.length]).toEqual([1_200_000, 1]);
});
