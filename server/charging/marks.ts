import { chargeOf, type EntryToCharge } from '../../core/charging/charge';
import { countsFrom, isMarked, markOf, UNSAID, type Charging } from '../../core/charging/chargeMark';
import type { PlainDate } from '../../core/calendar/plainDate';
import { refuse } from '../../core/refusals/refusal';
import { assertAllowed } from '../acts/refused';
import { closedTo } from '../ledger/closing';
import { loadDigits } from '../company/company';
import type { NewRow, RowOf } from '../db/fields';
import type { Reader, Sql } from '../db/sql';
import { loadChargeTerms } from './chargeTerms';
import { ChargeMarkTable } from './models';
import { CHARGED_AMONG, FREE_OF_ENTRIES, FREE_OF_JOBS, MARKS_OF, MARK_ALL, MARKS_OF_TIME, SAVE_CHARGES } from './queries';

/** An entry just saved, as far as its mark goes. */
export interface EntryToMark {
  id: number;
  job_id: number;
  posted_on: PlainDate;
  /** As it was said; left out: nothing was. */
  charging?: Charging;
  /** What it reverses or stands in the place of has its mark; on another job the mark is that job's. */
  follows: number | null;
}

/** Keeps the marks of entries just saved with what is charged for each: as they were said, else by what they follow, else by their job. */
export async function markEntries(sql: Sql, entries: readonly EntryToMark[]): Promise<void> {
  const charged = new Set(
    (await sql.all(CHARGED_AMONG, [JSON.stringify([...new Set(entries.map((it) => it.job_id))])])).map((it) => it.id),
  );
  const followed = entries.flatMap((it) => it.follows ?? []);
  const marks = new Map(
    (followed.length === 0 ? [] : await sql.all(MARKS_OF, [JSON.stringify(followed)])).map((it) => [it.id, it]),
  );
  const rows = entries.flatMap((it): NewRow<typeof ChargeMarkTable>[] => {
    const pricing = charged.has(it.job_id) ? 'charged' : 'fixed';
    const like = it.follows === null ? undefined : marks.get(it.follows);
    const charging =
      it.charging ??
      (like?.jobId === it.job_id
        ? { mark: like.mark, from: like.chargeFrom, markup: like.markup, wording: like.wording }
        : UNSAID);
    return isMarked(charging, pricing) ? [markRow(it, charging, pricing)] : [];
  });
  if (rows.length === 0) return;
  await sql.insertAll(ChargeMarkTable, rows);
  await saveCharges(sql, await sql.all(FREE_OF_ENTRIES, [JSON.stringify(rows.map((it) => it.cost_entry_id))]));
}

/** Works again what is charged for entries in a JSON list that no invoice has. */
export async function rechargeEntries(sql: Sql, ids: readonly number[]): Promise<void> {
  await saveCharges(sql, await sql.all(FREE_OF_ENTRIES, [JSON.stringify(ids)]));
}

export function markRow(
  it: { id: number; job_id: number; posted_on: PlainDate },
  charging: Charging,
  pricing: 'fixed' | 'charged',
): NewRow<typeof ChargeMarkTable> {
  return {
    cost_entry_id: it.id,
    job_id: it.job_id,
    mark: markOf(charging, pricing),
    charge_from: charging.from,
    counts_from: countsFrom(it.posted_on, charging.from),
    markup: charging.markup,
    wording: charging.wording,
    charge: 0,
  };
}

/** Works again what is charged for entries that no invoice has, of these jobs or of all; gives back how many were charged otherwise. */
export async function recharge(sql: Sql, jobIds: readonly number[] | null): Promise<number> {
  return saveCharges(sql, await sql.all(FREE_OF_JOBS, [jobIds === null ? null : JSON.stringify(jobIds)]));
}

/** Charges all cost of a job that nothing was said of. */
export async function chargeAll(sql: Sql, jobId: number): Promise<void> {
  await sql.run(MARK_ALL, [jobId]);
  await recharge(sql, [jobId]);
}

async function saveCharges(sql: Sql, entries: readonly MarkedEntry[]): Promise<number> {
  if (entries.length === 0) return 0;
  const other = await chargesOf(sql, entries);
  await assertOpen(sql, entries, new Map(other));
  await sql.run(SAVE_CHARGES, [JSON.stringify(other)]);
  return other.length;
}

/** What was charged by a day up to which the books are closed stays; an entry without a charge yet is just saved. */
async function assertOpen(sql: Reader, entries: readonly MarkedEntry[], other: ReadonlyMap<number, number>): Promise<void> {
  const closed = await closedTo(sql);
  if (closed === null) return;
  const changed = entries.find((it) => it.charge !== 0 && it.mark === 'yes' && it.countsFrom <= closed && other.has(it.id));
  if (changed) assertAllowed([chargedInClosed(changed, closed)], { code: 'refused' });
}

/** That an entry counts in closed books. */
export const chargedInClosed = (
  { reference, countsFrom: from }: { reference: string; countsFrom: PlainDate },
  closed: PlainDate,
) => refuse('charged-in-closed', 'entries', { entry: reference || 'An entry', from, closed });

type MarkedEntry = RowOf<typeof FREE_OF_JOBS>;

/** What entries are charged now, where it is not what is kept: `[entry, charge]`. */
async function chargesOf(sql: Reader, entries: readonly MarkedEntry[]): Promise<[number, number][]> {
  const [terms, digits] = [await loadChargeTerms(sql), await loadDigits(sql)];
  return entries.flatMap((it) => {
    const { charge } = chargeOf(entryToCharge(it), terms, digits);
    return charge === it.charge ? [] : [[it.id, charge] as [number, number]];
  });
}

/** An entry as its charge is worked. The hours of a line of time stand on its pay, and none on its burden. */
export function entryToCharge({ timeLine, hours, workKind, employee, wageClass, ...it }: MarkedEntry): EntryToCharge {
  if (timeLine === null) return { ...it, time: null };
  return { ...it, time: { part: hours === null ? 'burden' : 'pay', hours: hours ?? 0, workKind, employee, wageClass } };
}

/** What posted lines of time are marked as now, by their ids; lines without a mark are left out. */
export async function marksOfTime(sql: Reader, lines: readonly number[]): Promise<Map<number, Charging>> {
  const rows = lines.length === 0 ? [] : await sql.all(MARKS_OF_TIME, [JSON.stringify(lines)]);
  return new Map(
    rows.map(({ timeLine, mark, chargeFrom: from, markup, wording }) => [timeLine, { mark, from, markup, wording }]),
  );
}
