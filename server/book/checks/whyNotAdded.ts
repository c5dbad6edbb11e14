import type { BookFileName } from '../format/bookFiles';
import type { ExistingJob } from './existing';

/** What is known of a job beside its figures: it may be added to at any time. */
const NON_FINANCIAL = new Set<BookFileName>([
  'job_people',
  'job_events',
  'job_papers',
  'job_checklist',
  'job_moves',
  'messages',
  'offers',
]);
const CONTRACT = new Set<BookFileName>([
  ...(['schedule_of_values', 'budget', 'budget_transfers', 'change_orders', 'change_order_lines'] as const),
  ...(['awards', 'award_lines'] as const),
]);
const FINAL = new Set<BookFileName>([
  ...(['costs', 'applications', 'application_lines', 'commitments', 'forecasts'] as const),
  ...(['billing_instalments', 'instalment_stages'] as const),
]);
const OFFERED = new Set<BookFileName>(['quotations', 'quotation_alternates', 'quotation_payments']);

/**
 * Why rows of a file are not added to a job the database has, as on the screens: locked takes no posting, closing out takes
 * final cost and bills only, closed is done, a job is quoted for before its award, and there its original budget is frozen. null where they are.
 */
export function whyNotAdded(file: BookFileName, job: string, { status, locked, budgeted }: ExistingJob): string | null {
  if (NON_FINANCIAL.has(file)) return null;
  if (locked) return `job ${job} is locked; nothing posts to it until it is unlocked`;
  if (status === 'closed' && (CONTRACT.has(file) || FINAL.has(file)))
    return `job ${job} is closed and takes no more of this; leave the row out`;
  if (status === 'closing-out' && CONTRACT.has(file))
    return `job ${job} is closing out: it takes final cost and bills, and no more changes`;
  if (OFFERED.has(file) && status !== 'tender') return `job ${job} is ${status}; what it asks for now goes out as a change order`;
  if (file === 'budget' && status !== 'tender' && budgeted)
    return `the original budget of job ${job} was frozen at its award; a change order or a transfer moves it`;
  return null;
}
