/** What there is to know of one kind of posting. */
export interface PostingOfKind {
  /** Its name on the screen. */
  title: string;
  /** Why it cannot be reversed; null where a posting of the opposite sign takes it back. */
  irreversible: string | null;
}

/** Every kind of posting, one entry each. The ledger, its filter, the gate and reversals read it from here. */
export const POSTINGS = {
  'opening-cost': { title: 'Opening cost', irreversible: null },
  'cost-batch': { title: 'Cost batch', irreversible: null },
  'cost-move': {
    title: 'Cost moved',
    irreversible: 'To put moved cost back, pick its lines in the cost ledger and move them again',
  },
  time: {
    title: 'Time',
    irreversible: 'Correct time by reversing and re-entering it',
  },
  application: {
    title: 'Application certified',
    irreversible:
      'On its own page the certification of the last application can be reversed while nothing rests on it; else put the difference right in the next application',
  },
  'retention-release': { title: 'Retention released', irreversible: null },
  receipt: { title: 'Receipt', irreversible: null },
  reversal: {
    title: 'Reversal',
    irreversible: 'A reversal cannot be reversed; post the correct figures again',
  },
} as const satisfies Record<string, PostingOfKind>;

export type PostingKind = keyof typeof POSTINGS;
export const POSTING_KINDS = Object.keys(POSTINGS) as [PostingKind, ...PostingKind[]];

/** The kinds that can be taken back. */
export type ReversibleKind = {
  [Kind in PostingKind]: (typeof POSTINGS)[Kind]['irreversible'] extends null ? Kind : never;
}[PostingKind];

export function isReversible(kind: PostingKind): kind is ReversibleKind {
  return POSTINGS[kind].irreversible === null;
}
