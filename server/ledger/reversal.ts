import type { PlainDate } from '../../core/calendar/plainDate';
import type { PostingKind } from '../../core/ledger/posting';
import type { Posted } from '../../wire/ledger';
import type { Sql } from '../db/sql';
import type { Actor } from '../acts/audit';
import type { PostingToSave } from './savePosting';

/** A posting that is to be taken back. */
export interface PostingToReverse {
  id: number;
  kind: PostingKind;
  job_id: number | null;
  reference: string;
  /** Its accounting date. */
  posted_on: PlainDate;
}

/** When a posting is taken back: `day`, or, with `each`, every entry of it on its own day. */
export interface ReversalDay {
  day: PlainDate;
  each: boolean;
}

/** Takes a posting back by another for a reason. Each noun has its own, named in reverse.ts. */
export type Reversal = (sql: Sql, actor: Actor, posting: PostingToReverse, on: ReversalDay, reason: string) => Promise<Posted>;

/** The posting that takes another back. */
export function reversalOf(posting: PostingToReverse, { day }: ReversalDay, reason: string): PostingToSave {
  return {
    kind: 'reversal',
    jobId: posting.job_id,
    reference: posting.reference,
    postedOn: day,
    note: reason,
    reversesId: posting.id,
  };
}
