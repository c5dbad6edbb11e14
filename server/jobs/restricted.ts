import { LedrinError } from '../../core/errors/ledrinError';
import type { Reader } from '../db/sql';
import type { Actor } from '../acts/audit';
import type { Command } from '../acts/command';
import { fieldError } from '../acts/refused';
import { noteMove } from './jobLife';
import { jobByNumber } from './jobByNumber';
import { JobTable } from './models';
import { RESTRICTED_TO_OTHERS } from './queries';

/**
 * Throws refused where one of the jobs is restricted and whoever acts is not on its team: costs and documents come from the team
 * alone. The command line works on the file itself and is not asked.
 */
export async function assertOfTeam(sql: Reader, actor: Actor, jobIds: readonly number[]): Promise<void> {
  if (actor.role === undefined) return;
  const [job] = await sql.all(RESTRICTED_TO_OTHERS, [JSON.stringify(jobIds), actor.name]);
  if (job)
    throw new LedrinError(
      'refused',
      `Job ${job.number} is restricted: it takes costs, documents and entries from its team alone. Whoever leads it, or an owner, adds people to the team, in its job file`,
    );
}

/** The same of who is on the team, and of the restriction itself; an owner sets both whether on it or not. */
export async function assertOfTeamOrOwner(sql: Reader, actor: Actor, jobId: number): Promise<void> {
  if (actor.role !== 'owner') await assertOfTeam(sql, actor, [jobId]);
}

/** Restricts a job to its team, or opens it again. */
export async function restrictJob(command: Command, number: string, restricted: boolean, reason: string): Promise<void> {
  const { sql, actor } = command;
  const { id, status } = await jobByNumber(sql, number, 'job');
  const job = await sql.findOne(JobTable, { id });
  await assertOfTeamOrOwner(sql, actor, id);
  if ((job?.restricted === 1) === restricted)
    throw fieldError('restricted', `Job ${number} is ${restricted ? 'restricted' : 'not restricted'} already`);
  await sql.update(JobTable, { id }, { restricted: restricted ? 1 : 0 });
  await noteMove(sql, actor, id, status, restricted ? 'restricted' : 'unrestricted', null, reason);
  command.note(number, { restricted, reason });
}
