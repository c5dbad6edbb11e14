import { ANY_POSTING, HISTORY, DELETE_JOB } from './queries';
import { JobMoveTable, JobTable } from './models';
import type { Command } from '../acts/command';
import { LedrinError } from '../../core/errors/ledrinError';
import { daysAfter, moveRefusals, whyNotMoved } from '../../core/jobs/jobMoves';
import { isEnded, type JobStatus } from '../../core/jobs/jobStatus';
import type { Sql } from '../db/sql';
import type { JobMoveInput } from '../../wire/jobs';
import { jobByNumber, type JobIdentity } from './jobByNumber';
import { type Actor } from '../acts/audit';
import { assertAllowed, fieldError } from '../acts/refused';
import { countsInClosedRefusal } from '../../core/ledger/openDay';
import { assertOpenDays, closedTo } from '../ledger/closing';

/**
 * Moves a job along its life, to an end before it begins, or back from there. `on` is the day of award, of finishing or of the end,
 * where the move needs one; an end and the way back need a reason.
 */
export async function moveJob(command: Command, number: string, { status, on, reason }: JobMoveInput): Promise<void> {
  const { sql, actor } = command;
  const job = await jobByNumber(sql, number, 'job');
  const moving = { ...movingJob(job), isPosted: (await sql.get(ANY_POSTING, [job.id])) !== undefined };
  const move = { status, on, reason };
  assertAllowed(moveRefusals(moving, move));
  assertAllowed([whyNotMoved(moving, status, await closedTo(sql))], { code: 'refused' });
  if (isEnded(status) || isEnded(job.status)) await sql.update(JobTable, { id: job.id }, { status });
  else await moveAlong(command, job, daysAfter(moving, move), status);
  await noteMove(sql, actor, job.id, job.status, status, on, reason);
  command.note(number, { from: job.status, to: status, on, reason });
}

/** Says that a tender is lost or withdrawn, or takes it up again: what whoever estimates may do with a job. */
export async function endTender(command: Command, number: string, input: JobMoveInput): Promise<void> {
  const { status } = await jobByNumber(command.sql, number, 'job');
  const ended = status === 'lost' || status === 'withdrawn';
  const ends = status === 'tender' && (input.status === 'lost' || input.status === 'withdrawn');
  if (!ends && !(ended && input.status === 'tender'))
    throw fieldError('status', 'Expected a tender that is lost, withdrawn, or taken up again');
  await moveJob(command, number, input);
}

async function moveAlong(
  { sql }: Command,
  job: JobIdentity,
  { awardedOn, finishedOn }: ReturnType<typeof daysAfter>,
  status: JobStatus,
): Promise<void> {
  // A job is in the reports from its award on, and another from its finish on.
  const first = [job.awarded_on === null ? awardedOn : null, job.finished_on === null ? finishedOn : null];
  await assertOpenDays(
    sql,
    first.flatMap((it) => it ?? []),
    'on',
  );
  await sql.update(JobTable, { id: job.id }, { status, awarded_on: awardedOn, finished_on: finishedOn });
}

/** A job as its moves are judged. */
const movingJob = ({ number, status, awarded_on, finished_on }: JobIdentity) => ({
  number,
  status,
  awardedOn: awarded_on,
  finishedOn: finished_on,
});

/** Notes a move in the life of a job, in the transaction that made it. */
export async function noteMove(
  sql: Sql,
  actor: Actor,
  jobId: number,
  was: string,
  became: string,
  on: string | null,
  reason: string,
): Promise<void> {
  await sql.insert(JobMoveTable, { job_id: jobId, was, became, on_day: on, reason, actor: actor.name, at: actor.at });
}

/** Locks a job, so that nothing posts to it, or unlocks it. */
export async function lockJob(command: Command, number: string, locked: boolean, reason: string): Promise<void> {
  const { sql, actor } = command;
  const job = await jobByNumber(sql, number, 'job');
  if ((job.locked === 1) === locked) throw fieldError('locked', `Job ${number} is ${locked ? 'locked' : 'not locked'} already`);
  await sql.update(JobTable, { id: job.id }, { locked: locked ? 1 : 0 });
  await noteMove(sql, actor, job.id, job.status, locked ? 'locked' : 'unlocked', null, reason);
  command.note(number, { reason });
}

/** Deletes a job nothing ever happened on, with what was set up for it. Anything with history is saved, and what to do instead is shown. */
export async function deleteJob(command: Command, number: string): Promise<void> {
  const { sql } = command;
  const job = await jobByNumber(sql, number, 'job');
  const found: string[] = [];
  for (const [what, used] of HISTORY) if (await sql.get(used, [job.id])) found.push(what);
  if (found.length > 0)
    throw new LedrinError('refused', `Job ${number} has ${found.join(', ')}, so it cannot be deleted; ${instead(job.status)}`);
  const refused = countsInClosedRefusal(movingJob(job), 'deleted', await closedTo(sql));
  assertAllowed([refused], { code: 'refused' });
  for (const statement of DELETE_JOB) await sql.run(statement, [job.id]);
  command.note(number, { name: job.name });
}

/** What there is to do with a job that stays. */
function instead(status: string): string {
  if (status === 'tender') return 'say that it was lost or withdrawn instead';
  return status === 'awarded' ? 'cancel it instead, where nothing is posted to it' : 'close it when it is finished, or lock it';
}
