/** Parts of a job's page that may hold nothing yet, by their part of the address; the others always have something to show. */
export const HOLDING_PARTS = [
  'estimates',
  'contract',
  'budget',
  'changes',
  'costs',
  'billing',
  'postings',
  'plan',
  'charging',
] as const;

export type HoldingPart = (typeof HOLDING_PARTS)[number];
