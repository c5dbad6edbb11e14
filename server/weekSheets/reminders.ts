import { LedrinError } from '../../core/errors/ledrinError';
import type { Reminded, WeekRegister } from '../../wire/weekSheets';
import type { Command } from '../acts/command';
import type { Reader } from '../db/sql';
import { ReminderTable } from './models';
import { REMINDERS_OF_WEEK, WHO_HANDS_IN } from './queries';

type Missing = WeekRegister['missing'];

/** Those without hours of a week, with who of the users hands them in, and whether they were reminded. */
export async function withReminders(
  sql: Reader,
  week: string,
  missing: readonly { employee: string; name: string }[],
): Promise<Missing> {
  const reminded = new Map((await sql.all(REMINDERS_OF_WEEK, [week])).map((it) => [it.employee, it]));
  return (await handsIn(sql, missing)).map(({ employee, name, user }) => {
    const last = reminded.get(employee);
    return { employee, name, by: user, reminded: last ? { user: last.user, at: last.at } : null };
  });
}

const handsIn = (sql: Reader, missing: readonly { employee: string }[]) =>
  sql.all(WHO_HANDS_IN, [JSON.stringify(missing.map((it) => it.employee))]);

/** Reminds whoever hands in the hours that are missing of a week: it waits for them until the hours are there. */
export async function remindMissing(command: Command, week: string, missing: readonly { employee: string }[]): Promise<Reminded> {
  const { sql, actor } = command;
  const rows = await handsIn(sql, missing);
  const told = rows.flatMap(({ employeeId, userId, user }) =>
    userId === null || user === null ? [] : [{ employeeId, userId, user }],
  );
  if (told.length === 0)
    throw new LedrinError(
      'refused',
      rows.length === 0
        ? 'Everybody who is employed has hours in this week; there is nobody to remind'
        : 'Nobody who signs in hands in these hours yet; enter them once, and whoever did is reminded from then on',
    );
  await sql.save(
    ReminderTable,
    told.map((it) => ({
      week,
      employee_id: it.employeeId,
      user_id: it.userId,
      reminded_by: actor.name,
      reminded_at: actor.at,
    })),
    ['week', 'employee_id'],
  );
  const people = [...new Set(told.map((it) => it.user))].sort();
  command.note(`reminder ${week}`, { reminded: people, hoursOf: told.length });
  return { reminded: people, nobody: rows.filter((it) => it.userId === null).map((it) => it.name) };
}
