import { allocate } from '../money/allocate';
import type { Cents } from '../money/cents';

/** The life of a change order. Approved, rejected and withdrawn are for ever. */
export const CHANGE_STATUSES = ['draft', 'issued', 'approved', 'rejected', 'withdrawn'] as const;
export type ChangeStatus = (typeof CHANGE_STATUSES)[number];

/** A price agreed for less (or more) than was asked, spread over the lines as they were asked, to the penny. */
export function agreedLines(asked: readonly Cents[], agreed: Cents): Cents[] {
  return allocate(agreed, asked.map(BigInt));
}

/** A change that is not decided yet, with what it expects to cost on each cost line. */
export interface PendingChange {
  id: number;
  lines: readonly { costLineId: number; amount: Cents }[];
}

/**
 * What has been spent on changes that are not approved: on each line a change names, cost beyond the revised budget, and never
 * more than the change's own cost there. Where several name a line, the one raised first takes its part first (docs/rules.md).
 */
export function spentOnPending(changes: readonly PendingChange[], beyondBudget: ReadonlyMap<number, Cents>): Map<number, Cents> {
  const left = new Map(beyondBudget);
  return new Map(
    changes.map(({ id, lines }) => {
      let spent = 0;
      for (const { costLineId, amount } of lines) {
        const part = Math.max(0, Math.min(amount, left.get(costLineId) ?? 0));
        left.set(costLineId, (left.get(costLineId) ?? 0) - part);
        spent += part;
      }
      return [id, spent];
    }),
  );
}
