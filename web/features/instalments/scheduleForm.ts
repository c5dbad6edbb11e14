import { readRows, rowOf } from '../../kit/grid/rowCodecs';
import { oneOf, optional, words, type Codec, type Faults } from '../../kit/typed/codecs';
import { at } from '../../../core/errors/known';
import { displayDate } from '../../../core/calendar/displayDate';
import { MINUS } from '../../../core/money/display';
import type { Instalment } from '../../../core/instalments/instalment';
import type { InstalmentsInput } from '../../../wire/instalments';
import type { GridRow } from '../../kit/grid/gridTypes';
import { readDate } from '../../kit/typed/readDate';
import { part } from '../../kit/typed/parts';

type InstalmentInput = InstalmentsInput['instalments'][number];
type Due = Pick<InstalmentInput, 'due' | 'day' | 'days'>;

/** Between the stages of one instalment. */
const BETWEEN = ' + ';

/** An instalment as a row of the grid shows it. */
export function instalmentRow(it: Instalment, codecs: ScheduleCodecs): GridRow {
  return rowOf(codecs, { ...it, due: it, part: it });
}

/** `30 Apr 2031`, `finish`, `finish + 14`, `start − 7`; nothing where no day is agreed yet. */
function dueText({ due, day, days }: Due): string {
  if (due === 'day') return displayDate(day);
  return days === 0 ? due : `${due} ${days < 0 ? MINUS : '+'} ${Math.abs(days)}`;
}

/** When an instalment falls due; nothing typed is no day yet. */
function due(month: string): Codec<Due> {
  return {
    parse: (text) => {
      const typed = text.trim().toLowerCase().replaceAll(MINUS, '-');
      if (typed === '') return { ok: true, value: NO_DAY };
      const match = /^(start|finish)(?:\s*([+-])\s*(\d{1,4}))?$/.exec(typed);
      const days = Number(`${match?.[2] ?? ''}${match?.[3] ?? 0}`);
      if (match) return { ok: true, value: { due: match[1] as 'start' | 'finish', day: null, days } };
      const day = readDate(typed, month);
      if (day) return { ok: true, value: { due: 'day', day, days: 0 } };
      return {
        ok: false,
        message: `"${text}" is not a valid date; enter one such as 30 Apr 2031, or start, finish, finish + 14`,
      };
    },
    format: dueText,
    nothing: NO_DAY,
    month,
  };
}
const NO_DAY: Due = { due: 'day', day: null, days: 0 };

/** Stages of the job, by their names with a plus between them. */
function stagesOf(known: readonly string[]): Codec<readonly string[]> {
  return {
    parse: (text) => {
      const named = readStages(text, known);
      const unknown = named.find((it) => !known.includes(it));
      return unknown === undefined
        ? { ok: true, value: named }
        : { ok: false, message: `The job has no section ${unknown}; add it to the plan first` };
    },
    format: (stages) => stages.join(BETWEEN),
    nothing: [],
  };
}

const SOURCES = ['stages', 'job'] as const;

/** How the columns of a billing schedule are read. */
export function scheduleCodecs({ stages, month, digits }: ScheduleContext) {
  return {
    name: words('Expected a name'),
    stages: stagesOf(stages),
    due: due(month),
    part: part(digits),
    from: optional(oneOf(SOURCES), null),
  };
}
export type ScheduleCodecs = ReturnType<typeof scheduleCodecs>;

/** A read row, and where it stands in the grid. */
export interface ReadInstalment {
  row: number;
  instalment: InstalmentInput;
}

/** What rows are read with: the job's sections, the month that short days are of, decimals of the currency. */
export interface ScheduleContext {
  stages: readonly string[];
  month: string;
  digits: number;
}

/** Reads the rows of the grid, blank ones left out; faults by `row.column`. Left empty, an instalment is taken from its stages where it names some. */
export function readSchedule(rows: readonly GridRow[], codecs: ScheduleCodecs): { faults: Faults; read: ReadInstalment[] } {
  const faults: Faults = new Map();
  const read = readRows(codecs, rows, faults).map(({ row, value: { name, stages, due, part, from }, fault }) => {
    if (from === 'stages' && stages.length === 0 && !faults.has(`${row}.stages`))
      fault('stages', 'Expected the stages it is taken from');
    return {
      row,
      instalment: { name, stages: [...stages], ...due, ...part, from: from ?? (stages.length > 0 ? 'stages' : 'job') },
    };
  });
  return { faults, read };
}

/** Stages between plus signs, by their names in any case. A name may have plus signs itself: the longest known one is taken. */
function readStages(text: string, stages: readonly string[]): string[] {
  const plain = (typed: string) =>
    typed
      .toLowerCase()
      .replace(/\s*\+\s*/g, '+')
      .trim();
  const byName = new Map(stages.map((it) => [plain(it), it]));
  const parts = text
    .split('+')
    .map((it) => it.trim())
    .filter(Boolean);
  const found: string[] = [];
  for (let from = 0; from < parts.length;) {
    let until = parts.length;
    while (until > from + 1 && !byName.has(plain(parts.slice(from, until).join('+')))) until -= 1;
    found.push(byName.get(plain(parts.slice(from, until).join('+'))) ?? at(parts, from));
    from = until;
  }
  return [...new Set(found)];
}
