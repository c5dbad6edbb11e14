import { auditCalls } from '../../wire/audit';
import { handle } from '../http/handlers';
import { auditCsv, auditPage } from './auditView';

export const auditHandlers = handle(auditCalls, {
  audit: (sql, filter) => auditPage(sql, filter),
  auditCsv: async (database, filter) => ({
    type: 'text/csv',
    name: 'audit-trail.csv',
    content: await database.read((sql) => auditCsv(sql, filter)),
  }),
});
