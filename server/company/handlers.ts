import { LedrinError } from '../../core/errors/ledrinError';
import { companyCalls } from '../../wire/company';
import { todayOf } from '../http/context';
import { handle } from '../http/handlers';
import { readFileSync } from 'node:fs';
import { oneFile } from '../http/upload';
import { companyLogo } from './company';
import { addClient, addCostCodes, saveCompany, saveLogo } from './saveCompany';
import { JOB_COUNT } from './queries';
import { loadLists } from './lists';
import { loadSession } from '../users/sessionView';

export const companyHandlers = handle(companyCalls, {
  health: async (sql, _args, { watch }) => {
    await sql.get(JOB_COUNT);
    const troubles = await watch.troubles();
    if (troubles.length > 0) throw new LedrinError('unavailable', troubles.join('. '));
    return { answers: true };
  },
  session: async (sql, _args, context) => {
    const { person, demo, mailServer, watch } = context;
    const troubles = person?.role === 'owner' ? await watch.troubles() : [];
    return loadSession(sql, todayOf(context), { person, demo, sendsMail: mailServer !== null, troubles });
  },
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
