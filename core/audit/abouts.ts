/** The kinds of document a command can be about. */
export const ABOUTS = [
  'application',
  'job',
  'time',
  'company',
  'user',
  'approval',
  'change',
  'master',
  'posting',
  'estimate',
  'price',
  'quotation',
  'offer',
] as const;
export type AuditAbout = (typeof ABOUTS)[number];
