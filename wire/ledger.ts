import * as v from 'valibot';
import { command, query } from './call';
import { asOf, filled, optionalDate, wholeText } from './fields';

export const reversalInput = v.strictObject({ on: optionalDate, reason: filled(400) });
export type ReversalInput = v.InferOutput<typeof reversalInput>;

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
  kind: string;
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
  /** Why it cannot be reversed; null where it can. */
  fixed: string | null;
}

const postingsQuery = v.strictObject({ asOf, job: v.optional(v.string()), offset: v.optional(wholeText(100_000_000)) });

export const ledgerCalls = {
  postings: query<{ postings: PostingRow[]; count: number }>()('/postings', { query: postingsQuery }),
  posting: query<PostingView>()('/postings/:posting'),
  reversePosting: command<Posted>('post')('/postings/:posting/reverse', { input: reversalInput }),
};
