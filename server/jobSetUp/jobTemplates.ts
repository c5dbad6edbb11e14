import { JobTemplateTable } from '../jobs/models';
import type { Command } from '../acts/command';
import { LedrinError } from '../../core/errors/ledrinError';
import type { JobTemplate } from '../../wire/jobs';

/** Saves a job as typed under a name, to begin others from. */
export async function saveJobTemplate(command: Command, { name, content }: JobTemplate): Promise<void> {
  const { sql, actor } = command;
  await sql.save(JobTemplateTable, [{ name, content: JSON.stringify(content), saved_at: actor.at }], ['name']);
  command.note(name, {});
}

export async function removeJobTemplate(command: Command, name: string): Promise<void> {
  const { sql } = command;
  if (!(await sql.findOne(JobTemplateTable, { name })))
    throw new LedrinError('not-found', `There is no job template called ${name}`);
  await sql.remove(JobTemplateTable, { name });
  command.note(name, {});
}
