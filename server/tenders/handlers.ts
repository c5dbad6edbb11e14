import { tenderCalls } from '../../wire/tenders';
import { handle } from '../http/handlers';
import { quotationRegister, tenderList } from './tenderViews';

export const tenderHandlers = handle(tenderCalls, {
  tenders: (sql) => tenderList(sql),
  quotations: (sql) => quotationRegister(sql),
});
