import { refuse, type Refusal } from '../refusals/refusal';
import { postingOfKind, type PostingKind } from './posting';

/** A posted document as far as its reversal goes. */
export interface PostedFacts {
  document: number;
  kind: PostingKind;
  /** The document that reversed it; null where none did. */
  reversedBy: number | null;
  /** It has a cost entry that was neither reversed nor moved. */
  hasLiveEntry: boolean;
  /** Why nothing posts to a job of it. */
  locked: Refusal | null;
  /** There is money on the invoice it posted. */
  isReceivedOn: boolean;
}

/** Why a posted document cannot be reversed; null where it can. docs/rules.md §9. */
export function reversalRefusal(it: PostedFacts): Refusal | null {
  const { document, reversedBy, locked } = it;
  const { irreversible, writes } = postingOfKind(it.kind);
  if (reversedBy !== null) return refuse('document-reversed', 'document', { document, by: reversedBy });
  if (irreversible !== null) return refuse('document-irreversible', 'document', { why: irreversible });
  if (writes === 'entries' && !it.hasLiveEntry) return refuse('document-spent', 'document', { document });
  if (locked !== null) return locked;
  return writes === 'invoice' && it.isReceivedOn ? refuse('release-received', 'document', {}) : null;
}
