import { COST_TYPES } from '../../core/costs/costType';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

const PostedEntry = shape({
  id: t.whole,
  posting_id: t.whole,
  job_id: t.whole,
  cost_line_id: t.whole,
  job: t.text,
  status: t.text,
  section: t.text,
  cost_code_id: t.whole,
  cost_code: t.text,
  cost_type: t.oneOf(...COST_TYPES),
  dated: t.day,
  posted_on: t.day,
  amount: t.cents,
  quantity: t.orNull(t.quantity),
  hours: t.orNull(t.hours),
  reference: t.text,
  party: t.text,
  description: t.text,
  commitment_line_id: t.orNull(t.whole),
  commitment: t.orNull(t.text),
  uninstalled: t.flag,
  entry_unit: t.text,
  /** The document of the entry it reverses. */
  reverses: t.orNull(t.whole),
  /** The document that reversed or moved it. */
  reversed_by: t.orNull(t.whole),
  /** The line of time it comes from. */
  time_line_id: t.orNull(t.whole),
});

const postedEntries = (where: string) =>
  query(
    PostedEntry,
    `SELECT e.id, e.posting_id, e.job_id, e.cost_line_id, job.number AS job, job.status, l.section, l.cost_code_id, c.code AS cost_code, l.cost_type,
      e.dated, e.posted_on, e.amount, e.quantity, e.hours, e.reference, e.party, e.description, e.commitment_line_id,
      m.number || '/' || n.line AS commitment, e.uninstalled, e.unit AS entry_unit,
      (SELECT posting_id FROM cost_entry o WHERE o.id = e.reverses_entry_id) AS reverses,
      (SELECT posting_id FROM cost_entry r WHERE r.reverses_entry_id = e.id) AS reversed_by, e.time_line_id
      FROM cost_entry e JOIN cost_line l ON l.id = e.cost_line_id JOIN cost_code c ON c.id = l.cost_code_id JOIN job ON job.id = e.job_id
      LEFT JOIN commitment_line n ON n.id = e.commitment_line_id LEFT JOIN commitment m ON m.id = n.commitment_id
      WHERE ${where} ORDER BY e.id`,
  );

/** The entries whose ids are in the list `$1`. */
export const PICKED_ENTRIES = postedEntries('e.id IN (SELECT value FROM json_each($1))');

/** What is left of a posting to take back. */
export const LIVE_ENTRIES = postedEntries(
  'e.posting_id = $1 AND NOT EXISTS (SELECT 1 FROM cost_entry r WHERE r.reverses_entry_id = e.id)',
);

/** Uninstalled material posted by `$1` that is not installed by then, of the job `$2` or of all; oldest first. */
export const UNINSTALLED_ENTRIES = query(
  shape({ id: t.whole, job_name: t.text, unit: t.text, code_name: t.text }),
  `SELECT e.id, job.name AS job_name, c.unit, c.description AS code_name FROM cost_entry e JOIN job ON job.id = e.job_id
    JOIN cost_line l ON l.id = e.cost_line_id JOIN cost_code c ON c.id = l.cost_code_id
    WHERE e.uninstalled = 1 AND e.posted_on <= $1 AND ($2 IS NULL OR job.number = $2)
      AND e.amount <> coalesce((SELECT sum(amount) FROM installation i WHERE i.cost_entry_id = e.id AND i.undone_at IS NULL AND i.installed_on <= $1), 0)
      AND NOT EXISTS (SELECT 1 FROM cost_entry r WHERE r.reverses_entry_id = e.id AND r.posted_on <= $1)
      AND e.reverses_entry_id IS NULL
    ORDER BY job.number, e.posted_on, e.id LIMIT 5000`,
);

/** What is installed of the entries in the list `$1`. */
export const INSTALLATIONS_OF = query(
  shape({ cost_entry_id: t.whole, installed_on: t.day, amount: t.cents, quantity: t.orNull(t.quantity) }),
  `SELECT cost_entry_id, installed_on, amount, quantity FROM installation
    WHERE cost_entry_id IN (SELECT value FROM json_each($1)) AND undone_at IS NULL ORDER BY installed_on, id`,
);

/** The newest installations by `$1` of the job `$2` or of all, as they can be undone. */
export const INSTALLATIONS_MADE = query(
  shape({
    id: t.whole,
    entry: t.whole,
    job: t.text,
    reference: t.text,
    party: t.text,
    description: t.text,
    cost_code: t.text,
    installed_on: t.day,
    amount: t.cents,
    quantity: t.orNull(t.quantity),
  }),
  `SELECT i.id, e.id AS entry, job.number AS job, e.reference, e.party, e.description, c.code AS cost_code, i.installed_on, i.amount, i.quantity
    FROM installation i JOIN cost_entry e ON e.id = i.cost_entry_id JOIN job ON job.id = i.job_id
    JOIN cost_line l ON l.id = e.cost_line_id JOIN cost_code c ON c.id = l.cost_code_id
    WHERE i.undone_at IS NULL AND i.installed_on <= $1 AND ($2 IS NULL OR job.number = $2) AND e.reverses_entry_id IS NULL
      AND NOT EXISTS (SELECT 1 FROM cost_entry r WHERE r.reverses_entry_id = e.id)
    ORDER BY i.installed_on DESC, i.id DESC LIMIT 200`,
);
