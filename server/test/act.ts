import type { Database } from '../db/database';
import type { Reader } from '../db/sql';
import type { Actor } from '../acts/audit';
import { auditName, runCommand, type Command } from '../acts/command';

/** Carries out a command as somebody asks for it over HTTP: its own transaction, with its audit record. */
export function act<Args extends unknown[], Reply>(
  database: Database,
  actor: Actor,
  command: (command: Command, ...args: Args) => Promise<Reply>,
  ...args: Args
): Promise<Reply> {
  return runCommand(database, { name: auditName(command.name), actor }, (inside) => command(inside, ...args));
}

/** Reads for tests: each query sees what was saved by then. */
export function reading(database: Database): Reader {
  return {
    all: (...query) => database.read((it) => it.all(...query)),
    get: (...query) => database.read((it) => it.get(...query)),
    anyRows: (...query) => database.read((it) => it.anyRows(...query)),
    find: (...query) => database.read((it) => it.find(...query)),
    findOne: (...query) => database.read((it) => it.findOne(...query)),
  };
}
