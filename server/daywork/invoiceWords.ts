import { displayQuantity } from '../../core/money/display';

/** What an entry has to say of itself. */
interface EntryWords {
  wording: string;
  description: string;
  reference: string;
  party: string;
  hours: number | null;
  timeLine: number | null;
  codeName?: string;
}

/** What the client reads of an entry: as it was worded, else in its own words, else those of its code. */
export function wordsOf(it: EntryWords): string {
  if (it.wording !== '') return it.wording;
  if (it.timeLine !== null) {
    const hours = it.hours === null ? '' : `, ${displayQuantity(it.hours)} h`;
    return `${it.description || it.codeName || it.party}${hours}`;
  }
  return it.description || it.codeName || [it.party, it.reference].filter(Boolean).join(', ');
}
