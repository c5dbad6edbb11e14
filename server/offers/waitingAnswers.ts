import { shape, t, type RowOf } from '../db/fields';
import type { Reader } from '../db/sql';

/** What clients wait for, or what the company has to note of their answers, on documents sent by a date. */
export const WaitingAnswer = shape({
  kind: t.oneOf<'quotation' | 'change'>(),
  number: t.text,
  /** Asked, and not answered yet; or what the client answered to a change whose decision is not noted. */
  what: t.oneOf<'asks' | 'accepted' | 'declined'>(),
  by: t.text,
});
export type WaitingAnswer = RowOf<typeof WaitingAnswer>;

/** Questions of clients without an answer, and answers to changes that the company has not noted, oldest first. */
export function waitingAnswers(sql: Reader, jobId: number, asOf: string): Promise<WaitingAnswer[]> {
  return sql.all(
    WaitingAnswer,
    `SELECT kind, number, what, "by" FROM (
      SELECT o.kind, o.number, 'asks' AS what, q.asked_by AS "by", q.asked_at AS at FROM offer_question q JOIN offer o ON o.id = q.offer_id
        WHERE o.job_id = $1 AND o.status = 'open' AND q.answer = '' AND substr(q.asked_at, 1, 10) <= $2
      UNION ALL SELECT o.kind, o.number, o.status, o.answered_by, o.answered_at FROM offer o JOIN change_order c ON c.job_id = o.job_id AND c.number = o.number
        WHERE o.job_id = $1 AND o.kind = 'change' AND o.status <> 'open' AND c.status = 'issued' AND substr(o.answered_at, 1, 10) <= $2
    ) ORDER BY at`,
    [jobId, asOf],
  );
}
