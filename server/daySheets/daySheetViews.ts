import { type DayList, type DaySheet, EMPTY_DAY } from '../../core/daySheets/daySheet';
import { hoursDiffer } from '../../core/daySheets/hoursDiffer';
import { timeState } from '../../core/labour/timeLife';
import { known } from '../../core/errors/known';
import { LedrinError } from '../../core/errors/ledrinError';
import { stableText } from '../../core/lists/stableText';
import { grouped } from '../../core/lists/grouped';
import type { DayOfSheet, DaySheetView, WeekHours } from '../../wire/daySheets';
import type { RowOf } from '../db/fields';
import type { Reader } from '../db/sql';
import { digestOf } from '../versions/digest';
import { linesOfSheet, shownLine, type LoadedLine } from '../weekSheets/sheetViews';
import { DAY_ENTRIES, DAY_SHEET, DAY_SHEETS_OF_SHEET, DAY_SIGNATURES, JOB_PICTURES } from './queries';

export type DayHead = RowOf<typeof DAY_SHEET>;
export type DayKey = Pick<DayHead, 'job' | 'dated' | 'crew'>;
type Entry = RowOf<typeof DAY_ENTRIES>;

/** How an entry reads as a row of its list. */
const AS_ROW: { readonly [Part in Exclude<DayList, 'signatures'>]: (it: Entry) => DaySheet[Part][number] } = {
  hours: ({ employee, section, costCode, workKind, pay, hours, description, ...it }) => ({
    employee,
    section,
    costCode,
    workKind,
    pay,
    hours: hours ?? 0,
    description,
    ...chargeOf(it),
  }),
  quantities: ({ section, costCode, quantity, unit, description }) => ({
    section,
    costCode,
    quantity: quantity ?? 0,
    unit,
    description,
  }),
  equipment: ({ name, hours, description, ...it }) => ({ name, hours: hours ?? 0, description, ...chargeOf(it) }),
  subcontractors: ({ name, headcount, description }) => ({ name, headcount: headcount ?? 0, description }),
  deliveries: ({ name, reference, description, photo, ...it }) => ({ name, reference, description, photo, ...chargeOf(it) }),
  visitors: ({ name, description }) => ({ name, description }),
  incidents: ({ name, description }) => ({ name, description }),
  instructions: ({ name, description }) => ({ name, description }),
  photos: ({ photo, description }) => ({ photo, description }),
};
const chargeOf = ({ charged, signature }: Pick<Entry, 'charged' | 'signature'>) => ({ charged: charged === 1, signature });

/** What sheets say, by their ids. */
export async function daysOf(sql: Reader, heads: readonly DayHead[]): Promise<Map<number, DaySheet>> {
  const ids = [JSON.stringify(heads.map((it) => it.id))];
  const entries = grouped(await sql.all(DAY_ENTRIES, ids), (it) => it.sheetId);
  const signatures = grouped(await sql.all(DAY_SIGNATURES, ids), (it) => it.sheetId);
  return new Map(
    heads.map(({ id, weather, notes }) => {
      const day: DaySheet = { ...EMPTY_DAY, weather, notes };
      for (const [kind, of] of grouped(entries.get(id) ?? [], (it) => it.kind))
        Object.assign(day, { [kind]: of.map((it) => AS_ROW[kind](it)) });
      day.signatures = (signatures.get(id) ?? []).map(({ sheetId: _, ...it }) => it);
      return [id, day];
    }),
  );
}

/** The lines of time of the week sheet of a day sheet that are of its job and day. */
export async function linesOfDay(sql: Reader, { sheet, job, dated }: DayHead): Promise<LoadedLine[]> {
  if (sheet === '') return [];
  const lines = await linesOfSheet(sql, sheet);
  return lines.filter((it) => it.job === job && it.dated === dated && it.reverses === null && it.reversedBy === null);
}

/** Lines of time as the hours of a day. */
export const officeHours = (lines: readonly LoadedLine[]) =>
  lines.map((it) => ({ ...it, pay: it.split === 1 ? null : it.pay, state: timeState(it) }));

/** Whether lines of time say what the hours of a day sheet say. */
export const sameHours = (hours: DaySheet['hours'], lines: readonly LoadedLine[]): boolean =>
  hoursDiffer(hours, officeHours(lines)).length === 0;

/** What a day sheet says, in whatever order its keys were sent. */
export const textOfDay = (day: DaySheet) => stableText(day);
export const seenOfDay = (day: DaySheet) => digestOf(textOfDay(day));

export async function viewsOf(sql: Reader, heads: readonly DayHead[]): Promise<DaySheetView[]> {
  const days = await daysOf(sql, heads);
  const arrived = new Map<string, string[]>();
  for (const job of new Set(heads.map((it) => it.job)))
    arrived.set(
      job,
      (await sql.all(JOB_PICTURES, [job])).map((it) => it.hash),
    );
  const views: DaySheetView[] = [];
  for (const head of heads) {
    const day = known(days, head.id);
    const lines = await linesOfDay(sql, head);
    const shownPhotos = new Set([...day.photos, ...day.deliveries].map((it) => it.photo));
    const differences = hoursDiffer(day.hours, officeHours(lines));
    views.push({
      job: head.job,
      jobName: head.jobName,
      dated: head.dated,
      crew: head.crew,
      seen: seenOfDay(day),
      day,
      leftOut: head.leftOut,
      writtenBy: head.writtenBy,
      writtenAt: head.writtenAt,
      weekSheet: head.sheet,
      weekHours: lines.map(weekHours),
      differs: differences.length > 0,
      differences,
      arrived: known(arrived, head.job).filter((it) => shownPhotos.has(it)),
    });
  }
  return views;
}

function weekHours(line: LoadedLine): WeekHours {
  const { employee, section, costCode, pay, hours, state, returned } = shownLine(line);
  return { employee, section, costCode, pay, hours, state, returned };
}

/** The day sheets whose hours went into a week sheet, and whether they say otherwise now. */
export async function daysOfWeekSheet(sql: Reader, sheet: string): Promise<DayOfSheet[]> {
  const heads = await sql.all(DAY_SHEETS_OF_SHEET, [sheet]);
  const days = await daysOf(sql, heads);
  const found: DayOfSheet[] = [];
  for (const head of heads) {
    const { job, dated, crew } = head;
    found.push({ job, dated, crew, differs: !sameHours(known(days, head.id).hours, await linesOfDay(sql, head)) });
  }
  return found;
}

export async function dayHead(sql: Reader, { job, dated, crew }: DayKey): Promise<DayHead | undefined> {
  return sql.get(DAY_SHEET, [job, dated, crew]);
}

/** The day sheet of a job, day and crew. Throws not-found where there is none. */
export async function daySheet(sql: Reader, key: DayKey): Promise<DaySheetView> {
  const head = await dayHead(sql, key);
  const [view] = head ? await viewsOf(sql, [head]) : [];
  if (!view) throw noSheet(key);
  return view;
}

export function noSheet({ job, dated, crew }: DayKey): LedrinError {
  return new LedrinError(
    'not-found',
    `Job ${job.slice(0, 40)} has no day sheet of ${dated.slice(0, 20)} by ${crew.slice(0, 80)}`,
  );
}
