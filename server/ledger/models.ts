import type { PostingKind } from '../../core/ledger/posting';
import { t, table } from '../db/fields';

export const PostingTable = table('posting', {
  id: t.id,
  kind: t.oneOf<PostingKind>(),
  job_id: t.orNull(t.ref('job')),
  reference: t.text,
  posted_on: t.day,
  actor: t.text,
  recorded_at: t.moment,
  reverses_id: t.orNull(t.ref('posting')),
  note: t.text,
  total: t.filled(t.cents, 0),
  dated: t.filled(t.day, ''),
});

export const JournalTable = table('journal', {
  id: t.id,
  posting_id: t.ref('posting'),
  dated: t.day,
});

export const JournalLineTable = table('journal_line', {
  id: t.id,
  journal_id: t.ref('journal'),
  account: t.text,
  debit: t.cents,
  credit: t.cents,
});

/** Each time it was said up to which day the books are closed; null: none is. */
export const ClosingTable = table('closing', {
  id: t.id,
  closed_to: t.orNull(t.day),
  reason: t.text,
  actor: t.text,
  recorded_at: t.moment,
});
