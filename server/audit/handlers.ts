import { auditCalls } from '../../wire/audit';
import { handle } from '../http/handlers';
import { auditPage } from './auditView';

export const auditHandlers = handle(auditCalls, { audit: (sql, filter) => auditPage(sql, filter) });
