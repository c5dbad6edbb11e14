import { costCalls } from '../../wire/costs';
import { actorOf } from '../http/context';
import { handle } from '../http/handlers';
import { costLedgerPage, costTotals } from './costLedger';
import { costLedgerCsv } from './costLedgerCsv';
import { costSubtotals } from './costSubtotals';
import { postCosts } from './postCosts';
import { previewCosts } from './previewCosts';
import { RECENT_CODINGS } from './queries';

export const costHandlers = handle(costCalls, {
  costPage: (sql, filter) => costLedgerPage(sql, filter),
  costTotals: (sql, filter) => costTotals(sql, filter),
  costSubtotals: (sql, { by, ...filter }) => costSubtotals(sql, filter, by),
  recentCodings: (sql) => sql.all(RECENT_CODINGS),
  costLedgerCsv: async (database, filter) => ({
    type: 'text/csv',
    name: 'cost-ledger.csv',
    content: await database.read((sql) => costLedgerCsv(sql, filter)),
  }),
  previewCosts: (database, { body }, context) => previewCosts(database, actorOf(context), body),
  postCosts: (command, { body }) => postCosts(command, body),
});
