import { setImmediate as nextTurn } from 'node:timers/promises';

/** Rows worked in one go: some thirty milliseconds at most. */
const TURN = 1000;

/** Does something for each of many rows, and lets other requests in between. */
export async function eachInTurns<Row>(rows: readonly Row[], work: (row: Row) => void): Promise<void> {
  for (let from = 0; from < rows.length; from += TURN) {
    if (from > 0) await nextTurn();
    for (const row of rows.slice(from, from + TURN)) work(row);
  }
}

/** The same, with what each row becomes. */
export async function mapInTurns<Row, Made>(rows: readonly Row[], make: (row: Row) => Made): Promise<Made[]> {
  const made: Made[] = [];
  await eachInTurns(rows, (row) => made.push(make(row)));
  return made;
}
