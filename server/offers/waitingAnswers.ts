import { WAITING_ANSWERS } from './queries';
import { type RowOf } from '../db/fields';
import type { Reader } from '../db/sql';

/** What clients wait for, or what the company has to note of their answers, on documents sent by a date. */
export type WaitingAnswer = RowOf<typeof WAITING_ANSWERS>;

/** Questions of clients without an answer, and answers to changes that the company has not noted, oldest first. */
export function waitingAnswers(sql: Reader, jobId: number, asOf: string): Promise<WaitingAnswer[]> {
  return sql.all(WAITING_ANSWERS, [jobId, asOf]);
}
