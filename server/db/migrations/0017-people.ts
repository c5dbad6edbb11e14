import type { Migration } from './migration';

/** Each of them holds a name of one of our people, in a job's own row or in one that is of our team. */
const NAMED = [
  { table: 'job', column: 'manager', when: '' },
  { table: 'job', column: 'estimator', when: '' },
  { table: 'job_person', column: 'name', when: ` AND NEW.side = 'team'` },
];

const addNamed = ({ column, when }: (typeof NAMED)[number]) =>
  `INSERT INTO person (name) SELECT NEW.${column} WHERE NEW.${column} <> ''${when}
     AND NOT EXISTS (SELECT 1 FROM person WHERE name = NEW.${column});`;

/**
 * Our own people. Jobs name them by their names, as the book does; whoever is named on a job for the first time is a person from
 * then on, however the name came there.
 */
export const people: Migration = {
  name: '0017-people',
  statements: [
    `CREATE TABLE person (
      id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, role TEXT NOT NULL DEFAULT '', email TEXT NOT NULL DEFAULT '',
      phone TEXT NOT NULL DEFAULT '', closed INTEGER NOT NULL DEFAULT 0
    )`,
    `INSERT INTO person (name) SELECT name FROM (
      SELECT manager AS name FROM job UNION SELECT estimator FROM job UNION SELECT name FROM job_person WHERE side = 'team'
    ) WHERE name <> '' ORDER BY name`,
    ...NAMED.flatMap((it) =>
      ['INSERT', `UPDATE OF ${it.column}`].map(
        (act) =>
          `CREATE TRIGGER person_of_${it.table}_${it.column}_${act.slice(0, 6).toLowerCase()} AFTER ${act} ON ${it.table} BEGIN ${addNamed(it)} END`,
      ),
    ),
  ],
};
