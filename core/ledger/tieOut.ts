import type { Cents } from '../money/cents';

/** The proofs that the books tie, in the order they are shown (docs/book.md: tie-out). */
export const TIE_OUT_CHECKS = [
  'job-cost',
  'accounts-receivable',
  'retention-receivable',
  'accounts-payable',
  'journals',
] as const;
export type TieOutCheck = (typeof TIE_OUT_CHECKS)[number];

export interface TieOutRow {
  check: TieOutCheck;
  /** Subledger; for journals: all debits. */
  subledger: Cents;
  /** General ledger; for journals: all credits. */
  ledger: Cents;
  difference: Cents;
}

/** Both sides of every proof, and their difference: 0 where the books tie. */
export function tieOut(sides: Record<TieOutCheck, { subledger: Cents; ledger: Cents }>): TieOutRow[] {
  return TIE_OUT_CHECKS.map((check) => ({ check, ...sides[check], difference: sides[check].subledger - sides[check].ledger }));
}
