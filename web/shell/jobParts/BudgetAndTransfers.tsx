import { useParams } from 'react-router';
import { CorrectSetupLink } from '../../ground/CorrectSetupLink';
import { TransfersPart } from '../../features/budget/TransfersPart';
import { JobBudget } from '../../features/reports/EstimateVsActual';

/** The budget against actual cost, and what was moved between its lines. */
export function BudgetAndTransfers() {
  const { number = '' } = useParams();
  return (
    <>
      <div className="float-right">
        <CorrectSetupLink job={number} />
      </div>
      <JobBudget />
      <TransfersPart />
    </>
  );
}
