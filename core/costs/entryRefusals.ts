import type { PlainDate } from '../calendar/plainDate';
import { refuse, type Refusal } from '../refusals/refusal';

/** What cannot be posted as a cost entry, however it comes. */
export function entryRefusals(entry: {
  costType: string | null;
  amount: number | null;
  hours: number | null;
  uninstalled: boolean;
  dated: PlainDate | null;
  postedOn: PlainDate | null;
}): Refusal[] {
  const refusals: Refusal[] = [];
  if (entry.amount === 0 && !entry.hours) refusals.push(refuse('entry-empty', 'amount', {}));
  if (entry.uninstalled && entry.costType === 'labour') refusals.push(refuse('labour-uninstalled', 'uninstalled', {}));
  if (entry.postedOn && entry.dated && entry.postedOn < entry.dated)
    refusals.push(refuse('posted-before-dated', 'postedOn', { postedOn: entry.postedOn, dated: entry.dated }));
  return refusals;
}
