import { TransfersPart } from '../../features/budget/TransfersPart';
import { JobBudget } from '../../features/reports/EstimateVsActual';

/** The budget against actual cost, and what was moved between its lines. */
export function BudgetAndTransfers() {
  return (
    <>
      <JobBudget />
      <TransfersPart />
    </>
  );
}
