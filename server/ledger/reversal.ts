import type { PlainDate } from '../../core/calendar/plainDate';
import type { PostingKind } from '../../core/ledger/posting';
import type { Posted } from '../../wire/ledger';
import type { Sql } from '../db/sql';
import type { Actor } from './audit';
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

/** Takes a posting back by another, dated `on`, for a reason. Each noun has its own, named in reverse.ts. */
export type Reversal = (sql: Sql, actor: Actor, posting: PostingToReverse, on: string, reason: string) => Promise<Posted>;

/** The posting that takes another back. */
export function reversalOf(posting: PostingToReverse, on: string, reason: string): PostingToSave {
  return {
    kind: 'reversal',
    jobId: posting.job_id,
    reference: posting.reference,
    postedOn: on,
    note: reason,
    reversesId: posting.id,
  };
}
