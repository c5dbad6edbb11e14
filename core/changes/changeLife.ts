import type { Life } from '../life/life';

export const CHANGE_STATUSES = ['draft', 'issued', 'approved', 'rejected', 'withdrawn'] as const;
export type ChangeStatus = (typeof CHANGE_STATUSES)[number];

const DECIDE = { from: ['issued'], only: 'only an issued change order can be decided' } as const;

/** The life of a change order. Decided, it is for ever: another change order alters it. */
export const CHANGE_LIFE = {
  edit: { from: ['draft'], to: 'draft', only: 'only a draft can be changed; raise another change order' },
  delete: { from: ['draft'], to: null, only: 'only a draft can be deleted' },
  issue: { from: ['draft'], to: 'issued', only: 'only a draft can be issued' },
  send: { from: ['issued'], to: 'issued', only: 'only an issued change order can be sent' },
  approved: { ...DECIDE, to: 'approved' },
  rejected: { ...DECIDE, to: 'rejected' },
  withdrawn: { ...DECIDE, to: 'withdrawn' },
} as const satisfies Life<ChangeStatus, string>;
export type ChangeMove = keyof typeof CHANGE_LIFE;
