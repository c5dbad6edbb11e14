import { Link } from 'react-router';
import type { AuditAbout } from '../../core/audit/actions';
import { useKeepMonth } from './asOf';
import { useMay } from './person';

/** Leads to what was done to a document, by whom and when. */
export function HistoryLink({ subject, about }: { subject: string; about?: AuditAbout }) {
  const keep = useKeepMonth();
  const may = useMay();
  if (!may('read-books')) return null;
  const query = new URLSearchParams({ subject, ...(about ? { about } : {}) });
  return <Link to={keep(`/ledger/audit-trail?${query}`)}>History</Link>;
}
