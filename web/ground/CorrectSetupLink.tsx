import { Link } from 'react-router';
import { useJobSetupQuery } from './api/api';
import { useWithMonth } from './asOf';

/** Leads to where the original schedule and budget of a job are corrected, while they can be. */
export function CorrectSetupLink({ job, otherwise }: { job: string; otherwise?: string }) {
  const withMonth = useWithMonth();
  const { data } = useJobSetupQuery({ job });
  if (!data) return null;
  if (data.frozen) return otherwise ? <p className="note m-0">{otherwise}</p> : null;
  return (
    <Link className="button" to={withMonth(`/jobs/${encodeURIComponent(job)}/set-up`)}>
      Enter or correct schedule and budget …
    </Link>
  );
}
