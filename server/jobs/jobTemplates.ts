import type { Command } from '../ledger/command';
import { LedrinError } from '../../core/errors/ledrinError';
import type { JobTemplate } from '../../wire/jobs';

/** Saves a job as typed under a name, to begin others from. */
export async function saveJobTemplate(command: Command, { name, content }: JobTemplate): Promise<void> {
  const { sql, actor } = command;
  await sql.run(
    'INSERT INTO job_template (name, content, saved_at) VALUES ($1, $2, $3) ON CONFLICT (name) DO UPDATE SET content = excluded.content, saved_at = excluded.saved_at',
    [name, JSON.stringify(content), actor.at],
  );
  command.note(name, {});
}

export async function removeJobTemplate(command: Command, name: string): Promise<void> {
  const { sql } = command;
  if (!(await sql.get('SELECT 1 FROM job_template WHERE name = $1', [name])))
    throw new LedrinError('not-found', `There is no job template called ${name}`);
  await sql.run('DELETE FROM job_template WHERE name = $1', [name]);
  command.note(name, {});
}
