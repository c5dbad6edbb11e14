/** What somebody may do. Each way in names the one it needs; `open` needs nobody, `signed-in` anybody who is signed in. */
export const RIGHTS = [
  'open',
  'signed-in',
  'read-site',
  'read-jobs',
  'read-tenders',
  'read-books',
  'set-up',
  'manage-users',
  'estimate',
  'quote',
  'manage-jobs',
  'move-jobs',
  'forecast',
  'change-orders',
  'transfer-budget',
  'apply',
  'schedule-billing',
  'certify',
  'release-retention',
  'receive',
  'enter-time',
  'approve-time',
  'post-costs',
  'correct-costs',
  'import-books',
  'close-books',
] as const;
export type Right = (typeof RIGHTS)[number];

/** What people are in the company. */
export const ROLES = ['owner', 'accountant', 'manager', 'estimator', 'site'] as const;
export type Role = (typeof ROLES)[number];

/** Everything but who may come in. */
const BOOKS: readonly Right[] = RIGHTS.filter((it) => it !== 'manage-users');

/**
 * What each role may do, the one table of it: routes are refused by it, and screens do not offer what it refuses. The site sees no
 * money at all: what it reads is made without.
 */
export const ROLE_RIGHTS: Readonly<Record<Role, ReadonlySet<Right>>> = {
  owner: new Set(RIGHTS),
  accountant: new Set(BOOKS),
  manager: new Set<Right>([
    ...(['open', 'signed-in', 'read-site', 'read-jobs', 'manage-jobs', 'move-jobs', 'forecast'] as const),
    ...(['change-orders', 'transfer-budget', 'apply', 'enter-time', 'approve-time'] as const),
  ]),
  estimator: new Set<Right>([
    ...(['open', 'signed-in', 'read-site', 'read-jobs', 'read-tenders', 'estimate', 'quote', 'manage-jobs'] as const),
    'enter-time',
  ]),
  site: new Set<Right>(['open', 'signed-in', 'read-site', 'enter-time']),
};

/** Roles that see every job of the company; the others those on whose team they are, a manager all of them where it is said so. */
const SEES_ALL: ReadonlySet<Role> = new Set(['owner', 'accountant', 'estimator']);

/** Somebody who is signed in, as far as rights go. */
export interface Person {
  name: string;
  role: Role;
  /** A manager who sees every job. */
  allJobs: boolean;
  /** What the owner has taken from the role, by its name (core/rights/parts.ts). */
  narrowed?: readonly string[];
}

/** Whether somebody, or nobody, has a right: by the role, and not taken from it. */
export function hasRight(person: Pick<Person, 'role' | 'narrowed'> | null, right: Right): boolean {
  return person === null ? right === 'open' : ROLE_RIGHTS[person.role].has(right) && !isTaken(person, right);
}

/** Whether the owner has taken something from somebody's role. */
export function isTaken(person: Pick<Person, 'narrowed'>, part: string): boolean {
  return person.narrowed?.includes(part) ?? false;
}

/** Whether somebody sees every job. */
export function seesAllJobs({ role, allJobs }: Pick<Person, 'role' | 'allJobs'>): boolean {
  return SEES_ALL.has(role) || (role === 'manager' && allJobs);
}
