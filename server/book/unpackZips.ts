import { createWriteStream, readdirSync, rmSync } from 'node:fs';
import { basename, join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { openPromise } from 'yauzl';
import { LedrinError } from '../../core/errors/ledrinError';

/** What a ZIP may hold, unpacked: more is no book. */
const LARGEST = 4 * 2 ** 30;
const MOST_FILES = 20_000;

/** Puts what ZIP files in a folder hold beside them, without folders of their own, and takes the ZIP files away. */
export async function unpackZips(folder: string): Promise<void> {
  for (const name of readdirSync(folder).filter((it) => /\.zip$/i.test(it))) {
    await unpack(folder, join(folder, name));
    rmSync(join(folder, name));
  }
}

async function unpack(folder: string, path: string): Promise<void> {
  const unreadable = (why: string) =>
    new LedrinError('bad-input', `${basename(path)} ${why}`, [{ field: 'files', message: why }]);
  const zip = await openPromise(path).catch(() => {
    throw unreadable('cannot be read as a ZIP; choose the file as it was exported');
  });
  let bytes = 0;
  let files = 0;
  try {
    for await (const entry of zip.eachEntry()) {
      const name = basename(entry.fileName);
      if (entry.fileName.endsWith('/') || name === '' || name.startsWith('.') || /\.zip$/i.test(name)) continue;
      if (++files > MOST_FILES) throw unreadable(`has more than ${MOST_FILES.toLocaleString('en')} files`);
      const counted = new Transform({
        transform(chunk: Buffer, _encoding, done) {
          bytes += chunk.length;
          done(bytes > LARGEST ? unreadable('is too large when unpacked') : null, chunk);
        },
      });
      await pipeline(await zip.openReadStreamPromise(entry), counted, createWriteStream(join(folder, name)));
    }
  } catch (error) {
    // What this machine fails at, such as a full disk, is told as it is; all else is the archive's fault, such as names with "..".
    if (error instanceof LedrinError || (error as NodeJS.ErrnoException).syscall !== undefined) throw error;
    throw unreadable('has entries that cannot be read; choose the file as it was exported');
  } finally {
    zip.close();
  }
}
