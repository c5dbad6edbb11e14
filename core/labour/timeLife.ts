import type { Life } from '../life/life';
import { refuse, type Refusal } from '../refusals/refusal';

/** The states of a line of a week sheet. Returned is a line that was submitted and came back with a reason. */
export const SHEET_STATES = ['submitted', 'returned', 'approved', 'posted'] as const;
export type SheetState = (typeof SHEET_STATES)[number];

/** The life of a line of time. Posted, it stays; a line that reverses it corrects it. */
export const TIME_LIFE = {
  change: { from: ['submitted', 'returned'], to: 'submitted', only: 'only a line that is not approved yet can be changed' },
  approve: { from: ['submitted'], to: 'approved', only: 'only a submitted line can be approved' },
  return: { from: ['submitted', 'returned', 'approved'], to: 'returned', only: 'correct it instead of returning it' },
  post: { from: ['approved'], to: 'posted', only: 'only an approved line is posted' },
  correct: { from: ['posted'], to: 'posted', only: 'only a posted line is corrected' },
} as const satisfies Life<SheetState, string>;

/** The state of a line as it is saved: one that was returned stays submitted, with its reason. */
export function timeState({ status, returned }: { status: Exclude<SheetState, 'returned'>; returned: string }): SheetState {
  return status === 'submitted' && returned !== '' ? 'returned' : status;
}

/** Why somebody may not approve a line that is their own time: somebody else does, except for the owner, who has nobody. */
export function ownTimeRefusal(line: { line: string; name: string }, by: { name: string; role: string } | null): Refusal | null {
  return by !== null && line.name === by.name && by.role !== 'owner' ? refuse('own-time', 'lines', { line: line.line }) : null;
}
