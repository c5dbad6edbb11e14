import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import pino from 'pino';
import { addDemoApprovals } from './approvals/demoApprovals';
import { createApp } from './app';
import { readConfig } from './config';
import { Watch } from './db/watch';
import { Outbox } from './stand-ins/outbox';
import { openDatabase } from './db/database';
import { addDemoUsers } from './users/demoUsers';
import { whoIs } from './users/sessions';
import { Workers } from './workers/workers';

/** What waits to be logged while it cannot be written, as on a full disk; the rest is dropped, and the server goes on. */
const LOG_WAITS = 1_000_000;
const lines = pino.destination({ dest: 1, sync: false, maxLength: LOG_WAITS });
lines.on('error', () => undefined);
const log = pino({ level: process.env.LOG_LEVEL ?? 'warn' }, lines);
/** How long requests under way may take once Ledrin is asked to stop, in milliseconds. */
const PATIENCE = 7000;
const HOUR = 3_600_000;
const here = dirname(fileURLToPath(import.meta.url));
// From sources this file lies in server/, bundled in dist/server/.
const root = here.endsWith(join('dist', 'server')) ? join(here, '../..') : join(here, '..');

// What is written is of whoever runs Ledrin alone.
process.umask(0o077);

try {
  const config = readConfig(process.env, root);
  const database = await openDatabase(config.database, { checked: true });
  const workers = new Workers();
  const watch = new Watch(config.database, process.env.LEDRIN_BACKUP_PASSPHRASE || null);
  if (config.demo) {
    await addDemoUsers(database);
    await addDemoApprovals(database);
  }
  const app = createApp({
    database,
    now: () => new Date(),
    sampleBook: config.sampleBook,
    outbox: new Outbox(config.outbox),
    mailServer: config.mailServer,
    files: config.files,
    workers,
    watch,
    address: config.address,
    demo: config.demo,
    trustProxy: config.trustProxy,
    whoIs,
    pages: config.pages,
    log: (error) => log.error(error),
    requests: log,
  });
  const server = app.listen(config.port, config.host, (error) => {
    if (error) return stop(`Cannot serve on port ${config.port}: ${error.message}. Set PORT to another one.`);
    const address = server.address();
    console.log(
      `Ledrin is at http://localhost:${typeof address === 'object' && address ? address.port : config.port}  (database ${config.database})`,
    );
  });
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => {
      // In order: what is under way is finished, then the database is closed. A client that is half-way through does not hold it up.
      server.close(() => void database.close().then(() => process.exit(0)));
      setTimeout(() => server.closeAllConnections(), PATIENCE).unref();
    });
  }
  const copy = () => void watch.copy(new Date()).catch((error: unknown) => log.error(error));
  setInterval(copy, HOUR).unref();
  copy();
} catch (error) {
  stop(error instanceof Error ? error.message : String(error));
}

function stop(message: string): void {
  console.error(message);
  process.exit(1);
}
