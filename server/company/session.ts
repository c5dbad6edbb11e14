import { present } from '../../core/errors/known';
import { shape, t } from '../db/fields';
import { periodOf } from '../../core/calendar/plainDate';
import type { Lists, Session } from '../../wire/company';
import type { Reader } from '../db/sql';
import { newestEntryDate, findCompany } from './company';

export async function loadSession(sql: Reader, today: string): Promise<Session> {
  const [company, newest, jobs] = await Promise.all([
    findCompany(sql),
    newestEntryDate(sql),
    sql.get(shape({ count: t.whole }), 'SELECT count(*) AS count FROM job'),
  ]);
  return { company, newestMonth: newest && periodOf(newest), jobCount: present(jobs).count, today };
}

/** What fields complete from. */
export async function loadLists(sql: Reader, asOf: string): Promise<Lists> {
  const [clients, vendors, costCodes, jobs, managers, commitments] = await Promise.all([
    sql.all(
      shape({ code: t.text, name: t.text, termsDays: t.orNull(t.whole) }),
      'SELECT code, name, terms_days AS termsDays FROM client ORDER BY code',
    ),
    sql.all(shape({ code: t.text, name: t.text, kind: t.text }), 'SELECT code, name, kind FROM vendor ORDER BY code'),
    sql.all(
      shape({ code: t.text, description: t.text, unit: t.text }),
      'SELECT code, description, unit FROM cost_code ORDER BY code',
    ),
    sql.all(
      shape({ number: t.text, name: t.text, status: t.text, locked: t.flag, sections: t.text }),
      `SELECT number, name, status, locked, (SELECT json_group_array(DISTINCT section) FROM (SELECT section FROM cost_line WHERE job_id = job.id UNION SELECT section FROM sov_line WHERE job_id = job.id) WHERE section <> '') AS sections
        FROM job ORDER BY number`,
    ),
    sql.all(shape({ manager: t.text }), `SELECT DISTINCT manager FROM job WHERE manager <> '' ORDER BY manager`),
    sql.all(
      shape({
        number: t.text,
        line: t.text,
        job: t.text,
        section: t.text,
        costCode: t.text,
        costType: t.text,
        vendor: t.text,
        description: t.text,
        open: t.cents,
      }),
      `SELECT c.number, m.line, job.number AS job, l.section, k.code AS costCode, l.cost_type AS costType, v.name AS vendor, m.description,
        max(0, m.amount - coalesce((SELECT sum(amount) FROM cost_entry WHERE commitment_line_id = m.id AND posted_on <= $1), 0)) AS open
        FROM commitment_line m JOIN commitment c ON c.id = m.commitment_id JOIN vendor v ON v.id = c.vendor_id JOIN cost_line l ON l.id = m.cost_line_id
        JOIN cost_code k ON k.id = l.cost_code_id JOIN job ON job.id = l.job_id WHERE m.closed_on IS NULL ORDER BY c.number, m.line`,
      [asOf],
    ),
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
