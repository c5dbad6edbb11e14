import { costCalls } from '../../wire/costs';
import { hasRight } from '../../core/rights/rights';
import { actorOf, type Context } from '../http/context';
import { handle } from '../http/handlers';
import { budgetedLines } from './budgetedLines';
import { costLedgerPage, costTotals } from './costLedger';
import { costLedgerCsv } from './costLedgerCsv';
import { costSubtotals } from './costSubtotals';
import type { CostLedgerFilter } from './ledgerQueries';
import { postCosts } from './postCosts';
import { previewCosts } from './previewCosts';
import { RECENT_CODINGS } from './queries';

/** Pay of people is of whoever keeps the books: others are not told whose hours an entry is, nor at which rate. */
const asSeenBy = ({ person }: Context, filter: CostLedgerFilter): CostLedgerFilter =>
  hasRight(person, 'read-books') ? filter : { ...filter, withoutPay: true };

export const costHandlers = handle(costCalls, {
  costPage: (sql, filter, context) => costLedgerPage(sql, asSeenBy(context, filter)),
  costTotals: (sql, filter, context) => costTotals(sql, asSeenBy(context, filter)),
  costSubtotals: (sql, { by, ...filter }, context) => costSubtotals(sql, asSeenBy(context, filter), by),
  recentCodings: (sql) => sql.all(RECENT_CODINGS),
  budgetedLines: (sql, { jobs, asOf }) => budgetedLines(sql, jobs, asOf),
  costLedgerCsv: async (database, filter, context) => ({
    type: 'text/csv',
    name: 'cost-ledger.csv',
    content: await database.read((sql) => costLedgerCsv(sql, asSeenBy(context, filter))),
  }),
  previewCosts: (database, { body }, context) => previewCosts(database, actorOf(context), body),
  postCosts: (command, { body }) => postCosts(command, body),
});
