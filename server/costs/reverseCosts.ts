import { ENTRIES_OF_POSTING } from './queries';
import { costJournals } from '../../core/costs/costBatch';
import { reversedInstalledState } from '../../core/costs/reversal';
import type { Journal } from '../../core/ledger/journal';
import type { Reader } from '../db/sql';
import { reversalOf, type Reversal, type ReversalDay } from '../ledger/reversal';
import { savePosting } from '../ledger/savePosting';
import { insertCostEntries, refreshCostTotals, type NewCostEntry } from './costEntries';

/** Entries of the same lines with the other sign, in a posting that names the one taken back: on the day given, or each on its own. */
export const reverseCosts: Reversal = async (sql, actor, posting, on, reason) => {
  const { entries, journals, jobIds, total } = await reverseEntries(sql, posting.id, on);
  const postingId = await savePosting(sql, actor, reversalOf(posting, on, reason), journals, jobIds);
  await insertCostEntries(
    sql,
    entries.map((entry) => ({ posting_id: postingId, ...entry })),
  );
  await refreshCostTotals(sql, jobIds);
  return { postingId, entries: entries.length, total };
};

/** The entries of a posting turned round, on one day or each on its own: same lines, same words, the other sign. */
async function reverseEntries(
  sql: Reader,
  postingId: number,
  { day, each }: ReversalDay,
): Promise<{ entries: Omit<NewCostEntry, 'posting_id'>[]; journals: Journal[]; jobIds: number[]; total: number }> {
  const rows = await sql.all(ENTRIES_OF_POSTING, [postingId]);
  const minus = (value: number | null) => (value === null ? null : -value || 0);
  const entries = rows.map((row) => {
    const postedOn = each ? row.posted_on : day;
    const state = reversedInstalledState({ uninstalled: row.uninstalled === 1, installedOn: row.installed_on }, postedOn);
    return {
      ...{ job_id: row.job_id, cost_line_id: row.cost_line_id, amount: -row.amount || 0 },
      ...{ dated: each ? row.dated : day, posted_on: postedOn },
      ...{ quantity: minus(row.quantity), hours: minus(row.hours), reference: row.reference, party: row.party },
      ...{ description: row.description, commitment_line_id: row.commitment_line_id },
      ...{ uninstalled: state.uninstalled ? 1 : 0, installed_on: state.installedOn },
    };
  });
  return {
    entries,
    journals: costJournals(
      rows.map((row) => ({ postedOn: each ? row.posted_on : day, costType: row.cost_type, amount: -row.amount })),
    ),
    jobIds: [...new Set(rows.map((row) => row.job_id))],
    total: rows.reduce((total, row) => total - row.amount, 0),
  };
}
