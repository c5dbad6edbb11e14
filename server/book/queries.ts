import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const ATTACHED_FILES = query(shape({ name: t.text, hash: t.text }), 'SELECT name, hash FROM attachment ORDER BY id');

export const MESSAGE_FILES = query(shape({ file: t.text }), 'SELECT file FROM message ORDER BY id');

/** What a book has no file for. */
export const LEFT_OUT = query(
  shape({
    'job drafts': t.whole,
    'who may sign in': t.whole,
    'which posting reversed which': t.whole,
    'the record of who did what': t.whole,
    'up to which day they are closed': t.whole,
  }),
  `SELECT (SELECT count(*) FROM job_draft) AS "job drafts", (SELECT count(*) FROM user) AS "who may sign in", (SELECT count(*) FROM posting p JOIN posting o ON o.id = p.reverses_id WHERE o.kind <> 'application') AS "which posting reversed which",
      (SELECT count(*) FROM audit) AS "the record of who did what",
      (SELECT count(*) FROM closing) AS "up to which day they are closed"`,
);
