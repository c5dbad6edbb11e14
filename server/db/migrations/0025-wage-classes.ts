import type { Migration } from './migration';

/** Wage classes as a list of their own. */
export const wageClasses: Migration = {
  name: '0025-wage-classes',
  statements: [
    `CREATE TABLE wage_class (id INTEGER PRIMARY KEY, code TEXT NOT NULL UNIQUE, description TEXT NOT NULL DEFAULT '')`,
  ],
};
