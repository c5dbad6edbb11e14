import type { Cents } from '../money/cents';

/** What a job was signed and budgeted at, what change orders made of it by a date, and what it is estimated at. Amounts in minor units. */
export interface ContractPosition {
  originalSum: Cents;
  originalCost: Cents;
  /** Price and cost lines of change orders approved by the date. */
  changesPrice: Cents;
  changesCost: Cents;
  /** Estimate at completion. */
  estimate: Cents;
}

/** One row of the contract status, docs/rules.md §8a. original + changes + overrun = estimate at completion, always. */
export interface ContractStatus {
  originalSum: Cents;
  originalCost: Cents;
  originalProfit: Cents;
  changesPrice: Cents;
  changesCost: Cents;
  contractSum: Cents;
  revisedCost: Cents;
  /** What the job is estimated to cost beyond its revised budget; below zero: less. */
  overrun: Cents;
  estimate: Cents;
  estimatedProfit: Cents;
}

export function contractStatus(it: ContractPosition): ContractStatus {
  const contractSum = it.originalSum + it.changesPrice;
  const revisedCost = it.originalCost + it.changesCost;
  return {
    originalSum: it.originalSum,
    originalCost: it.originalCost,
    originalProfit: it.originalSum - it.originalCost,
    changesPrice: it.changesPrice,
    changesCost: it.changesCost,
    contractSum,
    revisedCost,
    overrun: it.estimate - revisedCost,
    estimate: it.estimate,
    estimatedProfit: contractSum - it.estimate,
  };
}

/** The status of all jobs together. */
export function totalContractStatus(jobs: readonly ContractPosition[]): ContractStatus {
  const sum = (of: (it: ContractPosition) => Cents) => jobs.reduce((total, it) => total + of(it), 0);
  return contractStatus({
    originalSum: sum((it) => it.originalSum),
    originalCost: sum((it) => it.originalCost),
    changesPrice: sum((it) => it.changesPrice),
    changesCost: sum((it) => it.changesCost),
    estimate: sum((it) => it.estimate),
  });
}

/** A figure of the contract status as it is named everywhere. */
interface NamedStatus {
  title: string;
  /** Its column in the report, docs/book.md. */
  column: string;
  /** The figure of work in progress that is the same; null where work in progress has none. */
  same: 'contractSum' | 'estimate' | 'estimatedProfit' | null;
}

const own = (column: string, title: string): NamedStatus => ({ title, column, same: null });

/** In the order of the report. The report, its downloads, the pages and the workings read them from here. */
export const STATUS_FIGURES = {
  originalSum: own('original_contract_sum', 'Original contract sum'),
  originalCost: own('original_cost', 'Original cost'),
  originalProfit: own('original_profit', 'Original profit'),
  changesPrice: own('changes_price', 'Changes, price'),
  changesCost: own('changes_cost', 'Changes, cost'),
  contractSum: { title: 'Contract sum', column: 'contract_sum', same: 'contractSum' },
  revisedCost: own('revised_cost', 'Revised cost'),
  overrun: own('overrun', 'Overrun'),
  estimate: { title: 'Estimate at completion', column: 'estimated_cost', same: 'estimate' },
  estimatedProfit: { title: 'Estimated profit', column: 'estimated_profit', same: 'estimatedProfit' },
} as const satisfies Record<keyof ContractStatus, NamedStatus>;
export type StatusFigure = keyof typeof STATUS_FIGURES;
export const STATUS_FIGURE_NAMES = Object.keys(STATUS_FIGURES) as StatusFigure[];
