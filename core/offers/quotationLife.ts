import type { Life } from '../life/life';

export type QuotationStatus = 'draft' | 'sent' | 'accepted' | 'declined';

/** The life of a quotation. Once sent it stays as it was sent; the client answers. */
export const QUOTATION_LIFE = {
  edit: { from: ['draft'], to: 'draft', only: 'only a draft can be changed; make another quotation' },
  delete: { from: ['draft'], to: null, only: 'only a draft can be deleted' },
  send: { from: ['draft'], to: 'sent', only: 'only a draft can be sent' },
  accept: { from: ['sent'], to: 'accepted', only: 'only a sent quotation can be accepted' },
  decline: { from: ['sent'], to: 'declined', only: 'only a sent quotation can be declined' },
} as const satisfies Life<QuotationStatus, string>;
export type QuotationMove = keyof typeof QUOTATION_LIFE;
