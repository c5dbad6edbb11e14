import type { Installation } from '../../core/costs/installed';
import type { PostedCost } from '../../core/costs/reversal';
import { nextId, type Reader, type Sql } from '../db/sql';
import { CostEntryTable } from '../costs/models';
import { insertCostEntries, type NewCostEntry } from '../costs/costEntries';
import { InstallationTable } from './models';
import { INSTALLATIONS_OF, LIVE_ENTRIES, PICKED_ENTRIES } from './queries';
import type { RowOf } from '../db/fields';

/** A posted entry with all that corrections need of it. */
export interface PostedEntry extends Omit<RowOf<typeof PICKED_ENTRIES>, 'posted_on' | keyof PostedCost>, PostedCost {}

/** The entries of these ids, in the order they were posted; those that are not there are left out. */
export async function pickedEntries(sql: Reader, ids: readonly number[]): Promise<PostedEntry[]> {
  return withInstallations(sql, await sql.all(PICKED_ENTRIES, [JSON.stringify(ids)]));
}

/** The entries of a posting that were neither reversed nor moved. */
export async function liveEntries(sql: Reader, postingId: number): Promise<PostedEntry[]> {
  return withInstallations(sql, await sql.all(LIVE_ENTRIES, [postingId]));
}

async function withInstallations(sql: Reader, rows: readonly RowOf<typeof PICKED_ENTRIES>[]): Promise<PostedEntry[]> {
  const uninstalled = rows.filter((it) => it.uninstalled === 1).map((it) => it.id);
  const parts = await sql.all(INSTALLATIONS_OF, [JSON.stringify(uninstalled)]);
  const byEntry = new Map<number, Installation[]>();
  for (const { cost_entry_id, installed_on, amount, quantity } of parts)
    byEntry.set(cost_entry_id, [...(byEntry.get(cost_entry_id) ?? []), { installedOn: installed_on, amount, quantity }]);
  return rows.map(({ dated, posted_on, uninstalled: flag, ...row }) => ({
    ...row,
    dated,
    postedOn: posted_on,
    uninstalled: flag === 1,
    installations: byEntry.get(row.id) ?? [],
  }));
}

/** What an entry is called in a message. */
export function nameOf({ reference, cost_code, job }: Pick<PostedEntry, 'reference' | 'cost_code' | 'job'>): string {
  return `${reference || cost_code} of job ${job}`;
}

/** An entry that corrects another: it reverses it, or stands in its place. */
export interface Correcting {
  entry: PostedEntry;
  reverses: number | null;
  replaces: number | null;
}

/** Saves correcting entries of a posting, with what of them is installed. */
export async function insertCorrections(sql: Sql, postingId: number, corrections: readonly Correcting[]): Promise<void> {
  const first = await nextId(sql, CostEntryTable);
  await insertCostEntries(
    sql,
    corrections.map(({ entry: it, reverses, replaces }, i): NewCostEntry & { id: number } => ({
      id: first + i,
      posting_id: postingId,
      job_id: it.job_id,
      cost_line_id: it.cost_line_id,
      dated: it.dated,
      posted_on: it.postedOn,
      amount: it.amount,
      quantity: it.quantity,
      hours: it.hours,
      reference: it.reference,
      party: it.party,
      description: it.description,
      unit: it.entry_unit,
      commitment_line_id: it.commitment_line_id,
      uninstalled: it.uninstalled ? 1 : 0,
      reverses_entry_id: reverses,
      replaces_entry_id: replaces,
    })),
  );
  await sql.insertAll(
    InstallationTable,
    corrections.flatMap(({ entry }, i) =>
      entry.installations.map(({ installedOn, amount, quantity }) => ({
        cost_entry_id: first + i,
        job_id: entry.job_id,
        installed_on: installedOn,
        amount,
        quantity,
      })),
    ),
  );
}
