import { JOB_COUNT } from '../company/queries';
import { present } from '../../core/errors/known';
import { periodOf } from '../../core/calendar/plainDate';
import type { Session } from '../../wire/company';
import { ROLES } from '../../core/rights/rights';
import type { Reader } from '../db/sql';
import { UserTable } from './models';
import type { SignedIn } from '../acts/signedIn';
import { closedTo } from '../ledger/closing';
import { newestEntryDate, findCompany } from '../company/company';

export async function loadSession(
  sql: Reader,
  today: string,
  {
    sendsMail,
    person,
    demo,
    troubles,
  }: { sendsMail: boolean; person: SignedIn | null; demo: boolean; troubles: readonly string[] },
): Promise<Session> {
  const users = await sql.find(UserTable, { closed: 0 }, ['id']);
  const of = {
    user: person && {
      name: person.name,
      email: person.email,
      role: person.role,
      secondFactor: person.secondFactor,
      narrowed: person.narrowed ?? [],
    },
    needsOwner: users.length === 0,
    demo: demo
      ? ROLES.flatMap((role) => users.filter((it) => it.role === role && it.password === '').slice(0, 1)).map(
          ({ role, name }) => ({ role, name }),
        )
      : [],
    today,
    troubles: [...troubles],
  };
  if (!person) return { ...of, company: null, newestMonth: null, closedTo: null, jobCount: 0, sendsMail: false };
  const [company, newest, jobs] = await Promise.all([findCompany(sql), newestEntryDate(sql), sql.get(JOB_COUNT)]);
  return {
    ...of,
    company,
    newestMonth: newest && periodOf(newest),
    closedTo: await closedTo(sql),
    jobCount: present(jobs).count,
    sendsMail,
  };
}
