import { APPROVAL_NAMES, APPROVAL_STATES, APPROVERS } from '../../core/approvals/approvals';
import { ROLES } from '../../core/rights/rights';
import { shape, t } from '../db/fields';
import { query } from '../db/query';

const APPROVAL = shape({
  id: t.whole,
  job: t.orNull(t.text),
  jobName: t.orNull(t.text),
  kind: t.oneOf(...APPROVAL_NAMES),
  document: t.text,
  amount: t.cents,
  role: t.oneOf(...APPROVERS),
  facts: t.text,
  request: t.text,
  state: t.oneOf(...APPROVAL_STATES),
  askedBy: t.text,
  askedAt: t.moment,
  reason: t.text,
  decidedBy: t.text,
  decidedFor: t.text,
  decidedAt: t.text,
  decision: t.text,
  acknowledgedAt: t.text,
});
const approvals = (where: string) =>
  query(
    APPROVAL,
    `SELECT a.id, j.number AS job, j.name AS jobName, a.kind, a.document, a.amount, a.role, a.facts, a.request, a.state,
        a.asked_by AS askedBy, a.asked_at AS askedAt, a.reason, a.decided_by AS decidedBy, a.decided_for AS decidedFor,
        a.decided_at AS decidedAt, a.decision, a.acknowledged_at AS acknowledgedAt
      FROM approval a LEFT JOIN job j ON j.id = a.job_id WHERE ${where} ORDER BY a.id DESC`,
  );

export const APPROVAL_BY_ID = approvals('a.id = $1');
/** Of kind `$1` and document `$2`, of job `$3` or, where that is empty, of any. */
export const APPROVALS_OF = approvals(`a.kind = $1 AND ($2 = '' OR a.document = $2) AND ($3 = '' OR j.number = $3)`);
/** What waits for somebody: neither withdrawn nor done, nor refused and read. */
export const OPEN_APPROVALS = approvals(`a.state IN ('asked', 'given') OR a.state = 'refused' AND a.acknowledged_at = ''`);

/** Those who are away on day `$1` and named user `$2` to stand in for them. */
export const STOOD_IN_FOR = query(
  shape({ name: t.text, role: t.oneOf(...ROLES) }),
  `SELECT u.name, u.role FROM absence a JOIN user u ON u.id = a.user_id JOIN user d ON d.id = a.deputy_id
    WHERE d.name = $2 AND a.from_day <= $1 AND $1 <= a.to_day AND u.closed = 0 ORDER BY u.name`,
);

/** Absences of user `$1`, the newest first. */
export const ABSENCES_OF = query(
  shape({ id: t.whole, from: t.day, to: t.day, deputy: t.text }),
  `SELECT a.id, a.from_day AS "from", a.to_day AS "to", d.name AS deputy
    FROM absence a JOIN user d ON d.id = a.deputy_id WHERE a.user_id = $1 ORDER BY a.from_day DESC, a.id DESC`,
);

/** Whoever may stand in for user `$1`. */
export const DEPUTIES = query(
  shape({ name: t.text }),
  `SELECT name FROM user WHERE id <> $1 AND closed = 0 AND role IN ('owner', 'accountant', 'manager') ORDER BY name`,
);

/** The month of the newest posting: those before it are past. */
export const NEWEST_POSTED_MONTH = query(
  shape({ month: t.orNull(t.text) }),
  'SELECT substr(max(posted_on), 1, 7) AS month FROM posting',
);
