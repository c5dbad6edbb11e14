import { estimateAtCompletion, type ForecastMethod } from '../../../core/forecast/estimateAtCompletion';
import { forecastFault, withForecast, type TypedForecast } from '../../../core/forecast/typedForecast';
import type { ForecastInput, ForecastView } from '../../../wire/forecasts';
import { ROW_KEY, type GridRow } from '../../kit/grid/gridTypes';
import { amount, optional, percent, quantity, readAt, words, type Codec, type Faults } from '../../kit/typed/codecs';

/** The ways of saying what a line will still cost, each a column of its own: one counts. */
export const METHODS: readonly ForecastMethod[] = ['to-complete', 'percent', 'hours'];

/** How the columns of a forecast are read. */
export function forecastCodecs(digits: number) {
  return {
    'to-complete': optional(amount(digits), null),
    percent: optional(percent, null),
    hours: optional(quantity, null),
    note: words(),
  } satisfies Record<ForecastMethod | 'note', Codec<number | null> | Codec<string>>;
}
export type ForecastCodecs = ReturnType<typeof forecastCodecs>;

/** A row of a line, under its key; `line` says so among what is compared, since the same may be typed on another line. */
const rowOfLine = (id: number): GridRow => ({ [ROW_KEY]: String(id), line: String(id) });

/** The rows of a forecast as it was read. */
export function rowsOf(view: ForecastView, codecs: ForecastCodecs): GridRow[] {
  return view.lines.map(({ id, entered }) => ({
    ...rowOfLine(id),
    ...(entered && { [entered.method]: codecs[entered.method].format(entered.value), note: entered.note }),
  }));
}

/** What is typed, line by line of the forecast as it is now: a line that is not there any more is left out. */
export function rowsOfLines(typed: readonly GridRow[], { lines }: ForecastView): GridRow[] {
  const byKey = new Map(typed.map((row) => [row[ROW_KEY], row]));
  return lines.map(({ id }) => byKey.get(String(id)) ?? rowOfLine(id));
}

/** What names a row, without what is typed in it. */
export const named = ({ [ROW_KEY]: key = '', line = '' }: GridRow): GridRow => ({ [ROW_KEY]: key, line });

/** Rows as they are after something was typed: the way typed last is the one that counts, the others are emptied. */
export function oneWay(next: readonly GridRow[], before: readonly GridRow[]): GridRow[] {
  return next.map((row, i) => {
    const typed = METHODS.find((it) => (row[it] ?? '') !== (before[i]?.[it] ?? '') && (row[it] ?? '').trim() !== '');
    return typed ? { ...named(row), [typed]: row[typed] ?? '', note: row.note ?? '' } : row;
  });
}

export interface WorkedLine {
  said: TypedForecast | null;
  /** Estimate at completion with what is typed. */
  estimate: number;
}

export interface WorkedForecast {
  faults: Faults;
  lines: WorkedLine[];
  input: ForecastInput['lines'];
}

/** Reads the rows, and works out what each line comes to by the arithmetic of the reports. Faults by `row.column`. */
export function workForecast(view: ForecastView, rows: readonly GridRow[], codecs: ForecastCodecs): WorkedForecast {
  const faults: Faults = new Map();
  const input: ForecastInput['lines'] = [];
  const lines = view.lines.map(({ state, section, costCode, costType }, i): WorkedLine => {
    const row = rows[i] ?? {};
    const method = METHODS.find((it) => (row[it] ?? '').trim() !== '');
    const value = method ? readAt(faults, `${i}.${method}`, row[method], codecs[method]) : null;
    const read = method !== undefined && value !== null && !faults.has(`${i}.${method}`) ? { method, value } : null;
    const fault = read && forecastFault(read, state, view.on);
    if (read && fault) faults.set(`${i}.${read.method}`, fault);
    const said = fault ? null : read;
    if (said) input.push({ section, costCode, costType, ...said, note: (row.note ?? '').trim() });
    else if ((row.note ?? '').trim() !== '' && !method)
      faults.set(`${i}.note`, 'A note goes with a forecast; enter what is still to come');
    return { said, estimate: estimateAtCompletion(withForecast(state, said, view.on), view.finished).amount };
  });
  return { faults, lines, input };
}
