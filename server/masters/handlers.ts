import { masterCalls } from '../../wire/masters';
import { handle } from '../http/handlers';
import { addMaster, deleteMaster, masterList, saveMaster } from './masters';
import { mergeMaster, mergePreview } from './mergeMasters';

export const masterHandlers = handle(masterCalls, {
  masters: (sql, { kind }) => masterList(sql, kind),
  addMaster: (command, { kind, body }) => addMaster(command, kind, body),
  saveMaster: (command, { kind, code, body }) => saveMaster(command, kind, code, body),
  deleteMaster: (command, { kind, code }) => deleteMaster(command, kind, code),
  mergePreview: (sql, { kind, code, into }) => mergePreview(sql, kind, code, into),
  mergeMaster: (command, { kind, code, into, body }) => mergeMaster(command, kind, code, into, body.seen),
});
