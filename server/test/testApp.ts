import type { Server } from 'node:http';
import { createApp, type AppSetting } from '../app';
import type { Database } from '../db/database';
import { Outbox } from '../stand-ins/outbox';
import { Workers } from '../workers/workers';
import { temporaryFolder } from './books';

/** One pool for all apps of a test file; its threads end by themselves. */
const WORKERS = new Workers();

/** Somebody who is signed in, for tests that are about something else: the owner, who may do everything. */
export const OWNER = {
  id: 0,
  name: 'Accounts office',
  email: 'o@x.example',
  role: 'owner' as const,
  allJobs: false,
  session: 0,
  secondFactor: false,
};

/** The server over a database, without pages; what it logs, as it must not, goes into `logged`. `more`: with who is really signed in, say. */
export function testApp(database: Database, logged: unknown[] = [], more: Partial<AppSetting> = {}): Server {
  const app = createApp({
    database,
    now: () => new Date('2031-05-02T09:00:00Z'),
    sampleBook: 'demo/book',
    outbox: new Outbox(temporaryFolder()),
    mailServer: null,
    files: temporaryFolder(),
    workers: WORKERS,
    watch: { troubles: () => Promise.resolve([]) },
    address: 'http://localhost:4310',
    pages: null,
    demo: false,
    trustProxy: false,
    whoIs: () => Promise.resolve(OWNER),
    log: (error) => logged.push(error),
    requests: null,
    ...more,
  });
  // It listens for all requests of a test, rather than for each anew, and holds nobody up at the end.
  return app.listen(0, '127.0.0.1').unref();
}
