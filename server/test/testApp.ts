import { createApp } from '../app';
import type { Database } from '../db/database';
import { Outbox } from '../stand-ins/outbox';
import { Workers } from '../workers/workers';
import { temporaryFolder } from './books';

/** One pool for all apps of a test file; its threads end by themselves. */
const WORKERS = new Workers();

/** The server over a database, without pages; what it logs, as it must not, goes into `logged`. */
export function testApp(database: Database, logged: unknown[] = []): ReturnType<typeof createApp> {
  return createApp({
    database,
    now: () => new Date('2031-05-02T09:00:00Z'),
    sampleBook: 'demo/book',
    outbox: new Outbox(temporaryFolder()),
    mailServer: null,
    files: temporaryFolder(),
    workers: WORKERS,
    address: 'http://localhost:4310',
    pages: null,
    log: (error) => logged.push(error),
  });
}
