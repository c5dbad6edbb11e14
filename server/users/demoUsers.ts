import { ROLES, type Role } from '../../core/rights/rights';
import type { Database } from '../db/database';
import { runCommand } from '../acts/command';
import { UserTable } from './models';

/** One of the sample company's people for each role; managers and site are on teams of its jobs. */
export const DEMO_NAMES: Record<Role, string> = {
  owner: 'Halvard Brack',
  accountant: 'Nora Quill',
  manager: 'Piotr Wakeham',
  estimator: 'Rowan Castell',
  site: 'Jory Sedge',
};

/**
 * Makes the users of the demo, for the roles that none has: they have no password, and sign in only where Ledrin serves the demo. One
 * who was given a password is left as it is.
 */
export async function addDemoUsers(database: Database): Promise<void> {
  const there = await database.read((sql) => sql.find(UserTable, {}));
  const missing = ROLES.filter(
    (role) => !there.some((it) => it.name === DEMO_NAMES[role] || (it.role === role && it.password === '')),
  );
  if (missing.length === 0) return;
  const actor = { name: 'demo', at: new Date().toISOString() };
  await runCommand(database, { name: 'add-demo-users', actor }, async ({ sql }) => {
    for (const role of missing) {
      const name = DEMO_NAMES[role];
      const email = `${name.toLowerCase().replace(' ', '.')}@brackenfell.example`;
      await sql.insert(UserTable, { name, email, role, created_at: actor.at });
    }
  });
}
