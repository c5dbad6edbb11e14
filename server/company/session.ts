import { JOB_COUNT, CLIENT_LIST, VENDOR_LIST, COST_CODE_LIST, JOB_LIST, MANAGERS, OPEN_COMMITMENTS } from './queries';
import { present } from '../../core/errors/known';
import { periodOf } from '../../core/calendar/plainDate';
import type { Lists, Session } from '../../wire/company';
import type { Reader } from '../db/sql';
import { newestEntryDate, findCompany } from './company';

export async function loadSession(sql: Reader, today: string, sendsMail = false): Promise<Session> {
  const [company, newest, jobs] = await Promise.all([findCompany(sql), newestEntryDate(sql), sql.get(JOB_COUNT)]);
  return { company, newestMonth: newest && periodOf(newest), jobCount: present(jobs).count, sendsMail, today };
}

/** What fields complete from. */
export async function loadLists(sql: Reader, asOf: string): Promise<Lists> {
  const [clients, vendors, costCodes, jobs, managers, commitments] = await Promise.all([
    sql.all(CLIENT_LIST),
    sql.all(VENDOR_LIST),
    sql.all(COST_CODE_LIST),
    sql.all(JOB_LIST),
    sql.all(MANAGERS),
    sql.all(OPEN_COMMITMENTS, [asOf]),
  ]);
  return {
    clients,
    vendors,
    costCodes,
    commitments,
    managers: managers.map((row) => row.manager),
    jobs: jobs.map((row) => ({
      number: row.number,
      name: row.name,
      status: row.status,
      locked: row.locked === 1,
      sections: JSON.parse(row.sections) as string[],
    })),
  };
}
