import { SovLineTable } from './models';
import type { Sql } from '../db/sql';

/** An SOV line to be saved under an id that is free. */
export interface SovLineToSave {
  id: number;
  jobId: number;
  line: string;
  position: number;
  /** False for a line a change order brings: it starts at nothing. */
  original: boolean;
  section: string;
  description: string;
  scheduledValue: number;
  quantity: number | null;
  unit: string;
  retentionRate: number | null;
}

export async function insertSovLines(sql: Sql, lines: readonly SovLineToSave[]): Promise<void> {
  await sql.insertAll(
    SovLineTable,
    lines.map((it) => ({
      id: it.id,
      job_id: it.jobId,
      line: it.line,
      position: it.position,
      original: it.original ? 1 : 0,
      section: it.section,
      description: it.description,
      scheduled_value: it.scheduledValue,
      quantity: it.quantity,
      unit: it.unit,
      retention_rate: it.retentionRate,
    })),
  );
}
