import { present } from '../../core/errors/known';
import { CostEntryTable, CostLineTable } from './models';
import type { CostType } from '../../core/costs/costType';
import { shape, t, type NewRow } from '../db/fields';
import type { Sql } from '../db/sql';

export type NewCostEntry = NewRow<typeof CostEntryTable>;

export async function insertCostEntries(sql: Sql, entries: readonly NewCostEntry[]): Promise<void> {
  await sql.insertAll(CostEntryTable, entries);
}

const RUNNING_TOTALS = `INSERT INTO cost_total (cost_line_id, month, cost, hours, entries)
  SELECT cost_line_id, month, sum(sum(amount)) OVER running, sum(sum(hours)) OVER running, sum(count(*)) OVER running
    FROM (SELECT cost_line_id, CAST(substr(posted_on, 1, 4) AS INTEGER) * 12 + CAST(substr(posted_on, 6, 2) AS INTEGER) - 1 AS month, amount, coalesce(hours, 0) AS hours
          FROM cost_entry $WHERE)
    GROUP BY cost_line_id, month
    WINDOW running AS (PARTITION BY cost_line_id ORDER BY month)`;

/** Recalculates the monthly totals of these jobs from their entries; part of every transaction that posts cost. */
export async function refreshCostTotals(sql: Sql, jobIds: readonly number[]): Promise<void> {
  const jobs = JSON.stringify(jobIds);
  await sql.run(
    'DELETE FROM cost_total WHERE cost_line_id IN (SELECT id FROM cost_line WHERE job_id IN (SELECT value FROM json_each($1)))',
    [jobs],
  );
  await sql.run(RUNNING_TOTALS.replace('$WHERE', 'WHERE job_id IN (SELECT value FROM json_each($1))'), [jobs]);
}

/** Hands out the cost line of a job × section × code × type, making it where it is new. */
export class CostLines {
  private readonly ids = new Map<string, number>();

  private constructor(
    private readonly sql: Sql,
    private next: number,
  ) {}

  /** Knows the cost lines of `jobIds`, or of all jobs where that is null. */
  static async open(sql: Sql, jobIds: readonly number[] | null): Promise<CostLines> {
    const last = await sql.get(shape({ id: t.whole }), 'SELECT coalesce(max(id), 0) AS id FROM cost_line');
    const lines = new CostLines(sql, present(last).id + 1);
    const rows = await sql.find(CostLineTable, jobIds ? { job_id: jobIds } : {});
    for (const row of rows) lines.ids.set(keyOf(row.job_id, row.section, row.cost_code_id, row.cost_type), row.id);
    return lines;
  }

  private fresh: NewRow<typeof CostLineTable>[] = [];

  /** The id of a line. A new one is saved with the next `flush`. */
  idOf(jobId: number, section: string, costCodeId: number, costType: CostType): number {
    const key = keyOf(jobId, section, costCodeId, costType);
    const known = this.ids.get(key);
    if (known !== undefined) return known;
    const id = this.next++;
    this.ids.set(key, id);
    this.fresh.push({ id, job_id: jobId, section, cost_code_id: costCodeId, cost_type: costType });
    return id;
  }

  /** Saves the lines made since the last flush; to be called before rows that refer to them. */
  async flush(): Promise<void> {
    if (this.fresh.length > 0) await this.sql.insertAll(CostLineTable, this.fresh);
    this.fresh = [];
  }
}

function keyOf(jobId: number, section: string, costCodeId: number, costType: string): string {
  return `${jobId}\u001f${section}\u001f${costCodeId}\u001f${costType}`;
}
