import type { Migration } from './migration';

/** The options a client chose with what was accepted, by their place in the document; and what became of a message. */
export const chosenOptionsAndDelivery: Migration = {
  name: '0016-chosen-options-and-delivery',
  statements: [
    `ALTER TABLE offer ADD COLUMN chosen TEXT NOT NULL DEFAULT ''`,
    `ALTER TABLE message ADD COLUMN state TEXT NOT NULL DEFAULT 'prepared' CHECK (state IN ('prepared', 'sent', 'failed'))`,
    'ALTER TABLE message ADD COLUMN tried_at TEXT',
    `ALTER TABLE message ADD COLUMN failure TEXT NOT NULL DEFAULT ''`,
  ],
};
