import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ApplicationView, BilledLineView } from '../../../wire/billing';
import { cellsOf, followEntry, workApplication } from './workApplication';

const line = (more: Partial<BilledLineView> = {}): BilledLineView => ({
  line: '1',
  section: '',
  description: '',
  scheduled: 300_000,
  previousWork: 100_000,
  work: 100_000,
  materials: 0,
  appliedWork: 100_000,
  appliedMaterials: 0,
  toDate: 100_000,
  retention: 0,
  retentionRate: null,
  earnedByCost: null,
  bySchedule: null,
  ...more,
});

describe('what is typed in one cell', () => {
  const start = cellsOf(line(), 100_000, 0, 2);

  test('the others follow: 50 % of 3,000.00 is 1,500.00 to date, 500.00 this period', () => {
    expect(followEntry(line(), { ...start, percent: '50' }, 'percent', 2)).toEqual({
      percent: '50',
      work: '1,500.00',
      period: '500.00',
      materials: '',
    });
    expect(followEntry(line(), { ...start, work: '1500' }, 'work', 2)).toEqual({
      percent: '50',
      work: '1,500.00',
      period: '500.00',
      materials: '',
    });
    expect(followEntry(line(), { ...start, period: '500' }, 'period', 2)).toEqual({
      percent: '50',
      work: '1,500.00',
      period: '500.00',
      materials: '',
    });
  });

  test('less than before is a period below nothing; emptied is nothing to date', () => {
    expect(followEntry(line(), { ...start, work: '900' }, 'work', 2)).toMatchObject({ percent: '30', period: '−100.00' });
    expect(followEntry(line(), { ...start, work: '' }, 'work', 2)).toMatchObject({ percent: '', work: '', period: '−1,000.00' });
  });

  test('materials stand by themselves; what cannot be read stays as typed', () => {
    expect(followEntry(line(), { ...start, materials: '250' }, 'materials', 2)).toEqual({ ...start, materials: '250.00' });
    expect(followEntry(line(), { ...start, percent: 'half' }, 'percent', 2)).toEqual({ ...start, percent: 'half' });
  });

  test('whichever cell is typed in, the amount to date is the same', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 300_000 }), (work) => {
        const cells = cellsOf(line(), work, 0, 2);
        for (const key of ['work', 'period'] as const) expect(followEntry(line(), cells, key, 2).work).toBe(cells.work);
      }),
    );
  });
});

describe('the whole sheet', () => {
  const summary = {
    originalContractSum: 300_000,
    changeOrders: 0,
    contractSum: 300_000,
    work: 0,
    materials: 0,
    gross: 0,
    retention: 0,
    retentionReleased: 0,
    net: 0,
    previouslyCertified: 95_000,
    due: 0,
    tax: 0,
    payable: 0,
    balanceToComplete: 0,
  };
  const view = {
    lines: [line()],
    above: 0,
    summary,
    taxRate: 200_000,
    retentionRule: { rate: 50_000, materialsRate: null, step: null, cap: null },
  } as unknown as ApplicationView;

  test('is worked with the core: 1,500.00 less 5 % less 950.00 is 475.00, with tax 570.00', () => {
    const worked = workApplication(view, [{ work: '1,500.00', percent: '50' }], 2);
    expect(worked.summary).toMatchObject({
      gross: 150_000,
      retention: 7500,
      net: 142_500,
      due: 47_500,
      tax: 9500,
      payable: 57_000,
      balanceToComplete: 157_500,
    });
    expect(worked.faults.size).toBe(0);
  });

  test('a line that would pass says by how much, in the cell', () => {
    expect(workApplication(view, [{ work: '3,000.01' }], 2).faults.get('0.work')).toBe(
      'Line 1 would pass its scheduled value by 0.01. Bill 3,000.00 or less to date',
    );
    // Allowed to pass by 0.01 in all, it says nothing; by a penny more it does.
    const allowed = { ...view, above: 1 };
    expect([...workApplication(allowed, [{ work: '3,000.01' }], 2).faults]).toEqual([]);
    expect(workApplication(allowed, [{ work: '3,000.02' }], 2).faults.has('0.work')).toBe(true);
    expect(workApplication(view, [{ work: '3,000.00', materials: '5' }], 2).faults.has('0.materials')).toBe(true);
    expect(workApplication(view, [{ percent: '120' }], 2).faults.has('0.percent')).toBe(true);
    expect(workApplication(view, [{ period: 'x' }], 2).faults.has('0.period')).toBe(true);
  });

  test.each(['-5', '33.33333', 'half'])('a percentage of %s is not passed over for the figure that was there', (percent) => {
    // 1,500.00 of 3,000.00 stand there, 50 %.
    const typed = followEntry(line(), { ...cellsOf(line(), 150_000, 0, 2), percent }, 'percent', 2);
    const { faults } = workApplication(view, [typed], 2);
    expect([...faults]).toEqual([['0.percent', `"${percent}" is not a percentage from 0 to 100 with up to 4 decimals`]]);
  });
});
