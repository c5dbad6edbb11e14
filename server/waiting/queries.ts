import type { WaitingName } from '../../core/waiting/waiting';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

const waiting = (from: string, document: string, since: string, where: string) =>
  query(
    shape({ job: t.text, jobName: t.text, document: t.text, since: t.day }),
    `SELECT j.number AS job, j.name AS jobName, CAST(${document} AS TEXT) AS document, ${since} AS since
      FROM ${from} JOIN job j ON j.id = d.job_id WHERE j.locked = 0 AND ${where} ORDER BY 4, 1`,
  );

/** What of each kind waits, the oldest first; of jobs that are locked nothing does. */
export const WAITING_ROWS: Record<Exclude<WaitingName, 'approve' | 'carryOut'>, ReturnType<typeof waiting>> = {
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
