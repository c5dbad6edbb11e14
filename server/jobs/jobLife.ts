import { HISTORY, DELETE_JOB } from './queries';
import { JobMoveTable, JobTable } from './models';
import type { Command } from '../ledger/command';
import { LedrinError } from '../../core/errors/ledrinError';
import { JOB_STATUSES, type JobStatus } from '../../core/jobs/jobStatus';
import type { Sql } from '../db/sql';
import { jobByNumber } from './jobByNumber';
import { refuseUnready } from './readiness';
import { type Actor } from '../ledger/audit';
import { fieldError } from '../company/saveCompany';

const LIFE: readonly string[] = JOB_STATUSES;

/** Moves a job along its life. `on` is the day of award or of finishing, where the move needs one. */
export async function moveJob(command: Command, number: string, status: JobStatus, on: string | null): Promise<void> {
  const { sql, actor } = command;
  const job = await jobByNumber(sql, number, 'job');
  if (LIFE.indexOf(status) <= LIFE.indexOf(job.status))
    throw fieldError(
      'status',
      `Job ${number} is ${job.status}; it moves on to ${LIFE.slice(LIFE.indexOf(job.status) + 1).join(', ') || 'nothing more'}`,
    );
  const awardedOn = job.awarded_on ?? on;
  if (awardedOn === null) throw fieldError('on', 'Give the day the job was awarded');
  const finishes = status === 'closing-out' || status === 'closed';
  const finishedOn = finishes ? (job.finished_on ?? on) : null;
  if (status === 'closed' && finishedOn === null) throw fieldError('on', 'A closed job needs the day it was finished');
  if (finishedOn !== null && finishedOn < awardedOn)
    throw fieldError('on', `Finished on ${finishedOn} is before the award, ${awardedOn}`);
  await refuseUnready(sql, job, status);
  await sql.update(JobTable, { id: job.id }, { status, awarded_on: awardedOn, finished_on: finishedOn });
  await noteMove(sql, actor, job.id, job.status, status, on, '');
  command.note(number, { from: job.status, to: status, on });
}

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

/** Deletes a tender nothing ever happened on. Anything with history is saved, and what to do instead is shown. */
export async function deleteJob(command: Command, number: string): Promise<void> {
  const { sql } = command;
  const job = await jobByNumber(sql, number, 'job');
  if (job.status !== 'tender')
    throw new LedrinError(
      'refused',
      `Job ${number} was awarded, so it cannot be deleted; close it when it is finished, or lock it so that nothing posts to it`,
    );
  const found: string[] = [];
  for (const [what, used] of HISTORY) if (await sql.get(used, [job.id])) found.push(what);
  if (found.length > 0)
    throw new LedrinError('refused', `Tender ${number} has ${found.join(', ')}, so it cannot be deleted; lock it instead`);
  for (const statement of DELETE_JOB) await sql.run(statement, [job.id]);
  command.note(number, { name: job.name });
}
