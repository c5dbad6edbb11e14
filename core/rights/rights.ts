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
  'change-budget',
  'apply',
  'bill',
  'post',
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
  manager: new Set<Right>(['open', 'signed-in', 'read-site', 'read-jobs', 'manage-jobs', 'change-budget', 'apply']),
  estimator: new Set<Right>(['open', 'signed-in', 'read-site', 'read-jobs', 'read-tenders', 'estimate', 'quote', 'manage-jobs']),
  site: new Set<Right>(['open', 'signed-in', 'read-site']),
};

/** Roles that see every job of the company; the others those on whose team they are, a manager all of them where it is said so. */
const SEES_ALL: ReadonlySet<Role> = new Set(['owner', 'accountant', 'estimator']);

/** Somebody who is signed in, as far as rights go. */
export interface Person {
  name: string;
  role: Role;
  /** A manager who sees every job. */
  allJobs: boolean;
}

/** Whether somebody, or nobody, has a right. */
export function hasRight(person: Pick<Person, 'role'> | null, right: Right): boolean {
  return person === null ? right === 'open' : ROLE_RIGHTS[person.role].has(right);
}

/** Whether somebody sees every job. */
export function seesAllJobs({ role, allJobs }: Pick<Person, 'role' | 'allJobs'>): boolean {
  return SEES_ALL.has(role) || (role === 'manager' && allJobs);
}
