import type { Migration } from './migration';

/**
 * A tender may be lost or withdrawn, an awarded job cancelled: the values the status may have are widened where the schema says them,
 * which touches no row. Clients, vendors and cost codes may be closed to new use.
 */
export const endsOfJobsAndClosedMasters: Migration = {
  name: '0014-ends-of-jobs-and-closed-masters',
  statements: [
    'PRAGMA writable_schema = ON',
    `UPDATE sqlite_master SET sql = replace(replace(sql,
        '''closing-out'', ''closed'')', '''closing-out'', ''closed'', ''lost'', ''withdrawn'', ''cancelled'')'),
        'status = ''tender'' OR', 'status IN (''tender'', ''lost'', ''withdrawn'') OR')
      WHERE type = 'table' AND name = 'job'`,
    'PRAGMA writable_schema = RESET',
    ...['client', 'vendor', 'cost_code'].map((table) => `ALTER TABLE ${table} ADD COLUMN closed INTEGER NOT NULL DEFAULT 0`),
  ],
};
