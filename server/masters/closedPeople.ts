import type { Fault } from '../../core/errors/ledrinError';
import { PersonTable } from '../company/models';
import type { Reader } from '../db/sql';

/** Refuses names, by field, of people who are closed to new use; `was` are those that stand there already. */
export async function closedPeopleFaults(
  sql: Reader,
  named: readonly { field: string; name: string }[],
  was: readonly string[] = [],
): Promise<Fault[]> {
  const closed = new Set((await sql.find(PersonTable, { closed: 1 })).map((it) => it.name));
  return named
    .filter(({ name }) => closed.has(name) && !was.includes(name))
    .map(({ field, name }) => ({
      field,
      message: `${name} is closed to new use; choose another, or open ${name} again in Set-up`,
    }));
}

/** Those of our own team, with the field each name stands in. */
export function teamNames(people: readonly { side: string; name: string }[]): { field: string; name: string }[] {
  return people.flatMap(({ side, name }, i) => (side === 'team' ? [{ field: `people.${i}.name`, name }] : []));
}
