import { companyCalls } from '../../wire/company';
import { todayOf } from '../http/context';
import { handle } from '../http/handlers';
import { addClient, addCostCodes, saveCompany } from './saveCompany';
import { loadLists, loadSession } from './session';

export const companyHandlers = handle(companyCalls, {
  session: (sql, _args, context) => loadSession(sql, todayOf(context)),
  lists: (sql, { asOf }) => loadLists(sql, asOf),
  saveCompany: (command, { body }) => saveCompany(command, body),
  addClient: (command, { body }) => addClient(command, body),
  addCostCodes: (command, { body }) => addCostCodes(command, body),
});
