import type { Given } from '../jobs/takes';
import type { AccountKey } from './accounts';

/** What there is to know of one kind of posting. */
export interface PostingOfKind {
  /** Its name on the screen. */
  title: string;
  /** What its jobs must take for it; null where that is asked of what it corrects, or of nothing. */
  takes: Given | null;
  /** What it writes behind its journals; null where that follows what it reverses. */
  writes: 'entries' | 'invoice' | 'receipt' | 'credit' | null;
  /** The accounts its journals may post to; null where they follow what it reverses. */
  accounts: readonly AccountKey[] | null;
  /** What its reference names: a document with a page of its own; null where it has none. */
  names: 'application' | 'daywork' | null;
  /** Why it cannot be reversed; null where a posting of the opposite sign takes it back. */
  irreversible: string | null;
}

const costs: readonly AccountKey[] = [
  'costLabour',
  'costMaterial',
  'costSubcontract',
  'costEquipment',
  'costOther',
  'costClearing',
];

/** Every kind of posting, one entry each. The gate, the ledger, its filter and pages, and reversals read it from here. */
export const POSTINGS = {
  'opening-cost': {
    title: 'Opening cost',
    takes: null,
    writes: 'entries',
    accounts: costs,
    names: null,
    irreversible: null,
  },
  'cost-batch': {
    title: 'Cost batch',
    takes: 'cost',
    writes: 'entries',
    accounts: costs,
    names: null,
    irreversible: null,
  },
  'cost-move': {
    title: 'Cost moved',
    takes: 'cost',
    writes: 'entries',
    accounts: costs,
    names: null,
    irreversible: 'To put moved cost back, pick its lines in the cost ledger and move them again',
  },
  time: {
    title: 'Time',
    takes: 'time',
    writes: 'entries',
    accounts: ['costLabour', 'overheadLabour', 'wagesClearing', 'burdenApplied'],
    names: null,
    irreversible: 'Correct time by reversing and re-entering it',
  },
  application: {
    title: 'Application certified',
    takes: 'bills',
    writes: 'invoice',
    accounts: ['receivable', 'retentionReceivable', 'billings', 'taxPayable'],
    names: 'application',
    irreversible:
      'On its own page the certification of the last application can be reversed while nothing rests on it; else put the difference right in the next application',
  },
  'retention-release': {
    title: 'Retention released',
    takes: 'receipts',
    writes: 'invoice',
    accounts: ['receivable', 'retentionReceivable', 'taxPayable'],
    names: null,
    irreversible: null,
  },
  'daywork-invoice': {
    title: 'Daywork invoice',
    takes: 'bills',
    writes: 'invoice',
    accounts: ['receivable', 'dayworkBillings', 'taxPayable'],
    names: 'daywork',
    irreversible: 'Credit it on its own page; in full, its entries can be invoiced again',
  },
  'credit-note': {
    title: 'Credit note',
    takes: 'receipts',
    writes: 'credit',
    accounts: ['receivable', 'dayworkBillings', 'taxPayable'],
    names: null,
    irreversible: 'Invoice it again: what was credited in full is free to be',
  },
  receipt: {
    title: 'Receipt',
    takes: 'receipts',
    writes: 'receipt',
    accounts: ['bank', 'receivable'],
    names: null,
    irreversible: null,
  },
  reversal: {
    title: 'Reversal',
    takes: null,
    writes: null,
    accounts: null,
    names: null,
    irreversible: 'A reversal cannot be reversed; post the correct figures again',
  },
} as const satisfies Record<string, PostingOfKind>;

export type PostingKind = keyof typeof POSTINGS;
export const POSTING_KINDS = Object.keys(POSTINGS) as [PostingKind, ...PostingKind[]];

/** One kind, with what is said of every kind. */
export const postingOfKind = (kind: PostingKind): PostingOfKind => POSTINGS[kind];
