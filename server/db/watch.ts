import { statfs } from 'node:fs/promises';
import { dirname, resolve } from 'node:path';
import { hourlyCopy } from './copies';
import { troubleInWords } from './inWords';

/** Bytes below which a disk counts as full: the next backup, or a day of postings, may not fit. */
const LEAST_FREE = 200 * 1024 * 1024;

/** Looks after the machine that the books are on: copies them by the hour, and says what is wrong. */
export class Watch {
  private copyFailed: string | null = null;

  constructor(
    private readonly database: string,
    private readonly passphrase: string | null,
  ) {}

  /** Makes the copy of the hour. What fails is remembered until one is made again; throws it, to be logged. */
  async copy(now: Date): Promise<void> {
    try {
      await hourlyCopy(this.database, now, this.passphrase);
      this.copyFailed = null;
    } catch (error) {
      const why = troubleInWords(error) ?? 'see the server log';
      this.copyFailed = `The copy of ${now.toISOString().slice(0, 16).replace('T', ' ')} UTC failed: ${why}`;
      throw error;
    }
  }

  /** What is wrong with disk and copies, in words for the owner; empty where all is well. */
  async troubles(): Promise<string[]> {
    const { bavail, bsize } = await statfs(dirname(resolve(this.database)));
    const free = bavail * bsize;
    const full = `The disk of the books is nearly full: ${Math.floor(free / 1024 / 1024)} MB are free. Free some space`;
    return [...(free < LEAST_FREE ? [full] : []), ...(this.copyFailed === null ? [] : [this.copyFailed])];
  }
}
