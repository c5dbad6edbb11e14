import type { PlainDate } from '../../core/calendar/plainDate';
import type { RowOf } from '../db/fields';
import type { Reader } from '../db/sql';
import { DAYWORK_ENTRIES } from './queries';

/** An entry that is charged or held, as a report lists it; `state`: open, hold, or the invoice that has it. */
export type DayworkEntry = Omit<RowOf<typeof DAYWORK_ENTRIES>, 'mark' | 'invoice'> & { state: string };

/** Entries of a job that are charged or held by the date, with the issued invoice of that day that has them and is not credited in full. */
export async function dayworkEntries(sql: Reader, jobId: number, asOf: PlainDate): Promise<DayworkEntry[]> {
  const rows = await sql.all(DAYWORK_ENTRIES, [jobId, asOf]);
  return rows.map(({ mark, invoice, ...it }) => ({ ...it, state: invoice ?? (mark === 'hold' ? 'hold' : 'open') }));
}
