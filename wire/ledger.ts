import * as v from 'valibot';
import type { InvoiceKind } from '../core/billing/invoice';
import { command, query } from './call';
import { POSTING_KINDS, type PostingKind } from '../core/ledger/posting';
import { asOf, optionalDate, plainDate, text, wholeText } from './fields';

export interface JournalView {
  dated: string;
  lines: { account: string; name: string; debit: number; credit: number }[];
}

export interface Posted {
  postingId: number;
  entries: number;
  total: number;
}

export interface PostingRow {
  id: number;
  kind: PostingKind;
  kindName: string;
  job: string | null;
  reference: string;
  dated: string;
  actor: string;
  recordedAt: string;
  total: number;
  reverses: number | null;
  reversedBy: number | null;
}

/** One posting with its journals. */
export interface PostingView extends PostingRow {
  note: string;
  journals: JournalView[];
  entryCount: number;
  /** The client of its job, by name. */
  client: string | null;
  /** Of a receipt: what the money came in on, an application by its number or a release by its reference. */
  receivedOn: { kind: InvoiceKind; reference: string } | null;
  /** Week sheets whose time it posted, each with the first day worked. */
  weekSheets: { sheet: string; dated: string }[];
  /** Recorded before and after it; null where there is none. */
  previous: number | null;
  next: number | null;
  /** Other documents of which it reverses or moves lines. */
  corrects: number[];
  /** Other documents that reversed or moved lines of it. */
  correctedBy: number[];
  /** Why it cannot be reversed; null where it can. */
  fixed: string | null;
}

/** What posted documents are sorted by: their accounting date, their number, what they debit. */
export const POSTING_ORDERS = ['dated', 'id', 'total'] as const;
export type PostingOrder = (typeof POSTING_ORDERS)[number];

/** Which posted documents are asked for. Newest, or largest, first unless `ascending`; `before` is the `next` of the page before. */
export const postingsQuery = v.strictObject({
  asOf,
  job: v.optional(v.string()),
  kind: v.optional(v.picklist(POSTING_KINDS, `expected one of ${POSTING_KINDS.join(', ')}`)),
  from: v.optional(plainDate),
  to: v.optional(plainDate),
  /** Part of the reference or the note. */
  search: v.optional(v.pipe(v.string(), v.maxLength(100, 'expected at most 100 characters'))),
  /** What it debits in all, in minor units. */
  total: v.optional(wholeText(Number.MAX_SAFE_INTEGER)),
  sort: v.optional(v.picklist(POSTING_ORDERS, `expected one of ${POSTING_ORDERS.join(', ')}`)),
  ascending: v.optional(v.picklist(['yes'], 'expected yes')),
  before: v.optional(v.pipe(v.string(), v.regex(/^(\d{4}-\d{2}-\d{2}|-?\d{1,16})_\d{1,15}$/, 'expected where a page begins'))),
});
export type PostingsParams = v.InferInput<typeof postingsQuery>;

/** A page of posted documents. */
export interface PostingPage {
  postings: PostingRow[];
  /** How many match in all. */
  count: number;
  /** Where the next page begins; null on the last. */
  next: string | null;
}

/** Up to which day the books are closed, and who said so when; `closedTo` null: open from their beginning. */
export interface Closing {
  closedTo: string | null;
  by: string;
  at: string;
  reason: string;
}
export const closingInput = v.strictObject({ to: optionalDate, reason: text(400) });
export type ClosingInput = v.InferOutput<typeof closingInput>;

export const ledgerCalls = {
  closing: query<{ last: Closing | null }>('read-books')('/closing'),
  closeBooks: command('close-books')('/closing', { input: closingInput }),
  postings: query<PostingPage>('read-jobs')('/postings', { query: postingsQuery }),
  posting: query<PostingView>('read-jobs')('/postings/:posting'),
};
