/**
 * What a posted paper can be. Each has one file here that says which journals it makes; a cost batch and a
 * book's opening cost share theirs, and a reversal is its paper's journals the other way round.
 */
export const PAPER_KINDS = ['opening-cost', 'cost-batch', 'application', 'retention-release', 'receipt', 'reversal'] as const;
export type PaperKind = (typeof PAPER_KINDS)[number];

/** The paper's name on the screen. */
export const PAPER_NAMES: Record<PaperKind, string> = {
  'opening-cost': 'Opening cost',
  'cost-batch': 'Cost batch',
  application: 'Application certified',
  'retention-release': 'Retention released',
  receipt: 'Receipt',
  reversal: 'Reversal',
};
