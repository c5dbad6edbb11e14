import type { BookFileName } from '../format/bookFiles';
import type { ExistingJob } from './existing';

/** What is known of a job beside its figures: it may be added to at any time. */
const BESIDE = new Set<BookFileName>([
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
const FINAL = new Set<BookFileName>(['costs', 'applications', 'application_lines', 'commitments', 'forecasts']);

/**
 * Why rows of a file are not added to a job the database has, as on the screens: locked takes no posting, closing out takes
 * final cost and bills only, closed is done, and the original budget is frozen at the award. null where they are.
 */
export function whyNotAdded(file: BookFileName, job: string, { status, locked, budgeted }: ExistingJob): string | null {
  if (BESIDE.has(file)) return null;
  if (locked) return `job ${job} is locked; nothing posts to it until it is unlocked`;
  if (status === 'closed' && (CONTRACT.has(file) || FINAL.has(file))) return `job ${job} is closed; it takes no more of this`;
  if (status === 'closing-out' && CONTRACT.has(file))
    return `job ${job} is closing out: it takes final cost and bills, and no more changes`;
  if (file === 'budget' && status !== 'tender' && budgeted)
    return `the original budget of job ${job} was frozen at its award; a change order or a transfer moves it`;
  return null;
}
