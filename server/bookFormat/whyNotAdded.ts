import { isEnded } from '../../core/jobs/jobStatus';
import type { BookFile } from './bookFile';
import type { There } from './keys';

/**
 * Why rows of a file are not added to a job the database has, as on the screens: locked takes no posting, closing out takes final
 * cost and bills only, closed is done, a job is quoted for before its award, and there its original budget is frozen. null where
 * they are.
 */
export function whyNotAdded({ takenBy }: BookFile, job: string, { status, locked, budgeted }: There): string | null {
  if (takenBy === 'always') return null;
  const contract = takenBy === 'contract' || takenBy === 'budget';
  if (locked === 1) return `job ${job} is locked; nothing posts to it until it is unlocked`;
  if (isEnded(String(status))) return `job ${job} is ${status}; leave the row out, or take the job up again first`;
  if (status === 'closed' && (contract || takenBy === 'final'))
    return `job ${job} is closed and takes no more of this; leave the row out`;
  if (status === 'closing-out' && contract)
    return `job ${job} is closing out: it takes final cost and bills, and no more changes`;
  if (takenBy === 'tender' && status !== 'tender')
    return `job ${job} is ${status}; what it asks for now goes out as a change order`;
  if (takenBy === 'budget' && status !== 'tender' && budgeted === 1)
    return `the original budget of job ${job} was frozen at its award; a change order or a transfer moves it`;
  return null;
}
