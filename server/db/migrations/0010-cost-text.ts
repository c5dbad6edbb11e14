import type { Migration } from './migration';

const TEXT = `reference || ' ' || party || ' ' || description`;

/**
 * An index of the words of cost entries by every three letters in a row, so that a part of a word is found among a million entries.
 * It holds no text of its own and no places: what it finds is looked at once more. A trigger adds each entry; none is ever changed
 * in its words or deleted. A large `hashsize` (bytes) makes one import one pass.
 */
export const costText: Migration = {
  name: '0010-cost-text',
  statements: [
    `CREATE VIRTUAL TABLE cost_text USING fts5(text, content='', columnsize=0, detail=none, tokenize='trigram')`,
    `INSERT INTO cost_text (cost_text, rank) VALUES ('hashsize', 33554432)`,
    `INSERT INTO cost_text (rowid, text) SELECT id, ${TEXT} FROM cost_entry`,
    `CREATE TRIGGER cost_entry_text AFTER INSERT ON cost_entry BEGIN
      INSERT INTO cost_text (rowid, text) VALUES (NEW.id, ${TEXT.replace(/\b[a-z]+\b/g, 'NEW.$&')}); END`,
  ],
};
