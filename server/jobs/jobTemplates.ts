import { LedrinError } from '../../core/errors/ledrinError';
import type { JobTemplate } from '../../wire/jobs';
import type { Database } from '../db/database';
import { record, type Actor } from '../ledger/post';

/** Keeps a job as typed under a name, to begin others from. */
export async function saveJobTemplate(database: Database, actor: Actor, { name, content }: JobTemplate): Promise<void> {
  await database.write(async (sql) => {
    await sql.run(
      'INSERT INTO job_template (name, content, saved_at) VALUES ($1, $2, $3) ON CONFLICT (name) DO UPDATE SET content = excluded.content, saved_at = excluded.saved_at',
      [name, JSON.stringify(content), actor.at],
    );
    await record(sql, actor, 'save-job-template', name, {});
  });
}

export async function removeJobTemplate(database: Database, actor: Actor, name: string): Promise<void> {
  await database.write(async (sql) => {
    if (!(await sql.get('SELECT 1 FROM job_template WHERE name = $1', [name])))
      throw new LedrinError('not-found', `There is no job template called ${name}`);
    await sql.run('DELETE FROM job_template WHERE name = $1', [name]);
    await record(sql, actor, 'remove-job-template', name, {});
  });
}
