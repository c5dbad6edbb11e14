import { costJournals } from '../../core/costs/costBatch';
import { reversedInstalledState } from '../../core/costs/reversal';
import type { Journal } from '../../core/ledger/journal';
import type { Reader } from '../db/sql';
import { reversalOf, type Reversal } from '../ledger/reversal';
import { savePosting } from '../ledger/savePosting';
import { insertCostEntries, refreshCostTotals } from './costEntries';

/** Entries of the same lines with the other sign, in a posting that names the one taken back. */
export const reverseCosts: Reversal = async (sql, actor, posting, on, reason) => {
  const { entries, journals, jobIds, total } = await reverseEntries(sql, posting.id, on);
  const postingId = await savePosting(sql, actor, reversalOf(posting, on, reason), journals, jobIds);
  await insertCostEntries(
    sql,
    entries.map((entry) => [postingId, ...entry]),
  );
  await refreshCostTotals(sql, jobIds);
  return { postingId, entries: entries.length, total };
};

interface EntryRow {
  job_id: number;
  cost_line_id: number;
  dated: string;
  amount: number;
  quantity: number | null;
  hours: number | null;
  reference: string;
  party: string;
  description: string;
  commitment_line_id: number | null;
  uninstalled: number;
  installed_on: string | null;
  cost_type: 'labour';
}

/** The entries of a posting turned round, on one day: same lines, same words, the other sign. */
async function reverseEntries(
  sql: Reader,
  postingId: number,
  on: string,
): Promise<{ entries: unknown[][]; journals: Journal[]; jobIds: number[]; total: number }> {
  const rows = await sql.all<EntryRow>(
    'SELECT e.*, l.cost_type FROM cost_entry e JOIN cost_line l ON l.id = e.cost_line_id WHERE e.posting_id = $1 ORDER BY e.id',
    [postingId],
  );
  const minus = (value: number | null) => (value === null ? null : -value || 0);
  const entries = rows.map((row) => {
    const state = reversedInstalledState({ uninstalled: row.uninstalled === 1, installedOn: row.installed_on }, on);
    return [
      row.job_id,
      row.cost_line_id,
      on,
      minus(row.amount),
      minus(row.quantity),
      minus(row.hours),
      row.reference,
      row.party,
      row.description,
      row.commitment_line_id,
      state.uninstalled ? 1 : 0,
      state.installedOn,
    ];
  });
  return {
    entries,
    journals: costJournals(rows.map((row) => ({ dated: on, costType: row.cost_type, amount: -row.amount }))),
    jobIds: [...new Set(rows.map((row) => row.job_id))],
    total: rows.reduce((total, row) => total - row.amount, 0),
  };
}
