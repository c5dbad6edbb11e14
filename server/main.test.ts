import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { connect } from 'node:net';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import sqlite3 from 'sqlite3';
import { readConfig } from './config';
import { openDatabase } from './db/database';
import { cleanUp, temporaryFolder } from './test/books';

afterAll(cleanUp);

describe('the settings', () => {
  test('have their defaults, and follow the environment', () => {
    expect(readConfig({}, '/ledrin')).toEqual({
      port: 4310,
      host: '127.0.0.1',
      address: 'http://localhost:4310',
      database: '/ledrin/data/ledrin.sqlite',
      pages: '/ledrin/dist/web',
      sampleBook: '/ledrin/demo/book',
      mailServer: null,
      demo: false,
      trustProxy: false,
      outbox: '/ledrin/data/outbox',
      files: '/ledrin/data/files',
    });
    expect(readConfig({ TRUST_PROXY: '1', LEDRIN_DEMO: '1' }, '/ledrin')).toMatchObject({ trustProxy: 1, demo: true });
    expect(readConfig({ TRUST_PROXY: '10.0.0.1' }, '/ledrin').trustProxy).toBe('10.0.0.1');
    expect(readConfig({ PORT: '80', HOST: '::', LEDRIN_DB: 'mine.sqlite' }, '/ledrin')).toMatchObject({
      port: 80,
      host: '::',
      database: 'mine.sqlite',
    });
  });

  test.each(['x', '-1', '70000', '1.5'])('a PORT of %s is told', (PORT) => {
    expect(() => readConfig({ PORT }, '/')).toThrow(`PORT is "${PORT}"; expected a number from 0 to 65535`);
  });
});

function start(env: Record<string, string>): ChildProcess {
  return spawn(process.execPath, ['dist/server/main.mjs'], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
}

/** What a process says until it says what is looked for, or ends. */
async function said(child: ChildProcess, wanted: RegExp): Promise<string> {
  let text = '';
  const ended = once(child, 'exit');
  const found = new Promise<void>((done) => {
    for (const stream of [child.stdout!, child.stderr!])
      stream.on('data', (part: Buffer) => {
        text += part;
        if (wanted.test(text)) done();
      });
  });
  await Promise.race([found, ended]);
  return text;
}

describe('the server', () => {
  test('says where it is, answers there, and stops when asked', async () => {
    const child = start({ PORT: '0', LEDRIN_DB: join(temporaryFolder(), 'served.sqlite') });
    const [, port] = /http:\/\/localhost:(\d+)/.exec(await said(child, /http:\/\/localhost:\d+/))!;
    const session = await (await fetch(`http://127.0.0.1:${port}/api/session`)).json();
    expect(session).toMatchObject({ company: null, newestMonth: null, jobCount: 0 });
    // A client that is half-way through sending does not hold it up.
    const client = connect(Number(port), '127.0.0.1').on('error', () => undefined);
    client.write(
      `POST /api/costs HTTP/1.1\r\nhost: localhost:${port}\r\ncontent-type: application/json\r\ncontent-length: 99\r\n\r\n{`,
    );
    await once(client, 'connect');
    child.kill('SIGTERM');
    const [code] = await once(child, 'exit');
    expect(code).toBe(0);
  });

  test('does not start on a database of a newer version, and says what to do', async () => {
    const file = join(temporaryFolder(), 'newer.sqlite');
    await (await openDatabase(file)).close();
    await new Promise<void>((done) => {
      const raw = new sqlite3.Database(file);
      raw.exec(`INSERT INTO schema_migration VALUES ('0042-later', '')`, () => raw.close(() => done()));
    });
    const child = start({ PORT: '0', LEDRIN_DB: file });
    const [text, [code]] = await Promise.all([said(child, /LEDRIN_DB/), once(child, 'exit')]);
    expect([code, text]).toEqual([
      1,
      expect.stringMatching(/newer Ledrin \(it has 0042-later\).*Update Ledrin, or open another database with LEDRIN_DB/),
    ]);
  });

  test('on a port that is taken says so', async () => {
    const first = start({ PORT: '0', LEDRIN_DB: join(temporaryFolder(), 'a.sqlite') });
    const [, port] = /http:\/\/localhost:(\d+)/.exec(await said(first, /http:\/\/localhost:\d+/))!;
    const second = start({ PORT: port!, LEDRIN_DB: join(temporaryFolder(), 'b.sqlite') });
    const [text, [code]] = await Promise.all([said(second, /Set PORT/), once(second, 'exit')]);
    expect([code, text]).toEqual([1, expect.stringMatching(/Cannot serve on port \d+.*Set PORT to another one/)]);
    first.kill('SIGKILL');
    await once(first, 'exit');
  });
});
