import { ROLES } from '../../core/rights/rights';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

/** Whose session has the token `$1`, where neither was ended. */
export const SESSION_OF_TOKEN = query(
  shape({
    session: t.whole,
    id: t.whole,
    name: t.text,
    email: t.text,
    role: t.oneOf(...ROLES),
    allJobs: t.flag,
    beganAt: t.moment,
    seenAt: t.moment,
    secondFactor: t.flag,
    narrowed: t.orNull(t.text),
    siteDays: t.orNull(t.whole),
  }),
  `SELECT s.id AS session, u.id, u.name, u.email, u.role, u.all_jobs AS allJobs, s.began_at AS beganAt, s.seen_at AS seenAt,
      u.second_factor <> '' AS secondFactor, (SELECT group_concat(part, ' ') FROM narrowing WHERE role = u.role AND role <> 'owner') AS narrowed,
      CASE WHEN u.role = 'site' THEN (SELECT site_days FROM company) END AS siteDays
    FROM session s JOIN user u ON u.id = s.user_id WHERE s.token = $1 AND u.closed = 0`,
);

export const USER_LIST = query(
  shape({
    id: t.whole,
    name: t.text,
    email: t.text,
    role: t.oneOf(...ROLES),
    allJobs: t.flag,
    closed: t.flag,
    signsIn: t.flag,
    invitedUntil: t.text,
    seenAt: t.orNull(t.text),
    sessions: t.whole,
  }),
  `SELECT id, name, email, role, all_jobs AS allJobs, closed, password <> '' AS signsIn, invited_until AS invitedUntil,
      (SELECT max(seen_at) FROM session WHERE user_id = user.id) AS seenAt, (SELECT count(*) FROM session WHERE user_id = user.id) AS sessions
    FROM user ORDER BY name`,
);

/** Jobs that somebody named `$1` manages, or is on the team of. */
export const JOBS_OF_TEAM = query(
  shape({ id: t.whole }),
  `SELECT id FROM job WHERE manager = $1 UNION SELECT job_id AS id FROM job_person WHERE side = 'team' AND name = $1`,
);

/** Owners who can sign in, other than user `$1`. */
export const OTHER_OWNERS = query(
  shape({ count: t.whole }),
  `SELECT count(*) AS count FROM user WHERE role = 'owner' AND closed = 0 AND password <> '' AND id <> $1`,
);

/** Failures before `$1`. */
export const FORGET_FAILURES = 'DELETE FROM sign_in_failure WHERE at < $1';

/** Sign-ins that failed, the newest first. */
export const SIGN_IN_FAILURES = query(
  shape({ id: t.whole, at: t.moment, who: t.text, name: t.orNull(t.text), from: t.text }),
  `SELECT f.id, f.at, f.who, u.name, f.from_where AS "from" FROM sign_in_failure f LEFT JOIN user u ON u.id = f.user_id
    ORDER BY f.id DESC LIMIT 200`,
);

export const USER_COUNT = query(shape({ count: t.whole }), 'SELECT count(*) AS count FROM user');

/** Sessions of user `$1`, but for session `$2`. */
export const END_OTHER_SESSIONS = 'DELETE FROM session WHERE user_id = $1 AND id <> $2';

/** Sessions that began before `$1` or were not used since `$2`; those of the site after the days the company says, by the time `$3`. */
export const FORGET_SESSIONS = `DELETE FROM session WHERE CASE WHEN user_id IN (SELECT id FROM user WHERE role = 'site')
    THEN began_at < strftime('%Y-%m-%dT%H:%M:%fZ', $3, '-' || coalesce((SELECT site_days FROM company), 30) || ' days')
    ELSE began_at < $1 OR seen_at < $2 END`;

/** The role of user `$1`, and how long a phone of the site stays signed in. */
export const STAYS_SIGNED_IN = query(
  shape({ role: t.oneOf(...ROLES), siteDays: t.orNull(t.whole) }),
  'SELECT role, (SELECT site_days FROM company) AS siteDays FROM user WHERE id = $1',
);
