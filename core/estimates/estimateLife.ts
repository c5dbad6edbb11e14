import type { Life } from '../life/life';

export type EstimateStatus = 'draft' | 'sent' | 'accepted';

/** The life of an estimate. Once sent it is locked; a copy can be changed. */
export const ESTIMATE_LIFE = {
  edit: { from: ['draft'], to: 'draft', only: 'it is locked, copy it and change the copy' },
  delete: { from: ['draft'], to: null, only: 'only a draft can be deleted' },
  reprice: { from: ['draft'], to: 'draft', only: 'it is locked, copy it and reprice the copy' },
  send: { from: ['draft'], to: 'sent', only: 'only a draft can be marked as sent' },
  choose: { from: ['draft', 'sent', 'accepted'], to: 'same', only: 'any can be chosen' },
  award: { from: ['draft', 'sent'], to: 'accepted', only: 'it was awarded already' },
} as const satisfies Life<EstimateStatus, string>;
export type EstimateMove = keyof typeof ESTIMATE_LIFE;
