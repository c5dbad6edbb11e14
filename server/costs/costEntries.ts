import { addToCostTotals } from './costTotals';
import { LAST_COST_LINE } from './queries';
import { present } from '../../core/errors/known';
import { CostEntryTable, CostLineTable } from './models';
import type { CostType } from '../../core/costs/costType';
import { type NewRow } from '../db/fields';
import { nextId, type Sql } from '../db/sql';
import type { Charging } from '../../core/charging/chargeMark';
import { markEntries } from '../charging/marks';

export type NewCostEntry = NewRow<typeof CostEntryTable> & {
  /** What was said of charging it; left out: as what it corrects, else as its job. */
  charging?: Charging;
};

/** Saves entries, what they add to the totals of their lines, and what of them is charged; gives back their ids. */
export async function insertCostEntries(sql: Sql, entries: readonly NewCostEntry[]): Promise<number[]> {
  const first = await nextId(sql, CostEntryTable);
  const numbered = entries.map((it, i) => ({ ...it, id: it.id ?? first + i }));
  await sql.insertAll(
    CostEntryTable,
    numbered.map(({ charging: _, ...it }) => it),
  );
  await addToCostTotals(sql, entries);
  await markEntries(
    sql,
    numbered.map(({ id, job_id, posted_on, charging, reverses_entry_id, replaces_entry_id }) => ({
      id,
      job_id,
      posted_on,
      follows: reverses_entry_id ?? replaces_entry_id ?? null,
      ...(charging === undefined ? {} : { charging }),
    })),
  );
  return numbered.map((it) => it.id);
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
    const last = await sql.get(LAST_COST_LINE);
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
