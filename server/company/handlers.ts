import { companyCalls } from '../../wire/company';
import { todayOf } from '../http/context';
import { handle } from '../http/handlers';
import { readFileSync } from 'node:fs';
import { oneFile } from '../http/upload';
import { companyLogo } from './company';
import { addClient, addCostCodes, saveCompany, saveLogo } from './saveCompany';
import { JOB_COUNT } from './queries';
import { loadLists, loadSession } from './session';

export const companyHandlers = handle(companyCalls, {
  health: async (sql) => {
    await sql.get(JOB_COUNT);
    return { answers: true };
  },
  session: (sql, _args, context) => loadSession(sql, todayOf(context), { ...context, sendsMail: context.mailServer !== null }),
  lists: (sql, { asOf }) => loadLists(sql, asOf),
  saveCompany: (command, { body }) => saveCompany(command, body),
  companyLogo: async (sql) => ({ logo: await companyLogo(sql) }),
  saveLogo: {
    limits: { files: 1, fileSize: 2_000_000, total: 2_010_000 },
    run: (command, _args, received) => saveLogo(command, readFileSync(oneFile(received, 'a PNG or SVG file').path)),
  },
  removeLogo: (command) => saveLogo(command, null),
  addClient: (command, { body }) => addClient(command, body),
  addCostCodes: (command, { body }) => addCostCodes(command, body),
});
