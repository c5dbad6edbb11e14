import { spawn, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sqlite3 from 'sqlite3';

/** A running Ledrin on a database of its own. */
export interface Running {
  url: string;
  database: string;
  stop: () => Promise<void>;
}

/** The cookie of the session that is begun for the journeys; `playwright.config.ts` sends it along. */
export const SESSION = 'a-session-of-the-journeys';

interface Start {
  /** False: nobody may sign in yet, as in a new database. */
  owned?: boolean;
  /** Serves the sample company's users. */
  demo?: boolean;
}

/** Starts the built server on a free port; `book` is imported first where one is named. An owner is signed in, where it is not said otherwise. */
export async function startLedrin(book?: string, { owned = true, demo = false }: Start = {}): Promise<Running> {
  const folder = mkdtempSync(join(tmpdir(), 'ledrin-e2e-'));
  const database = join(folder, 'e2e.sqlite');
  if (book)
    await finished(spawn(process.execPath, ['dist/server/cli.mjs', 'import', book, '--db', database], { stdio: 'inherit' }));
  const server = spawn(process.execPath, ['dist/server/main.mjs'], {
    env: { ...process.env, PORT: '0', LEDRIN_DB: database, LEDRIN_DEMO: demo ? '1' : '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const url = await new Promise<string>((found, fail) => {
    server.stdout!.on('data', (text: Buffer) => {
      const match = /http:\/\/localhost:(\d+)/.exec(String(text));
      if (match) found(`http://127.0.0.1:${match[1]}`);
    });
    server.once('exit', () => fail(new Error('the server stopped')));
  });
  if (owned) await signOwnerIn(database);
  return {
    url,
    database,
    stop: async () => {
      server.kill('SIGKILL');
      await new Promise((done) => server.once('exit', done));
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Makes an owner, and begins a session, in the file: how one signs in has a journey of its own. */
async function signOwnerIn(database: string): Promise<void> {
  const file = new sqlite3.Database(database);
  const at = new Date().toISOString();
  const run = (sql: string, ...values: string[]) =>
    new Promise<void>((done, fail) => file.run(sql, values, (error: Error | null) => (error ? fail(error) : done())));
  await run('PRAGMA busy_timeout = 10000');
  await run(
    `INSERT INTO user (name, email, role, created_at) VALUES ('Accounts office', 'office@journeys.example', 'owner', ?)`,
    at,
  );
  await run(
    `INSERT INTO session (token, user_id, began_at, seen_at, from_where) SELECT ?, id, ?, ?, 'the journeys' FROM user WHERE name = 'Accounts office'`,
    ...[createHash('sha256').update(SESSION).digest('hex'), at, at],
  );
  await new Promise((done) => file.close(done));
}

/** Runs the command line, and gives back what it printed. */
export async function ledrin(...args: string[]): Promise<string> {
  const child = spawn(process.execPath, ['dist/server/cli.mjs', ...args], { stdio: ['ignore', 'pipe', 'inherit'] });
  let text = '';
  child.stdout!.on('data', (part: Buffer) => (text += part));
  await finished(child);
  return text;
}

function finished(child: ChildProcess): Promise<void> {
  return new Promise((done, fail) =>
    child.once('exit', (code) => (code === 0 ? done() : fail(new Error(`exit status ${code}`)))),
  );
}
