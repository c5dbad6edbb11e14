import { Link } from 'react-router';
import type { AuditAbout } from '../../core/audit/abouts';
import { useWithMonth } from './asOf';
import { useMay } from './person';

type HistoryOf = { subject: string; about?: AuditAbout } | { job: string };

/** Leads to what was done to a document, or to a job and all its documents: by whom, when, and what was before. */
export function HistoryLink(of: HistoryOf) {
  const withMonth = useWithMonth();
  const may = useMay();
  if (!may('read-books')) return null;
  return <Link to={withMonth(`/ledger/audit-trail?${new URLSearchParams({ ...of })}`)}>History</Link>;
}
