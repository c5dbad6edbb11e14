import { HOLDING_PARTS, type HoldingPart } from '../../core/jobs/jobParts';
import type { Reader } from '../db/sql';
import { HELD } from './queries';

/** The parts of a job that hold something, whenever it was entered. */
export async function heldParts(sql: Reader, jobId: number): Promise<HoldingPart[]> {
  const held = await sql.get(HELD, [jobId]);
  return HOLDING_PARTS.filter((part) => held?.[part] === 1);
}
