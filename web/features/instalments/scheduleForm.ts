import { isFilled } from '../../kit/grid/filledRow';
import { readAt, type Faults } from '../../kit/typed/codecs';
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
export function rowOf(it: Instalment, digits: number): GridRow {
  return {
    name: it.name,
    stages: it.stages.join(BETWEEN),
    due: dueText(it),
    part: part(digits).format(it),
    from: it.from,
  };
}

/** `30 Apr 2031`, `finish`, `finish + 14`, `start − 7`; nothing where no day is agreed yet. */
function dueText({ due, day, days }: Due): string {
  if (due === 'day') return displayDate(day);
  return days === 0 ? due : `${due} ${days < 0 ? MINUS : '+'} ${Math.abs(days)}`;
}

function readDue(text: string, month: string): Due | null {
  const typed = text.trim().toLowerCase().replaceAll(MINUS, '-');
  if (typed === '') return { due: 'day', day: null, days: 0 };
  const match = /^(start|finish)(?:\s*([+-])\s*(\d{1,4}))?$/.exec(typed);
  if (match) return { due: match[1] as 'start' | 'finish', day: null, days: Number(`${match[2] ?? ''}${match[3] ?? 0}`) };
  const day = readDate(typed, month);
  return day ? { due: 'day', day, days: 0 } : null;
}

/** A read row, and where it stands in the grid. */
export interface ReadRow {
  row: number;
  instalment: InstalmentInput;
}

/** What rows are read with: the job's sections, the month that short days are of, decimals of the currency. */
export interface ScheduleContext {
  stages: readonly string[];
  month: string;
  digits: number;
}

/** Reads the rows of the grid, blank ones left out; faults by `row.column`. */
export function readSchedule(
  rows: readonly GridRow[],
  { stages, month, digits }: ScheduleContext,
): { faults: Faults; read: ReadRow[] } {
  const faults: Faults = new Map();
  const read = rows.flatMap((row, i): ReadRow[] => {
    if (!isFilled(row)) return [];
    const name = (row.name ?? '').trim();
    if (name === '') faults.set(`${i}.name`, 'Expected a name');
    const named = readStages(row.stages ?? '', stages);
    const unknown = named.find((it) => !stages.includes(it));
    if (unknown) faults.set(`${i}.stages`, `The job has no section ${unknown}; add it to the plan first`);
    const due = readDue(row.due ?? '', month);
    if (!due)
      faults.set(`${i}.due`, `"${row.due}" is not a valid date; enter one such as 30 Apr 2031, or start, finish, finish + 14`);
    const from = readFrom(row.from ?? '', named.length > 0);
    if (!from) faults.set(`${i}.from`, 'Expected stages or job');
    if (from === 'stages' && named.length === 0) faults.set(`${i}.stages`, 'Expected the stages it is taken from');
    return [
      {
        row: i,
        instalment: {
          ...{ name, stages: named, ...(due ?? { due: 'day', day: null, days: 0 }), from: from ?? 'job' },
          ...readAt(faults, `${i}.part`, row.part, part(digits), { rate: null, amount: 0 }),
        },
      },
    ];
  });
  return { faults, read };
}

/** Left empty, an instalment is taken from its stages where it names some. */
function readFrom(text: string, hasStages: boolean): 'stages' | 'job' | null {
  const typed = text.trim().toLowerCase();
  if (typed === '') return hasStages ? 'stages' : 'job';
  return (['stages', 'job'] as const).find((it) => it.startsWith(typed)) ?? null;
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
