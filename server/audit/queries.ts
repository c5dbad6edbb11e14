import { query } from '../db/query';
import { shape, t } from '../db/fields';

/** The newest lines of the audit trail under conditions on `a`, at most `limit`. */
export const newestAudits = (where: readonly string[], limit: number) =>
  query(
    shape({ id: t.whole, at: t.moment, actor: t.text, command: t.text, subject: t.text, detail: t.text }),
    `SELECT a.id, a.at, a.actor, a.command, a.subject, a.detail FROM audit a WHERE ${where.join(' AND ')} ORDER BY a.id DESC LIMIT ${limit}`,
  );

export const AUDITED_PEOPLE = query(shape({ actor: t.text }), 'SELECT DISTINCT actor FROM audit ORDER BY actor');

/** What each part of a filter asks of `a`; each `?` is the value. */
export const AUDIT_CONDITIONS = {
  job: `(a.subject = ? OR a.subject LIKE replace(replace(?, '_', '\\_'), '%', '\\%') || '/%' ESCAPE '\\' OR a.subject IN (SELECT 'posting ' || p.id FROM posting p JOIN job j ON j.number = ?
      WHERE p.job_id = j.id OR p.id IN (SELECT posting_id FROM cost_entry WHERE job_id = j.id)))`,
  subject: 'a.subject = ?',
  commands: 'a.command IN (SELECT value FROM json_each(?))',
  actor: 'a.actor = ?',
  from: 'a.at >= ?',
  to: `a.at < date(?, '+1 day')`,
  before: 'a.id < ?',
} as const;
