import type { Migration } from './migration';

/** From whom the report was taken that a new one is like, the new one is taken too. */
export const newReportsAsTheirLike: Migration = {
  name: '0031-new-reports-as-their-like',
  statements: [
    `INSERT INTO narrowing (part, role) SELECT 'report:contract-status', role FROM narrowing WHERE part = 'report:wip'`,
    `INSERT INTO narrowing (part, role) SELECT 'report:quantities', role FROM narrowing WHERE part = 'report:estimate-vs-actual'`,
  ],
};
