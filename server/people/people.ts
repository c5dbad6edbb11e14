import { dayOf } from '../acts/audit';
import { LedrinError } from '../../core/errors/ledrinError';
import { present } from '../../core/errors/known';
import type { AnonymousInput } from '../../wire/people';
import { PersonTable } from '../company/models';
import { fieldError } from '../acts/refused';
import type { Reader } from '../db/sql';
import { withoutTriggers } from '../db/withoutTriggers';
import type { Command } from '../acts/command';
import { SessionTable, UserTable } from '../users/models';
import {
  FORGET_REPLIES,
  LARGEST_FORMER,
  LAST_ACT,
  NAMING,
  PERSONAL_DATA,
  RENAME_EVERYWHERE,
  RENAME_IN_AUDIT,
  RENAME_ON_TEAMS,
  RUNNING_JOBS,
} from './queries';

interface Known {
  person: { id: number; closed: number } | undefined;
  user: { id: number; email: string; closed: number } | undefined;
}

async function knownPerson(sql: Reader, name: string): Promise<Known> {
  const [person, user] = [await sql.findOne(PersonTable, { name }), await sql.findOne(UserTable, { name })];
  if (!person && !user) throw new LedrinError('not-found', `There is no person ${name.slice(0, 60)}`);
  return { person, user };
}

/** All that is saved of a person, part by part. */
export async function personalData(sql: Reader, name: string, at: string): Promise<Record<string, unknown>> {
  await knownPerson(sql, name);
  const parts: Record<string, unknown> = { of: name, takenAt: at };
  for (const [part, statement] of Object.entries(PERSONAL_DATA)) parts[part] = await sql.anyRows(statement, [name]);
  return parts;
}

const emailOf = (former: string) => `${former.toLowerCase().replaceAll(' ', '-')}@nobody.invalid`;

/**
 * Puts "Former employee N" in the place of a name, everywhere, and forgets what else was known of the person. Refused while the
 * person signs in, is named on running jobs, or made records that the law wants to stand with the name.
 */
export async function makeAnonymous(command: Command, name: string, { years }: AnonymousInput): Promise<{ name: string }> {
  const { sql, actor } = command;
  const { person, user } = await knownPerson(sql, name);
  if (user?.closed === 0) throw new LedrinError('refused', `${name} still signs in; close the user first, in Set-up, Users`);
  if (person?.closed === 0) throw new LedrinError('refused', `${name} is still open to new use; close the person first`);
  const running = (await sql.all(RUNNING_JOBS, [name])).map((it) => it.number);
  if (running.length > 0)
    throw new LedrinError('refused', `${name} is named on running jobs: ${running.join(', ')}; name somebody else there first`);
  const last = (await sql.get(LAST_ACT, [name]))?.at?.slice(0, 10) ?? null;
  const until = last && `${Number(last.slice(0, 4)) + years}${last.slice(4)}`;
  if (until && until > dayOf(actor))
    throw fieldError('years', `${name} last recorded something on ${last}; after ${years} years, on ${until}, the name may go`);
  const former = `Former employee ${present(await sql.get(LARGEST_FORMER, [])).count + 1}`;
  const renames: [statement: string, was: string, becomes: string][] = [
    ...[...RENAME_EVERYWHERE, RENAME_ON_TEAMS, ...RENAME_IN_AUDIT].map((it): [string, string, string] => [it, name, former]),
    ...RENAME_IN_AUDIT.map((it): [string, string, string] => [it, user?.email ?? name, emailOf(former)]),
  ];
  // What is posted, certified or sent stays as it is, but for whose name stands on it.
  await withoutTriggers(sql, [...Object.keys(NAMING), 'job_person'], async () => {
    for (const [statement, was, becomes] of renames) await sql.run(statement, [was, becomes]);
  });
  if (person) await sql.update(PersonTable, { id: person.id }, { role: '', email: '', phone: '' });
  if (user) {
    await sql.remove(SessionTable, { user_id: user.id });
    await sql.update(
      UserTable,
      { id: user.id },
      {
        email: emailOf(former),
        password: '',
        invitation: '',
        invited_until: '',
        second_factor: '',
        factor_begun: '',
        recovery: '[]',
      },
    );
  }
  await sql.run(FORGET_REPLIES, [name]);
  // Whom it was is not noted: the trail would name them again.
  command.note(`user ${former}`, { years });
  return { name: former };
}
