import { isFilled } from '../../kit/grid/filledRow';
import { amount, day, optional, quantity, readAt } from '../../kit/typed/codecs';
import { COST_TYPES, type CostType } from '../../../core/costs/costType';
import type { CostLineInput } from '../../../wire/costs';
import type { Lists } from '../../../wire/company';
import type { GridRow } from '../../kit/grid/gridTypes';

export interface ReadBatch {
  lines: CostLineInput[];
  /** Row of the grid each line came from. */
  rowOf: number[];
  faults: Map<string, string>;
  total: number;
  hours: number;
}

const text = (value: string | undefined) => (value ?? '').trim();

/** Reads the rows of the cost grid, and says of every wrong cell what is wrong with it. Empty rows are passed over. */
export function readBatch(rows: readonly GridRow[], lists: Lists, month: string, digits: number): ReadBatch {
  const faults = new Map<string, string>();
  const jobs = new Set(lists.jobs.map((it) => it.number));
  const codes = new Set(lists.costCodes.map((it) => it.code));
  const [date, money] = [day(month), amount(digits)];
  const lines: CostLineInput[] = [];
  const rowOf: number[] = [];
  rows.forEach((row, i) => {
    if (!isFilled(row)) return;
    const fault = (key: string, message: string) => void faults.set(`${i}.${key}`, message);
    const at = (key: string) => `${i}.${key}`;
    const [job, costCode, costType] = [text(row.job), text(row.costCode), text(row.costType).toLowerCase()];
    if (!jobs.has(job)) fault('job', job === '' ? 'Expected a job' : `There is no job ${job}`);
    if (!codes.has(costCode)) fault('costCode', costCode === '' ? 'Expected a cost code' : `There is no cost code ${costCode}`);
    if (!COST_TYPES.includes(costType as CostType)) fault('costType', `Expected one of ${COST_TYPES.join(', ')}`);
    if (text(row.reference) === '') fault('reference', 'Expected a reference: the number of the docket, sheet or bill');
    rowOf.push(i);
    lines.push({
      dated: readAt(faults, at('dated'), row.dated, date, ''),
      postedOn: readAt(faults, at('postedOn'), row.postedOn, optional(date, null), null),
      job,
      section: text(row.section),
      costCode,
      costType: costType as CostType,
      party: text(row.party),
      reference: text(row.reference),
      hours: readAt(faults, at('hours'), row.hours, optional(quantity, null), null),
      amount: readAt(faults, at('amount'), row.amount, money, 0),
      description: text(row.description),
      commitment: text(row.commitment),
      uninstalled: /^y/i.test(text(row.uninstalled)),
    });
  });
  return {
    lines,
    rowOf,
    faults,
    total: lines.reduce((sum, it) => sum + it.amount, 0),
    hours: lines.reduce((sum, it) => sum + (it.hours ?? 0), 0),
  };
}
