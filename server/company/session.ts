import { JOB_COUNT, CLIENT_LIST, VENDOR_LIST, COST_CODE_LIST, JOB_LIST, PEOPLE_LIST, OPEN_COMMITMENTS } from './queries';
import { present } from '../../core/errors/known';
import { periodOf } from '../../core/calendar/plainDate';
import type { Lists, Session } from '../../wire/company';
import { ROLES } from '../../core/rights/rights';
import type { Reader } from '../db/sql';
import { UserTable } from '../users/models';
import type { SignedIn } from '../users/sessions';
import { closedTo } from '../ledger/closing';
import { newestEntryDate, findCompany } from './company';

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

/** What fields complete from. */
export async function loadLists(sql: Reader, asOf: string): Promise<Lists> {
  const [clients, vendors, costCodes, jobs, people, commitments] = await Promise.all([
    sql.all(CLIENT_LIST),
    sql.all(VENDOR_LIST),
    sql.all(COST_CODE_LIST),
    sql.all(JOB_LIST),
    sql.all(PEOPLE_LIST),
    sql.all(OPEN_COMMITMENTS, [asOf]),
  ]);
  return {
    clients,
    vendors,
    costCodes,
    commitments,
    people: people.map((row) => row.name),
    jobs: jobs.map((row) => ({
      number: row.number,
      name: row.name,
      status: row.status,
      locked: row.locked === 1,
      sections: JSON.parse(row.sections) as string[],
    })),
  };
}
