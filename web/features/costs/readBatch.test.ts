import { describe, expect, test } from '@jest/globals';
import type { Lists } from '../../../wire/company';
import { costCodecs, readBatch } from './readBatch';
import { EMPTY_LISTS } from '../../test/emptyLists';

const lists: Lists = {
  ...EMPTY_LISTS,
  costCodes: [{ code: '0340', description: 'Standing seam', unit: '' }],
  jobs: [{ number: '2107', name: 'Sports hall', status: 'on-site', locked: false, sections: ['Hall'] }],
};
const row = (more: Record<string, string> = {}) => ({
  dated: '30',
  job: '2107',
  costCode: '0340',
  costType: 'Labour',
  reference: 'TS-1',
  amount: '1,250.00',
  hours: '50',
  ...more,
});
const read = (...rows: Record<string, string>[]) => readBatch(rows, costCodecs(lists, '2031-04', 2));

describe('a sheet of costs', () => {
  test('is read row by row, empty rows passed over, with its totals', () => {
    const { lines, rowOf, faults, total, hours } = read(
      row(),
      {},
      row({ dated: '2 Mar 31', amount: '(50.25)', hours: '', uninstalled: 'yes', costType: 'material' }),
      { job: ' ' },
    );
    expect([...faults]).toEqual([]);
    expect(lines.map((it) => [it.dated, it.costType, it.amount, it.hours, it.uninstalled])).toEqual([
      ['2031-04-30', 'labour', 125_000, 500_000, false],
      ['2031-03-02', 'material', -5025, null, true],
    ]);
    expect([rowOf, total, hours]).toEqual([[0, 2], 119_975, 500_000]);
  });

  test.each([
    ['dated', '31', '"31" is not a valid date; enter one such as 30 Apr 2031'],
    ['dated', '', 'Enter a date, e.g. 30 Apr 2031'],
    ['job', '9999', 'There is no job 9999'],
    ['job', '', 'Expected a job'],
    ['costCode', '34', 'There is no cost code 34'],
    ['costType', 'labor', 'Expected one of labour, material, subcontract, equipment, other'],
    ['reference', '', 'Enter a reference (delivery note, timesheet or invoice no.)'],
    ['hours', '8h', '"8h" is not a number with up to 4 decimals'],
    ['amount', '12x', '"12x" is not a valid amount; enter one such as 12,500.00'],
    ['amount', '1.005', '"1.005" is not a valid amount; enter one such as 12,500.00'],
    ['amount', '', 'Enter an amount such as 12,500.00'],
  ])('%s %j: %s', (key, typed, message) => {
    expect([...read(row(), row({ [key]: typed })).faults]).toEqual([[`1.${key}`, message]]);
  });
});
