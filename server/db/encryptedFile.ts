import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from 'node:crypto';
import { closeSync, createReadStream, createWriteStream, openSync, readSync, statSync } from 'node:fs';
import { appendFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { LedrinError } from '../../core/errors/ledrinError';

/** How an encrypted file begins: this, the salt of its key, and the nonce. It ends with the tag that shows it is whole. */
const MARK = Buffer.from('LEDRIN-SEALED-1\n', 'latin1');
const [SALT, NONCE, TAG] = [16, 12, 16];
const COST = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 1024 * 1024 };

const keyOf = (passphrase: string, salt: Buffer) => scryptSync(passphrase.normalize('NFKC'), salt, 32, COST);

function headOf(path: string): Buffer {
  const [file, head] = [openSync(path, 'r'), Buffer.alloc(MARK.length + SALT + NONCE)];
  const read = readSync(file, head, 0, head.length, 0);
  closeSync(file);
  return head.subarray(0, read);
}

/** Whether a file was encrypted here. */
export function isEncrypted(path: string): boolean {
  return headOf(path).subarray(0, MARK.length).equals(MARK);
}

/** Encrypts a file under a passphrase (AES-256-GCM, the key by scrypt). */
export async function encryptFile(from: string, to: string, passphrase: string): Promise<void> {
  const [salt, nonce] = [randomBytes(SALT), randomBytes(NONCE)];
  const cipher = createCipheriv('aes-256-gcm', keyOf(passphrase, salt), nonce);
  const out = createWriteStream(to, { mode: 0o600 });
  out.write(Buffer.concat([MARK, salt, nonce]));
  await pipeline(createReadStream(from), cipher, out);
  await appendFile(to, cipher.getAuthTag());
}

/** Opens what was encrypted. Throws bad-input where the passphrase is missing or another, or the file is not whole. */
export async function decryptFile(from: string, to: string, passphrase: string | null): Promise<void> {
  if (passphrase === null)
    throw new LedrinError('bad-input', `${from} is encrypted; set LEDRIN_BACKUP_PASSPHRASE to its passphrase, and try again`);
  const head = headOf(from);
  const [salt, nonce] = [head.subarray(MARK.length, MARK.length + SALT), head.subarray(MARK.length + SALT)];
  const size = statSync(from).size;
  const tag = Buffer.alloc(TAG);
  const file = openSync(from, 'r');
  readSync(file, tag, 0, TAG, size - TAG);
  closeSync(file);
  const decipher = createDecipheriv('aes-256-gcm', keyOf(passphrase, salt), nonce).setAuthTag(tag);
  try {
    await pipeline(
      createReadStream(from, { start: head.length, end: size - TAG - 1 }),
      decipher,
      createWriteStream(to, { mode: 0o600 }),
    );
  } catch (error) {
    if ((error as NodeJS.ErrnoException).syscall !== undefined) throw error;
    throw new LedrinError('bad-input', `${from} does not open: the passphrase is another, or the file is not whole`);
  }
}
