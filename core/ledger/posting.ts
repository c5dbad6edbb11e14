/**
 * What a posting can be. Each has one file here that says which journals it makes; a cost batch and a
 * book's opening cost share theirs, and a reversal is its posting's journals the other way round.
 */
export const POSTING_KINDS = ['opening-cost', 'cost-batch', 'application', 'retention-release', 'receipt', 'reversal'] as const;
export type PostingKind = (typeof POSTING_KINDS)[number];

/** The posting's name on the screen. */
export const POSTING_NAMES: Record<PostingKind, string> = {
  'opening-cost': 'Opening cost',
  'cost-batch': 'Cost batch',
  application: 'Application certified',
  'retention-release': 'Retention released',
  receipt: 'Receipt',
  reversal: 'Reversal',
};
