import { known } from '../../../core/errors/known';
import { PostingTable } from '../../ledger/models';
import { entryRefusals } from '../../../core/costs/entryRefusals';
import type { CostType } from '../../../core/costs/costType';
import { costJournals, type DatedCost } from '../../../core/costs/costBatch';
import type { BookCheck } from '../checks/checkBook';
import { before } from '../checks/checkContracts';
import type { BookRow } from '../format/bookFiles';
import { joinKey } from '../checks/keys';
import { bookRows, type FileShape, type Reading } from '../csv/readRows';
import { nextId, type Sql } from '../../db/sql';
import { type CostLines, insertCostEntries, refreshCostTotals, type NewCostEntry } from '../../costs/costEntries';
import { savePostings } from '../../ledger/savePosting';
import type { Actor } from '../../ledger/audit';
import type { BookIds } from './saveKeyed';

/** Checks the rows of costs.csv as they stream by, and keeps them for as long as nothing is wrong with the book. */
export async function importCosts(
  sql: Sql,
  actor: Actor,
  check: BookCheck,
  ids: BookIds,
  costLines: CostLines,
  reading: Reading,
): Promise<number> {
  const shape: FileShape = { readable: true, missingColumns: [] };
  const postingId = await nextId(sql, PostingTable);
  const days = new Map<string, DatedCost>();
  const jobs = new Set<number>();
  let count = 0;
  let first: string | null = null;
  for await (const rows of bookRows('costs', reading, shape)) {
    for (const row of rows) checkCost(check, row);
    if (check.faults.any) continue;
    // The posting names what its journals debit, which is known when all is read: entries refer to it before it is there.
    if (first === null) await sql.run('PRAGMA defer_foreign_keys = ON');
    first ??= rows[0]?.dated ?? null;
    const entries = rows.map((row) => toEntry(row, postingId, ids, costLines, days, jobs));
    await costLines.flush();
    await insertCostEntries(sql, entries);
    count += entries.length;
  }
  if (check.faults.any || first === null) return 0;
  const posting = { kind: 'opening-cost' as const, jobId: null, reference: 'costs.csv', dated: first };
  await savePostings(sql, actor, [{ id: postingId, posting, journals: costJournals([...days.values()]) }]);
  await refreshCostTotals(sql, [...jobs]);
  return count;
}

function checkCost(check: BookCheck, row: BookRow<'costs'>): void {
  const file = 'costs';
  check.refersToJob(file, row);
  check.refers(file, row.row, 'cost_code', check.keys.costCodes, 'cost code', row.cost_code);
  for (const refusal of entryRefusals({
    costType: row.cost_type ?? null,
    amount: row.amount ?? null,
    hours: row.hours ?? null,
    uninstalled: row.uninstalled === true,
  }))
    check.refuse(file, row.row, refusal, 0);
  if (before(row.installed_on, row.dated))
    check.faults.add(file, row.row, 'installed_on', `${row.installed_on} is before dated, ${row.dated}`);
  if (row.commitment === null && row.commitment_line === null) return;
  if (row.commitment === null)
    check.faults.add(file, row.row, 'commitment', 'missing required cell: commitment_line needs its commitment');
  if (!check.refers(file, row.row, 'commitment', check.keys.commitments, 'commitment', row.commitment)) return;
  if (row.commitment_line === null)
    check.faults.add(file, row.row, 'commitment_line', 'missing required cell: a commitment needs its line');
  if (!check.refers(file, row.row, 'commitment_line', check.keys.commitmentLines, 'line', row.commitment, row.commitment_line))
    return;
  const key = joinKey(row.commitment!, row.commitment_line!);
  const job = check.commitmentLineJobs.get(key) ?? check.existing.commitmentLines.get(key)?.job;
  if (job !== undefined && row.job && job !== row.job)
    check.faults.add(
      file,
      row.row,
      'commitment_line',
      `line ${row.commitment_line} of commitment ${row.commitment} is of job ${job}, not of ${row.job}`,
    );
}

function toEntry(
  row: BookRow<'costs'>,
  postingId: number,
  ids: BookIds,
  costLines: CostLines,
  days: Map<string, DatedCost>,
  jobs: Set<number>,
): NewCostEntry {
  const jobId = ids.jobs.get(row.job!)!;
  jobs.add(jobId);
  const costType = row.cost_type as CostType;
  // Credits are listed separately from costs, as their journal lines are.
  const key = `${row.dated} ${costType} ${row.amount! < 0 ? 'credit' : 'cost'}`;
  const day = days.get(key);
  if (day) day.amount += row.amount!;
  else days.set(key, { dated: row.dated!, costType, amount: row.amount! });
  return {
    ...{ posting_id: postingId, job_id: jobId },
    cost_line_id: costLines.idOf(jobId, row.section ?? '', known(ids.costCodes, row.cost_code!), costType),
    ...{
      dated: row.dated!,
      amount: row.amount!,
      quantity: row.quantity ?? null,
      hours: row.hours ?? null,
      reference: row.reference!,
    },
    ...{ party: row.party ?? '', description: row.description ?? '' },
    commitment_line_id: row.commitment ? known(ids.commitmentLines, joinKey(row.commitment, row.commitment_line!)) : null,
    ...{ uninstalled: row.uninstalled ? 1 : 0, installed_on: row.installed_on ?? null },
  };
}
