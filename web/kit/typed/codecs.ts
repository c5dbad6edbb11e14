import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact, displayQuantity, MINUS } from '../../../core/money/display';
import { formatPercentShortest, parseMarkup, parseNeeded, parsePercent, parseQuantity } from '../../../core/money/rate';
import type { Scaled } from '../../../core/money/decimal';
import { present } from '../../../core/errors/known';
import { readAmount } from './readAmount';
import { readDate } from './readDate';
import { withoutThousands } from './withoutThousands';

export type Read<Value> = { ok: true; value: Value } | { ok: false; message: string };

/** How a value is typed and how it is written back; the same for a form's field and a grid's column. */
export interface Codec<Value> {
  parse(text: string): Read<Value>;
  format(value: Value): string;
  /** What it counts as while it cannot be read. */
  nothing: Value;
  /** Figures stand to the right. */
  look?: 'figure';
  /** Figures of one kind add up with each other. */
  adds?: 'money' | 'quantity';
  /** Of a day: the month that what is typed in short is taken to be in, 2031-04. It has a calendar. */
  month?: string;
}

const read = <Value>(value: Value): Read<Value> => ({ ok: true, value });
const fault = (message: string): Read<never> => ({ ok: false, message });

/** Words; `needed` says what is missing where there are none. */
export function words(needed?: string): Codec<string> {
  return {
    parse: (text) => (needed && text.trim() === '' ? fault(needed) : read(text.trim())),
    format: (value) => value,
    nothing: '',
  };
}

/** Lines of text, kept to the letter. */
export const asTyped: Codec<string> = {
  parse: (text) => ({ ok: true, value: text }),
  format: (value) => value,
  nothing: '',
};

/** A day; what is left out comes from `month`, such as 2031-04. */
export function day(month: string): Codec<string> {
  return {
    parse: (text) => {
      const date = readDate(text, month);
      if (date) return read(date);
      const not = text.trim() === '' ? '' : `"${text}" is not a valid date; `;
      return fault(not ? `${not}enter one such as 30 Apr 2031` : 'Enter a date, e.g. 30 Apr 2031');
    },
    format: displayDate,
    nothing: '',
    month,
  };
}

/** Minor units of a currency with `digits` decimals. */
export function amount(digits: number): Codec<number> {
  return {
    parse: (text) => {
      const value = readAmount(text, digits);
      if (value !== null) return read(value);
      const what = text.trim() === '' ? 'Enter an amount' : `"${text}" is not a valid amount; enter one`;
      return fault(`${what} such as 12,500.00`);
    },
    format: (value) => displayExact(value, digits),
    nothing: 0,
    look: 'figure',
    adds: 'money',
  };
}

function scaled(parse: (text: string) => Scaled, format: (value: number) => string, what: string): Codec<number> {
  return {
    parse: (text) => {
      const value = parse(withoutThousands(text.trim().replaceAll(MINUS, '-').replace(/\s*%$/, '')));
      return value.ok ? read(value.value) : fault(text.trim() === '' ? `Enter a ${what}` : `"${text}" is not a ${what}`);
    },
    format,
    nothing: 0,
    look: 'figure',
  };
}

const quantityText = (value: number) => (value === 0 ? '0' : displayQuantity(value));
const notBelowZero = (parse: (text: string) => Scaled) => (text: string) => {
  const value = parse(text);
  return value.ok && value.value < 0 ? ({ ok: false, problem: 'too-large' } as const) : value;
};

/** Ten-thousandths of a unit or of an hour. */
export const quantity: Codec<number> = {
  ...scaled(parseQuantity, quantityText, 'number with up to 4 decimals'),
  adds: 'quantity',
};
/** Ten-thousandths of what an estimate needs, never below zero. */
export const needed = scaled(notBelowZero(parseNeeded), quantityText, 'quantity of 0 or more with up to 4 decimals');
/** Millionths, 0 to 100 percent. */
export const percent = scaled(parsePercent, formatPercentShortest, 'percentage from 0 to 100');
/** Millionths, −100 to 1,000 percent. */
export const markup = scaled(parseMarkup, formatPercentShortest, 'percentage from −100 to 1,000 with up to 4 decimals');

/** A whole number of up to four digits. */
export function whole(of: string): Codec<number> {
  return {
    parse: (text) => (/^\d{1,4}$/.test(text.trim()) ? read(Number(text)) : fault(`Expected a number of ${of}`)),
    format: String,
    nothing: 0,
    look: 'figure',
  };
}

/** One of a list, by its first letters. */
export function oneOf<Name extends string>(names: readonly Name[]): Codec<Name> {
  return {
    parse: (text) => {
      const typed = text.trim().toLowerCase();
      const lower = names.map((it) => it.toLowerCase());
      const found =
        names[lower.indexOf(typed)] ?? (typed === '' ? undefined : names[lower.findIndex((it) => it.startsWith(typed))]);
      return found ? read(found) : fault(`Expected one of ${names.join(', ')}`);
    },
    format: (value) => value,
    nothing: present(names.at(-1)),
  };
}

/** A code that is there already; `what` it is called, and what else can be done. */
export function among(known: { has(code: string): boolean }, what: string, otherwise = ''): Codec<string> {
  return {
    parse: (text) => {
      const code = text.trim();
      if (known.has(code)) return read(code);
      return fault(code === '' ? `Expected a ${what}` : `There is no ${what} ${code}${otherwise}`);
    },
    format: (value) => value,
    nothing: '',
  };
}

/** Yes, by its first letter; anything else is no. */
export const yes: Codec<boolean> = {
  parse: (text) => read(/^y/i.test(text.trim())),
  format: (value) => (value ? 'yes' : ''),
  nothing: false,
};

/** The same as another, with nothing typed read as `empty`. */
export function optional<Value, const Empty>(codec: Codec<Value>, empty: Empty): Codec<Value | Empty> {
  return {
    ...codec,
    parse: (text) => (text.trim() === '' ? read(empty) : codec.parse(text)),
    format: (value) => (value === empty || value === null ? '' : codec.format(value as Value)),
  };
}

/** Notes what is wrong with a cell, by its place. */
export type Faults = Map<string, string>;

/** The faults of one part of a form, by what stands after its name. */
export function faultsUnder(faults: ReadonlyMap<string, string>, part: string): Faults {
  return new Map([...faults].filter(([at]) => at.startsWith(part)).map(([at, text]) => [at.slice(part.length), text]));
}

/** What is typed at a place; where it cannot be read the fault is noted there. */
export function readAt<Value>(faults: Faults, at: string, typed: string | undefined, codec: Codec<Value>): Value {
  const value = codec.parse(typed ?? '');
  if (value.ok) return value.value;
  faults.set(at, value.message);
  return codec.nothing;
}

/** Writes what was typed as it was understood; what cannot be read stays as typed. */
export function tidyOf<Value>(codec: Codec<Value>) {
  return (typed: string): string => {
    const value = codec.parse(typed);
    return typed.trim() !== '' && value.ok ? codec.format(value.value) : typed;
  };
}
