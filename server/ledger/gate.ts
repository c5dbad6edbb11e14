import { JOBS_AMONG, NEWEST_OF_JOBS } from './queries';
import type { PlainDate } from '../../core/calendar/plainDate';
import { takesRefusal } from '../../core/jobs/takes';
import { postingOfKind, type PostingKind } from '../../core/ledger/posting';
import { farAheadRefusal } from '../../core/ledger/postingDay';
import { refuse, type Refusal } from '../../core/refusals/refusal';
import { dayOf, type Actor } from '../acts/audit';
import { assertAllowed } from '../acts/refused';
import type { Reader } from '../db/sql';
import { assertOpenDays } from './closing';

/** What is to be posted, as far as the gate asks. */
export interface ToPost {
  kind: PostingKind;
  jobIds: readonly number[];
  /** Every accounting date of it: its own, and those of its journals. */
  days: readonly PlainDate[];
  /** The field of the input that a closed day is said at; `dated` unless it is named. */
  dayField?: string;
}

/**
 * The one gate of all that is posted. Throws refused where a job of it is locked or does not take the kind, and bad input where a day
 * of it is closed, or more than a year ahead of all that is known.
 */
export async function assertMayPost(sql: Reader, actor: Actor, { kind, jobIds, days, dayField }: ToPost): Promise<void> {
  const jobs = await sql.all(JOBS_AMONG, [JSON.stringify(jobIds)]);
  assertAllowed([lockedAmong(jobs)], { code: 'refused' });
  const { takes } = postingOfKind(kind);
  if (takes !== null) for (const job of jobs) assertAllowed([takesRefusal(job, takes)], { code: 'refused' });
  const latest = days.reduce<PlainDate>((last, it) => (it > last ? it : last), '');
  await assertNotFarAhead(sql, actor, latest, jobIds);
  await assertOpenDays(sql, days, dayField);
}

/** Refuses to post to jobs of which one is locked; null where none is. */
export async function lockedJob(sql: Reader, jobIds: readonly number[]): Promise<Refusal | null> {
  return lockedAmong(await sql.all(JOBS_AMONG, [JSON.stringify(jobIds)]));
}

function lockedAmong(jobs: readonly { number: string; locked: number }[]): Refusal | null {
  const locked = jobs.find((it) => it.locked);
  return locked ? refuse('job-locked', 'job', { job: locked.number }) : null;
}

/** Throws bad input where a document is dated more than a year ahead of today and of all that is known of its jobs. */
export async function assertNotFarAhead(sql: Reader, actor: Actor, on: PlainDate, jobIds: readonly number[]): Promise<void> {
  const today = dayOf(actor);
  if (farAheadRefusal(on, [today]) === null) return;
  const known = await sql.get(NEWEST_OF_JOBS, [JSON.stringify(jobIds)]);
  assertAllowed([farAheadRefusal(on, [today, known?.newest ?? null])]);
}
