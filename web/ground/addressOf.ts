import type { JobPlace, Place } from '../../core/places/place';

/** Where each place of a job stands below it; `:document` is the document's number. */
const JOB_PLACES: Record<JobPlace, string> = {
  contract: 'contract',
  'set-up': 'set-up',
  budget: 'budget',
  costs: 'costs',
  'material-on-site': 'material-on-site',
  billing: 'billing',
  'billing-schedule': 'billing/schedule',
  charging: 'charging',
  daywork: 'charging/:document',
  application: 'billing/:document',
  changes: 'changes',
  change: 'changes/:document',
  estimates: 'estimates',
  estimate: 'estimates/:document',
  award: 'estimates/:document/award',
  quotation: 'quotations/:document',
  'job-file': 'file',
};

/** The address of a place within the product. */
export function addressOf(to: Place): string {
  if (to.place === 'posting') return `/ledger/postings/${encodeURIComponent(to.document)}`;
  if (to.place === 'approval') return `/approvals/${encodeURIComponent(to.document)}`;
  if (to.place === 'week-sheet') return `/costs/time/sheets/${encodeURIComponent(to.document)}`;
  if (to.place === 'week') return `/costs/time/new?on=${encodeURIComponent(to.document)}`;
  const part = JOB_PLACES[to.place].replace(':document', encodeURIComponent(to.document ?? ''));
  const filter = to.filter ? `?${new URLSearchParams(to.filter)}` : '';
  return `/jobs/${encodeURIComponent(to.job)}/${part}${filter}`;
}

/** Where the cost entries of a place are moved elsewhere; null where it holds none. */
export function moveAddressOf(to: Place): string | null {
  if (to.place !== 'costs') return null;
  return `/costs/correct?${new URLSearchParams({ way: 'move', job: to.job, ...to.filter })}`;
}
