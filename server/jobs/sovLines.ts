import { bulkInsert, type Sql } from '../db/sql';

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
  await bulkInsert(
    sql,
    'sov_line',
    [
      'id',
      'job_id',
      'line',
      'position',
      'original',
      'section',
      'description',
      'scheduled_value',
      'quantity',
      'unit',
      'retention_rate',
    ],
    lines.map((it) => [
      ...[it.id, it.jobId, it.line, it.position, it.original ? 1 : 0, it.section, it.description, it.scheduledValue, it.quantity],
      ...[it.unit, it.retentionRate],
    ]),
  );
}
