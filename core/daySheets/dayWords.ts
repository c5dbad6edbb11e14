import { displayQuantity } from '../money/display';
import type { DayClash } from './mergeDays';
import type { DayList } from './daySheet';

export const PART_TITLES: Readonly<Record<DayList | 'weather' | 'notes', string>> = {
  hours: 'Hours',
  quantities: 'Installed',
  equipment: 'Equipment',
  subcontractors: 'Subcontractors on site',
  deliveries: 'Deliveries',
  visitors: 'Visitors',
  incidents: 'Incidents',
  instructions: 'Instructions received',
  photos: 'Photos',
  signatures: 'Signatures',
  weather: 'Weather',
  notes: 'Notes',
};

/** A row of a day sheet in words; `nameOf` gives the name of an employee, `taskOf` the words of a section and a cost code. */
export function dayRowInWords(
  row: Readonly<Record<string, unknown>>,
  nameOf: (employee: string) => string,
  taskOf = ({ section, costCode }: { section: string; costCode: string }) => [section, costCode].filter(Boolean).join(' · '),
): string {
  const textOf = (key: string) => (typeof row[key] === 'string' ? row[key] : '');
  const count = (key: string, word: string) =>
    typeof row[key] === 'number' ? `${displayQuantity(row[key])} ${word}`.trim() : '';
  return [
    ...[textOf('employee') && nameOf(textOf('employee')), textOf('name'), textOf('reference'), textOf('office')],
    [textOf('costCode') && taskOf({ section: textOf('section'), costCode: textOf('costCode') }), textOf('workKind')]
      .filter(Boolean)
      .join(' · '),
    textOf('pay'),
    ...[
      count('hours', 'h'),
      count('quantity', textOf('unit')),
      typeof row.headcount === 'number' ? `${row.headcount} people` : '',
    ],
    ...[textOf('description'), chargedWords(row)],
    textOf('photo') && !textOf('name') ? 'photo' : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** Whether it is charged, and whether the client has signed that. */
function chargedWords({ charged, signature }: Readonly<Record<string, unknown>>): string {
  if (charged !== true) return '';
  return Number(signature) > 0 ? `charged, signature ${String(signature)}` : 'to be charged';
}

/** What was left out when two versions of a sheet met, for whoever reads it later. */
export function leftOutInWords(
  { part }: DayClash,
  side: DayClash['mine'],
  whose: string,
  nameOf: (code: string) => string,
): string {
  const words = side === null ? 'removed' : typeof side === 'string' ? side || 'empty' : dayRowInWords(side, nameOf);
  return `${PART_TITLES[part]}, ${whose}: ${words}`;
}
