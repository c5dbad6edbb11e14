import { changeCalls } from '../../wire/changes';
import { transferBudget } from '../budget/transfers';
import { todayOf } from '../http/context';
import { handle, prepared } from '../http/handlers';
import { changeDocument } from '../offers/clientDocuments';
import { documentDownload } from '../offers/documentDownload';
import { sendChange } from '../offers/offers';
import { offersOf } from '../offers/offerViews';
import { prepareSending } from '../offers/sending';
import { viewChange } from './changeEffect';
import { deleteChange, saveChange } from './changes';
import { changeRegister, jobChanges, jobTransfers } from './changeViews';
import { agreeChange, decideChange, issueChange } from './decideChange';

export const changeHandlers = handle(changeCalls, {
  changeRegister: (sql, { asOf }) => changeRegister(sql, asOf),
  jobChanges: (sql, { job, asOf }) => jobChanges(sql, job, asOf),
  change: { trying: (database, { job, change, asOf }) => viewChange(database, job, change, asOf) },
  addChange: async (command, { job, body }) => ({ version: await saveChange(command, job, body, null) }),
  saveChange: async (command, { job, change, body }) => ({ version: await saveChange(command, job, body, change) }),
  deleteChange: (command, { job, change }) => deleteChange(command, job, change),
  agreeChange: async (command, { job, body }) => ({ version: await agreeChange(command, job, body) }),
  issueChange: (command, { job, change, body }) => issueChange(command, job, change, body.on),
  decideChange: (command, { job, change, body }) => decideChange(command, job, change, body),
  changeOffers: (sql, { job, change }, context) => offersOf(sql, job, 'change', change, todayOf(context)),
  sendChange: prepared({
    prepare: async (database, { job, change }, context) =>
      prepareSending(await database.read((sql) => changeDocument(sql, job, change)), context),
    run: (command, { job, change, body }, sending) => sendChange(command, sending, job, change, body),
  }),
  changeDocument: async (database, { job, change, format }, context) =>
    documentDownload(await database.read((sql) => changeDocument(sql, job, change)), format, context),
  transfers: (sql, { job, asOf }) => jobTransfers(sql, job, asOf),
  transferBudget: async (command, { job, body }) => ({ number: await transferBudget(command, job, body) }),
});
