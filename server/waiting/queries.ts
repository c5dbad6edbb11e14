import type { WaitingName } from '../../core/waiting/waiting';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

const waiting = (from: string, document: string, since: string, where: string) =>
  query(
    shape({ job: t.text, jobName: t.text, document: t.text, since: t.day }),
    `SELECT j.number AS job, j.name AS jobName, CAST(${document} AS TEXT) AS document, ${since} AS since
      FROM ${from} JOIN job j ON j.id = d.job_id WHERE j.locked = 0 AND ${where} ORDER BY 4, 1`,
  );

const sheets = (where: string) =>
  query(
    shape({ document: t.text, people: t.text, since: t.day }),
    `SELECT x.sheet AS document, group_concat(DISTINCT e.name ORDER BY e.name) AS people, min(x.dated) AS since
      FROM time_line x JOIN employee e ON e.id = x.employee_id WHERE ${where} GROUP BY x.sheet ORDER BY 3, 1`,
  );

/** Week sheets with lines that wait; those returned for who saved the sheet last, `$1`, or wrote the day sheet they are of. */
export const SHEETS_WAITING = {
  returnedTime: sheets(`x.status = 'submitted' AND x.returned <> '' AND ($1 = (SELECT actor FROM audit
    WHERE subject = 'week sheet ' || x.sheet AND command IN ('add-sheet', 'save-sheet') ORDER BY id DESC LIMIT 1)
    OR $1 IN (SELECT written_by FROM day_sheet d WHERE d.sheet = x.sheet AND d.dated = x.dated AND d.job_id = x.job_id))`),
  approveTime: sheets(`x.status = 'submitted' AND x.returned = '' AND $1 <> ''`),
  postTime: sheets(`x.status = 'approved' AND $1 <> ''`),
};

/** What of each kind waits, the oldest first; of jobs that are locked nothing does. */
export const WAITING_ROWS: Record<
  Exclude<WaitingName, 'remindedTime' | 'approve' | 'carryOut' | 'refused' | keyof typeof SHEETS_WAITING>,
  ReturnType<typeof waiting>
> = {
  certify: waiting('application d', 'd.number', 'd.dated', `d.status = 'submitted'`),
  submit: waiting('application d', 'd.number', 'd.dated', `d.status = 'draft'`),
  decide: waiting('change_order d', 'd.number', 'coalesce(d.issued_on, d.raised_on)', `d.status = 'issued'`),
  issue: waiting('change_order d', 'd.number', 'd.raised_on', `d.status = 'draft'`),
  send: waiting('quotation d', 'd.number', 'substr(d.saved_at, 1, 10)', `d.status = 'draft' AND j.status = 'tender'`),
  award: waiting(
    'quotation d',
    'd.number',
    "coalesce(d.answered_on, d.sent_on, '')",
    `d.status = 'accepted' AND j.status = 'tender'`,
  ),
  answer: waiting(
    'offer_question q JOIN offer d ON d.id = q.offer_id',
    'd.number',
    'substr(q.asked_at, 1, 10)',
    `q.answer = '' AND d.kind = 'quotation'`,
  ),
};
