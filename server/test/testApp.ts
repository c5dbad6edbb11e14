import { createApp } from '../app';
import type { Database } from '../db/database';
import { Outbox } from '../stand-ins/outbox';
import { temporaryFolder } from './books';

/** The server over a database, without pages; what it logs, as it must not, goes into `logged`. */
export function testApp(database: Database, logged: unknown[] = []): ReturnType<typeof createApp> {
  return createApp({
    database,
    now: () => new Date('2031-05-02T09:00:00Z'),
    sampleBook: 'demo/book',
    outbox: new Outbox(temporaryFolder()),
    files: temporaryFolder(),
    pages: null,
    log: (error) => logged.push(error),
  });
}
