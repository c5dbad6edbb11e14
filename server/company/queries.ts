import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const NEWEST_ENTRY = query(
  shape({ newest: t.orNull(t.text) }),
  `SELECT max(d) AS newest FROM (SELECT (SELECT max(posted_on) FROM cost_entry) AS d UNION ALL SELECT max(certified_on) FROM application WHERE status = 'certified'
      UNION ALL SELECT max(dated) FROM retention_release UNION ALL SELECT max(dated) FROM receipt
      UNION ALL SELECT max(dated) FROM daywork_invoice WHERE status = 'issued' UNION ALL SELECT max(dated) FROM invoice_credit
      UNION ALL SELECT max(posted_on) FROM time_line WHERE status = 'posted')`,
);

export const CURRENCY = query(shape({ currency: t.text }), 'SELECT currency FROM company');

export const ANY_JOB = query(shape({ used: t.flag }), 'SELECT 1 AS used FROM job LIMIT 1');

export const COST_CODES = query(shape({ code: t.text }), 'SELECT code FROM cost_code');

export const JOB_COUNT = query(shape({ count: t.whole }), 'SELECT count(*) AS count FROM job');

export const CLIENT_LIST = query(
  shape({ code: t.text, name: t.text, termsDays: t.orNull(t.whole) }),
  'SELECT code, name, terms_days AS termsDays FROM client WHERE closed = 0 ORDER BY code',
);

export const VENDOR_LIST = query(
  shape({ code: t.text, name: t.text, kind: t.text }),
  'SELECT code, name, kind FROM vendor WHERE closed = 0 ORDER BY code',
);

const NAMED = shape({ code: t.text, name: t.text });
export const KIND_LIST = query(NAMED, 'SELECT code, name FROM job_kind WHERE closed = 0 ORDER BY code');
export const DEPARTMENT_LIST = query(NAMED, 'SELECT code, name FROM department WHERE closed = 0 ORDER BY code');
export const WORK_KIND_LIST = query(NAMED, 'SELECT code, description AS name FROM work_kind ORDER BY code');
export const CHECKLIST_NAMES = query(shape({ name: t.text }), 'SELECT name FROM check_template ORDER BY name');

export const COST_CODE_LIST = query(
  shape({ code: t.text, description: t.text, unit: t.text }),
  'SELECT code, description, unit FROM cost_code WHERE closed = 0 ORDER BY code',
);

export const JOB_LIST = query(
  shape({ number: t.text, name: t.text, status: t.text, locked: t.flag, sections: t.text }),
  `SELECT number, name, status, locked, (SELECT json_group_array(DISTINCT section) FROM (SELECT section FROM cost_line WHERE job_id = job.id UNION SELECT section FROM sov_line WHERE job_id = job.id) WHERE section <> '') AS sections
        FROM job ORDER BY number`,
);

/** Our own people, and whoever signs in. */
export const PEOPLE_LIST = query(
  shape({ name: t.text }),
  'SELECT name FROM person WHERE closed = 0 UNION SELECT name FROM user WHERE closed = 0 ORDER BY name',
);

export const OPEN_COMMITMENTS = query(
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
);
