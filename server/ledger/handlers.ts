import { ledgerCalls } from '../../wire/ledger';
import { handle } from '../http/handlers';
import { closeBooks, closing } from './closing';
import { postingList, postingView } from './postingViews';

export const ledgerHandlers = handle(ledgerCalls, {
  postings: (sql, filter) => postingList(sql, filter),
  posting: (sql, { posting }) => postingView(sql, posting),
  closing: async (sql) => ({ last: await closing(sql) }),
  closeBooks: (command, { body }) => closeBooks(command, body),
});
