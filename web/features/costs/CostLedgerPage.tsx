import { Link, useParams } from 'react-router';
import { useWithMonth } from '../../ground/asOf';
import { May } from '../../ground/person';
import { CostLedger } from './CostLedger';

/** The cost ledger of all jobs. */
export function CostLedgerPage() {
  const withMonth = useWithMonth();
  return (
    <div className="page">
      <div className="mb-3 flex items-end justify-between gap-6">
        <h1>Cost ledger</h1>
        <May do="post-costs">
          <Link className="button main" to={withMonth('/costs')}>
            Enter costs
          </Link>
        </May>
      </div>
      <CostLedger />
    </div>
  );
}

/** The cost ledger as a part of a job's page. */
export function JobCosts() {
  const { number } = useParams();
  return <CostLedger job={number} />;
}
