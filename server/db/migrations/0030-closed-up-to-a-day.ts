import type { Migration } from './migration';

/** Up to which day the books are closed: each time it was said, the last one counts. */
export const closedUpToADay: Migration = {
  name: '0030-closed-up-to-a-day',
  statements: [
    `CREATE TABLE closing (
      id INTEGER PRIMARY KEY, closed_to TEXT, reason TEXT NOT NULL, actor TEXT NOT NULL, recorded_at TEXT NOT NULL
    )`,
  ],
};
