import { randomBytes, scryptSync, timingSafeEqual } from 'node:crypto';

/** What a hash costs: half a second and 128 MB (OWASP Password Storage, scrypt). */
const COST = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 1024 * 1024 };
const BYTES = 32;

/** Hashes a password with a salt of its own. Takes half a second: for a thread of the workers only. */
export function hashPassword(password: string): string {
  const salt = randomBytes(16);
  return `scrypt$${COST.N}$${salt.toString('base64')}$${hashed(password, salt, COST.N).toString('base64')}`;
}

/** Whether a password has a hash. It takes as long where there is none: time does not tell who is known here. */
export function matchesPassword(password: string, saved: string): boolean {
  const [, cost = '', salt = '', hash = ''] = saved === '' ? NOBODY.split('$') : saved.split('$');
  const [made, kept] = [hashed(password, Buffer.from(salt, 'base64'), Number(cost)), Buffer.from(hash, 'base64')];
  return made.length === kept.length && timingSafeEqual(made, kept) && saved !== '';
}

const NOBODY = `scrypt$${COST.N}$${Buffer.alloc(16).toString('base64')}$${Buffer.alloc(BYTES).toString('base64')}`;

function hashed(password: string, salt: Buffer, N: number): Buffer {
  return scryptSync(password.normalize('NFKC'), salt, BYTES, { ...COST, N });
}
