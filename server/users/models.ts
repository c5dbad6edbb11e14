import type { Part } from '../../core/rights/parts';
import { ROLES } from '../../core/rights/rights';
import { t, table } from '../db/fields';

export const UserTable = table('user', {
  id: t.id,
  name: t.text,
  email: t.text,
  role: t.oneOf(...ROLES),
  all_jobs: t.filled(t.flag, 0),
  /** Salt and scrypt hash; empty where none was set yet. */
  password: t.filled(t.text, ''),
  closed: t.filled(t.flag, 0),
  /** SHA-256 of the link's token; empty where there is none. */
  invitation: t.filled(t.text, ''),
  invited_until: t.filled(t.text, ''),
  created_at: t.moment,
  /** Key of the second factor, base 32; empty where there is none. */
  second_factor: t.filled(t.text, ''),
  /** The key that is being set up, until a code of it was typed. */
  factor_begun: t.filled(t.text, ''),
  /** The newest step of time whose code was used: each opens once. */
  factor_step: t.filled(t.whole, 0),
  /** SHA-256 of the recovery codes that are left, as JSON. */
  recovery: t.filled(t.text, '[]'),
});

export const SessionTable = table('session', {
  id: t.id,
  /** SHA-256 of the cookie. */
  token: t.text,
  user_id: t.ref('user'),
  began_at: t.moment,
  seen_at: t.moment,
  from_where: t.text,
});

/** A sign-in that failed: what was typed as the name, whose it is where it is somebody's, and where it came from. */
export const SignInFailureTable = table('sign_in_failure', {
  id: t.id,
  at: t.moment,
  who: t.text,
  user_id: t.orNull(t.ref('user')),
  from_where: t.text,
});

/** A browser somebody signed in from: those who guess elsewhere do not shut it out. */
export const KnownDeviceTable = table('known_device', {
  /** SHA-256 of its cookie. */
  token: t.asKey(t.text),
  user_id: t.ref('user'),
  since: t.moment,
});

/** What the owner has taken from a role. */
export const NarrowingTable = table('narrowing', {
  part: t.asKey(t.oneOf<Part>()),
  role: t.asKey(t.oneOf(...ROLES)),
});
