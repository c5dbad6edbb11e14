import { displayDate } from '../../../core/calendar/displayDate';
import { isPlainDate } from '../../../core/calendar/plainDate';
import { displayPercent, displayQuantity } from '../../../core/money/display';

/** A fact of what was recorded: what it was before, where that is known, and what it is. */
export interface DetailLine {
  name: string;
  was: string | null;
  now: string;
}

const MONEY = /amount|total|work|materials|scheduledValue|contractSum|agreed|price$|installed$|value$|above$/i;
const RATES = /rate$|percent|stepAt|stepTo|cap$/i;
const MEASURED = /^(hours|quantity)$/;
/** What tells a page nothing: ids and digests the commands carry. */
const LEFT_OUT = new Set(['seen', 'version', 'id', 'draftId', 'requestId', 'hash', 'offer']);

/** The facts of a recorded detail, flat: of what was changed, each with what it was before. */
export function describeDetail(detail: unknown, exact: (cents: number) => string): DetailLine[] {
  if (typeof detail !== 'object' || detail === null) return [];
  const { was, now, ...rest } = detail as Record<string, unknown>;
  const write = (name: string, value: unknown) => textOf(name, value, exact);
  const flat = (value: unknown) => new Map(flatten(value));
  if (was === undefined)
    return [...flat({ now, ...rest })].map(([name, value]) => ({ name, was: null, now: write(name, value) }));
  const [before, after, others] = [flat(was), flat(now ?? {}), flat(rest)];
  const changed = [...new Set([...before.keys(), ...after.keys()])].filter(
    (name) => JSON.stringify(before.get(name)) !== JSON.stringify(after.get(name)),
  );
  return [
    ...[...others].map(([name, value]) => ({ name, was: null, now: write(name, value) })),
    ...changed.map((name) => ({ name, was: write(name, before.get(name)), now: write(name, after.get(name)) })),
  ];
}

function flatten(value: unknown, under = ''): [string, unknown][] {
  if (typeof value !== 'object' || value === null) return value === undefined || value === '' ? [] : [[under || 'value', value]];
  return Object.entries(value).flatMap(([key, inner]) => {
    if (LEFT_OUT.has(key)) return [];
    const name = Array.isArray(value) ? `${under} ${Number(key) + 1}` : `${under} ${wordsOf(key)}`;
    return flatten(inner, name.trim());
  });
}

/** `contractSum` is contract sum. */
function wordsOf(key: string): string {
  return key.replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`).replaceAll('_', ' ');
}

function textOf(name: string, value: unknown, exact: (cents: number) => string): string {
  if (value === undefined || value === null) return '–';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return isPlainDate(value) ? displayDate(value) : value;
  if (typeof value !== 'number') return JSON.stringify(value);
  const key = name.split(' ').slice(-2).join('');
  if (MEASURED.test(name.split(' ').at(-1) ?? '')) return displayQuantity(value);
  if (RATES.test(key)) return `${displayPercent(value)} %`;
  return MONEY.test(key) ? exact(value) : String(value);
}
