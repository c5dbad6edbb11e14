import type { Life } from '../life/life';
import type { ApprovalState, Approver } from './approvals';

/** The life of an approval. Used, refused or withdrawn it stays; the same act is asked for anew. */
export const APPROVAL_LIFE = {
  give: { from: ['asked'], to: 'given', only: 'only one that waits can be decided; reload the page' },
  refuse: { from: ['asked'], to: 'refused', only: 'only one that waits can be decided; reload the page' },
  withdraw: { from: ['asked', 'given'], to: 'withdrawn', only: 'only one that waits or is not carried out can be withdrawn' },
  carryOut: { from: ['given'], to: 'used', only: 'only one that was given is carried out' },
  acknowledge: { from: ['refused'], to: 'refused', only: 'only a refusal is acknowledged' },
} as const satisfies Life<ApprovalState, string>;
export type ApprovalMove = keyof typeof APPROVAL_LIFE;

/** Who looks at an approval. */
export interface ApprovalParty {
  /** Whoever asked for it. */
  isAsker: boolean;
  /** In whose name they decide such acts: their own, that of somebody they stand in for, or nobody's. */
  decidesFor: 'self' | 'absent' | null;
}

/** Why somebody may not make a move, as a sentence; null where they may, as far as its state lets them. */
export function whyNotParty(move: ApprovalMove, { isAsker, decidesFor }: ApprovalParty, role: Approver): string | null {
  if (move === 'give' || move === 'refuse') {
    if (decidesFor === null) return `This waits for ${role} or an owner; you cannot decide it`;
    return isAsker && decidesFor === 'absent'
      ? 'You asked for this yourself; as deputy you cannot decide it. Somebody else has to'
      : null;
  }
  return isAsker ? null : 'Only whoever asked for it does that';
}
