/** What somebody may do. Each way in names the one it needs. */
export const RIGHTS = [
  'read',
  'set-up',
  'estimate',
  'quote',
  'manage-jobs',
  'post',
  'bill',
  'change-budget',
  'answer-offer',
] as const;
export type Right = (typeof RIGHTS)[number];

/** Whether a person has a right. There is no sign-in yet: everybody may do everything, and this is the one place that will change. */
export function hasRight(_person: { name: string }, right: Right): boolean {
  return RIGHTS.includes(right);
}
