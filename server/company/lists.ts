import {
  CHECKLIST_NAMES,
  CLIENT_LIST,
  COST_CODE_LIST,
  DEPARTMENT_LIST,
  JOB_LIST,
  KIND_LIST,
  OPEN_COMMITMENTS,
  PEOPLE_LIST,
  VENDOR_LIST,
  WORK_KIND_LIST,
} from './queries';
import type { Lists } from '../../wire/company';
import type { Reader } from '../db/sql';

/** What fields complete from. */
export async function loadLists(sql: Reader, asOf: string): Promise<Lists> {
  const [clients, vendors, costCodes, jobs, people, commitments, kinds, departments, workKinds, checklists] = await Promise.all([
    sql.all(CLIENT_LIST),
    sql.all(VENDOR_LIST),
    sql.all(COST_CODE_LIST),
    sql.all(JOB_LIST),
    sql.all(PEOPLE_LIST),
    sql.all(OPEN_COMMITMENTS, [asOf]),
    sql.all(KIND_LIST),
    sql.all(DEPARTMENT_LIST),
    sql.all(WORK_KIND_LIST),
    sql.all(CHECKLIST_NAMES),
  ]);
  return {
    clients,
    vendors,
    costCodes,
    commitments,
    kinds,
    departments,
    workKinds,
    checklists: checklists.map((row) => row.name),
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
