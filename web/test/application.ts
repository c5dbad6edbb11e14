import type { ApplicationView, BilledLineView } from '../../wire/billing';

/** A line of 3,000.00, applied for with 1,500.00 after 1,000.00 before. */
const line = (name: string): BilledLineView => ({
  line: name,
  section: '',
  description: 'Slating',
  scheduled: 300_000,
  previousWork: 100_000,
  work: 150_000,
  materials: 0,
  appliedWork: 150_000,
  appliedMaterials: 0,
  toDate: 150_000,
  retention: 7500,
  retentionRate: null,
  earnedByCost: null,
  bySchedule: null,
});

/**
 * An application of two such lines at 5 % retention and 20 % tax: 3,000.00 gross, 150.00 held, 2,850.00 net, less 1,900.00 before:
 * 950.00 due, 190.00 tax, 1,140.00 payable.
 */
export const APPLICATION = {
  job: '2105',
  number: 2,
  version: 4,
  dated: '2031-04-22',
  status: 'submitted',
  lines: [line('1'), line('2')],
  earned: 0,
  summary: {
    originalContractSum: 600_000,
    changeOrders: 0,
    contractSum: 600_000,
    work: 300_000,
    materials: 0,
    gross: 300_000,
    retention: 15_000,
    net: 285_000,
    previouslyCertified: 190_000,
    due: 95_000,
    tax: 19_000,
    payable: 114_000,
    retentionReleased: 0,
    balanceToComplete: 315_000,
  },
  retentionRule: { rate: 50_000, materialsRate: null, step: null, cap: null },
  taxRate: 200_000,
  taxName: 'VAT',
  above: 0,
} as unknown as ApplicationView;
