import { useMemo, useState } from 'react';
import type { CostRow } from '../../../../wire/costs';
import { MOST_CORRECTED } from '../../../../wire/corrections';

/** The entries picked in a ledger, to be corrected together; they stay while the ledger is filtered otherwise. */
export function usePicks(first: readonly CostRow[] = []) {
  const [picked, setPicked] = useState<ReadonlyMap<number, CostRow>>(() => new Map(first.map((it) => [it.id, it])));
  return useMemo(
    () => ({
      picked,
      has: (id: number) => picked.has(id),
      clear: () => setPicked(new Map()),
      /** Picks rows; where all of them are picked already, they are picked no more. */
      toggle: (rows: readonly CostRow[]) =>
        setPicked((before) => {
          const free = rows.filter(isFree);
          const next = new Map(before);
          const all = free.every((it) => before.has(it.id));
          for (const it of free)
            if (all) next.delete(it.id);
            else if (next.size < MOST_CORRECTED) next.set(it.id, it);
          return next;
        }),
    }),
    [picked],
  );
}
export type Picks = ReturnType<typeof usePicks>;

/** Not one that was reversed, moved, or reverses another. */
export function isFree({ reverses, reversedBy }: CostRow): boolean {
  return reverses === null && reversedBy === null;
}
