import type { PlainDate } from '../calendar/plainDate';
import { refuse, type Refusal } from '../refusals/refusal';

/** A hand-over to payroll as far as it can be taken back. */
export interface HandOver {
  run: number;
  /** The day its file was taken; null while nobody has it. */
  usedOn: PlainDate | null;
  undoneOn: PlainDate | null;
  /** The newest that is not undone, or null. */
  last: number | null;
}

/** Why a hand-over cannot be undone: payroll has its file, a later one rests on it, or it is undone already. docs/rules.md §10. */
export function undoRefusal({ run, usedOn, undoneOn, last }: HandOver): Refusal | null {
  if (undoneOn !== null) return refuse('hand-over-undone', 'id', { run, on: undoneOn });
  if (usedOn !== null) return refuse('hand-over-used', 'id', { run, on: usedOn });
  return last !== null && last > run ? refuse('hand-over-not-last', 'id', { run, last }) : null;
}
