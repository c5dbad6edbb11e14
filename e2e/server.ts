import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A running Ledrin on a database of its own. */
export interface Running {
  url: string;
  database: string;
  stop: () => Promise<void>;
}

/** Starts the built server on a free port; `book` is imported first where one is named. */
export async function startLedrin(book?: string): Promise<Running> {
  const folder = mkdtempSync(join(tmpdir(), 'ledrin-e2e-'));
  const database = join(folder, 'e2e.sqlite');
  if (book)
    await finished(spawn(process.execPath, ['dist/server/cli.mjs', 'import', book, '--db', database], { stdio: 'inherit' }));
  const server = spawn(process.execPath, ['dist/server/main.mjs'], {
    env: { ...process.env, PORT: '0', LEDRIN_DB: database },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const url = await new Promise<string>((found, fail) => {
    server.stdout!.on('data', (text: Buffer) => {
      const match = /http:\/\/localhost:(\d+)/.exec(String(text));
      if (match) found(`http://127.0.0.1:${match[1]}`);
    });
    server.once('exit', () => fail(new Error('the server stopped')));
  });
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
