import { ledgerCalls } from '../../wire/ledger';
import { handle } from '../http/handlers';
import { postingList, postingView } from './postingViews';
import { reversePosting } from './reverse';

export const ledgerHandlers = handle(ledgerCalls, {
  postings: (sql, filter) => postingList(sql, filter),
  posting: (sql, { posting }) => postingView(sql, posting),
  reversePosting: (command, { posting, body }) => reversePosting(command, posting, body),
});
