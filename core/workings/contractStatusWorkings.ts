import { contractStatus, STATUS_FIGURES, totalContractStatus, type ContractPosition } from '../progress/contractStatus';
import type { StatusFigure } from '../progress/contractStatus';
import { money, type Operand, type Workings } from './workings';

/** Figures of the contract status that follow from its others; the rest stand on the schedule, the budget and change orders. */
type Derived = 'originalProfit' | 'revisedCost' | 'overrun';

const SUMS: Record<Derived, { rule: string; of: readonly (readonly [StatusFigure, '' | '+' | '−'])[] }> = {
  originalProfit: {
    rule: 'Original contract sum less original cost.',
    of: [
      ['originalSum', ''],
      ['originalCost', '−'],
    ],
  },
  revisedCost: {
    rule: 'Original cost plus the cost of change orders approved by the date.',
    of: [
      ['originalCost', ''],
      ['changesCost', '+'],
    ],
  },
  overrun: {
    rule: 'Estimate at completion less revised cost: what the job is estimated to cost beyond its budget; below zero it stays within it.',
    of: [
      ['estimate', ''],
      ['revisedCost', '−'],
    ],
  },
};

export const DERIVED_STATUS = Object.keys(SUMS) as Derived[];

/** How a figure is called wherever it is opened. */
export function statusName(figure: StatusFigure): string {
  return STATUS_FIGURES[figure].same ?? figure;
}

/** Explains a figure of one job that follows from its others. */
export function explainStatus(figure: Derived, subject: string, job: string, it: ContractPosition): Workings {
  const status = contractStatus(it);
  const { rule, of } = SUMS[figure];
  const operands = of.map(([name, sign]): Operand =>
    money(STATUS_FIGURES[name].title, status[name], sign, { figure: { figure: statusName(name), job } }),
  );
  return { title: STATUS_FIGURES[figure].title, subject, rule, operands, result: status[figure], unit: 'money' };
}

/** Explains a figure over all jobs: each job's own, added up. */
export function explainStatusTotal(
  figure: StatusFigure,
  jobs: readonly { number: string; name: string; contract: ContractPosition }[],
): Workings {
  const { title } = STATUS_FIGURES[figure];
  const operands = jobs
    .map((job) => ({ job, value: contractStatus(job.contract)[figure] }))
    .filter(({ value }) => value !== 0)
    .map(({ job, value }) =>
      money(`${job.number} ${job.name}`, value, '+', { figure: { figure: statusName(figure), job: job.number } }),
    );
  const result = totalContractStatus(jobs.map((it) => it.contract))[figure];
  return { title, subject: 'All jobs in the WIP schedule', rule: 'The sum over all jobs.', operands, result, unit: 'money' };
}
