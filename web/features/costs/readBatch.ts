import { COST_TYPES, type CostType } from '../../../core/costs/costType';
import { parseQuantity } from '../../../core/money/rate';
import type { CostLineInput } from '../../../wire/costs';
import type { Lists } from '../../../wire/company';
import { readAmount } from '../../kit/typed/tidyAmount';
import type { GridRow } from '../../kit/grid/gridTypes';
import { readDate } from '../../kit/typed/readDate';
import { withoutThousands } from '../../kit/typed/withoutThousands';

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
  const lines: CostLineInput[] = [];
  const rowOf: number[] = [];
  rows.forEach((row, i) => {
    if (!Object.values(row).some((it) => text(it) !== '')) return;
    const fault = (key: string, message: string) => void faults.set(`${i}.${key}`, message);
    const dated = readDate(text(row.dated), month);
    if (!dated)
      fault(
        'dated',
        text(row.dated) === '' ? 'Expected a day' : `"${row.dated}" is not a valid date; enter one such as 30 Apr 2031`,
      );
    const postedOn = text(row.postedOn) === '' ? null : readDate(text(row.postedOn), month);
    if (text(row.postedOn) !== '' && !postedOn)
      fault('postedOn', `"${row.postedOn}" is not a valid date; enter one such as 30 Apr 2031`);
    const [job, costCode, costType] = [text(row.job), text(row.costCode), text(row.costType).toLowerCase()];
    if (!jobs.has(job)) fault('job', job === '' ? 'Expected a job' : `There is no job ${job}`);
    if (!codes.has(costCode)) fault('costCode', costCode === '' ? 'Expected a cost code' : `There is no cost code ${costCode}`);
    if (!COST_TYPES.includes(costType as CostType)) fault('costType', `Expected one of ${COST_TYPES.join(', ')}`);
    if (text(row.reference) === '') fault('reference', 'Expected a reference: the number of the docket, sheet or bill');
    const hours = text(row.hours) === '' ? null : parseQuantity(withoutThousands(text(row.hours)));
    if (hours && !hours.ok) fault('hours', `"${row.hours}" is not a number of hours`);
    const amount = readAmount(text(row.amount), digits);
    if (amount === null)
      fault(
        'amount',
        text(row.amount) === '' ? 'Expected an amount' : `"${row.amount}" is not a valid amount; enter one such as 1,250.00`,
      );
    rowOf.push(i);
    lines.push({
      dated: dated ?? '',
      postedOn,
      job,
      section: text(row.section),
      costCode,
      costType: costType as CostType,
      party: text(row.party),
      reference: text(row.reference),
      hours: hours?.ok ? hours.value : null,
      amount: amount ?? 0,
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
