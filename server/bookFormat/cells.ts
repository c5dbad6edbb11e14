import { isEnteredDate } from '../../core/calendar/plainDate';
import { parseCents } from '../../core/money/cents';
import type { Scaled } from '../../core/money/decimal';
import { parseMarkup, parseNeeded, parsePercent, parseQuantity } from '../../core/money/rate';
import { parseUnitCost } from '../../core/prices/unitCost';
import type { Column } from './columns';

/** The most decimals any currency has: amounts are read in them where the currency itself is at fault. */
export const MOST_DIGITS = 4;

/** A cell's value, or what is wrong with it in words. */
export type Cell = { value: unknown } | { fault: string };

/** Reads one non-empty cell by its column. `currencyDigits` null: the currency itself is faulty, any decimals pass. */
export function readCell(column: Column<unknown>, text: string, currencyDigits: number | null): Cell {
  switch (column.kind) {
    case 'text':
    case 'forecast-value':
      return text.length <= (column.longest ?? Infinity)
        ? { value: text }
        : {
            fault: `has ${text.length.toLocaleString('en')} characters; shorten it to ${column.longest?.toLocaleString('en')} or fewer`,
          };
    case 'date':
      return isEnteredDate(text)
        ? { value: text }
        : { fault: `"${text}" is not a date; write it as 2031-04-30, from 1900 to 2199` };
    case 'moment':
      return isMoment(text) ? { value: text } : { fault: `"${text}" is not a moment; write it as 2031-04-30T09:00:00.000Z` };
    case 'boolean':
      return text === 'yes' || text === 'no' ? { value: text === 'yes' } : { fault: `"${text}" is neither yes nor no` };
    case 'one-of':
      return (column.values ?? []).includes(text)
        ? { value: text }
        : { fault: `"${text}" is not one of ${(column.values ?? []).join(', ')}` };
    case 'integer':
      return readInteger(column, text);
    case 'percent':
      return readScaled(
        text,
        parsePercent(text),
        'a percentage from 0 to 100 with up to 4 decimals',
        'has more than 4 decimals',
        'is outside 0 to 100',
      );
    case 'markup':
      return readScaled(
        text,
        parseMarkup(text),
        'a percentage such as 12.5',
        'has more than 4 decimals',
        'is outside -100 to 1000',
      );
    case 'unit-cost':
      return notNegative(text, parseUnitCost(text), 'a unit cost such as 12.3456');
    case 'needed':
      return notNegative(text, parseNeeded(text), 'a plain number such as 12.5');
    case 'quantity':
      return readScaled(text, parseQuantity(text), 'a plain number such as 12.5', 'has more than 4 decimals', 'is too large');
    case 'amount':
      return readAmount(text, currencyDigits);
  }
}

/** A day and time in UTC, as it is recorded. */
function isMoment(text: string): boolean {
  return /^.{10}T\d\d:\d\d:\d\d(\.\d{3})?Z$/.test(text) && isEnteredDate(text.slice(0, 10)) && !Number.isNaN(Date.parse(text));
}

function notNegative(text: string, read: Scaled, expected: string): Cell {
  if (read.ok && read.value < 0) return { fault: `${text} is below 0` };
  return readScaled(text, read, expected, 'has more than 4 decimals', 'is too large');
}

/** An amount in the company's currency. */
export function readAmount(text: string, currencyDigits: number | null): Cell {
  return readScaled(
    text,
    parseCents(text, currencyDigits ?? MOST_DIGITS),
    'a plain amount such as 12500.00',
    `has more decimals than the currency's ${currencyDigits}`,
    'is too large',
  );
}

function readScaled(text: string, read: Scaled, expected: string, decimals: string, size: string): Cell {
  if (read.ok) return { value: read.value };
  if (read.problem === 'not-a-number') return { fault: `"${text}" is not ${expected}` };
  return { fault: `${text} ${read.problem === 'too-many-decimals' ? decimals : size}` };
}

function readInteger(column: Column<unknown>, text: string): Cell {
  const [low, high] = column.span ?? [0, 0];
  const value = Number(text);
  if (!/^(\d+|-[1-9]\d*)$/.test(text)) return { fault: `"${text}" is not a whole number` };
  return value < low || value > high ? { fault: `${text} is not between ${low} and ${high}` } : { value };
}
