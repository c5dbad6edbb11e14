import { CLIENT_LIST, VENDOR_LIST, COST_CODE_LIST, JOB_LIST, PEOPLE_LIST, OPEN_COMMITMENTS } from './queries';
import type { Lists } from '../../wire/company';
import type { Reader } from '../db/sql';

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
