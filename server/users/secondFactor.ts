import { randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import QRCode from 'qrcode';
import { LedrinError } from '../../core/errors/ledrinError';
import { present } from '../../core/errors/known';
import { fieldError } from '../acts/refused';
import type { RowOf } from '../db/fields';
import type { Sql } from '../db/sql';
import type { Context } from '../http/context';
import type { Command } from '../acts/command';
import { UserTable } from './models';
import { savedToken } from './sessions';

/** Seconds a code is of, and how many steps before and after it is taken, for clocks that differ (RFC 6238, 5.2). */
const PERIOD = 30;
const WINDOW = 1;
const RECOVERY_CODES = 10;

const totpOf = (key: string, label: string) =>
  new TOTP({ issuer: 'Ledrin', label, algorithm: 'SHA1', digits: 6, period: PERIOD, secret: Secret.fromBase32(key) });

/** The step of time that a code is of; null where it is of none about now. */
function stepOf(key: string, code: string, at: string): number | null {
  const token = code.replace(/\s/g, '');
  const timestamp = Date.parse(at);
  const delta = /^\d{6}$/.test(token) ? totpOf(key, '').validate({ token, timestamp, window: WINDOW }) : null;
  return delta === null ? null : Math.floor(timestamp / 1000 / PERIOD) + delta;
}

/** Makes a key for the app of whoever is signed in; what was on before stays until a code of the new one was typed. */
export async function beginSecondFactor(command: Command, { person }: Context): Promise<{ key: string; image: string }> {
  const { id, name, email } = present(person ?? undefined);
  const key = new Secret({ size: 20 }).base32;
  await command.sql.update(UserTable, { id }, { factor_begun: key });
  command.note(`user ${name}`);
  return { key, image: await QRCode.toDataURL(totpOf(key, email).toString(), { margin: 1, width: 220 }) };
}

/** Turns it on, with a code of the app. Gives back recovery codes: each opens once, in place of a code. */
export async function confirmSecondFactor(command: Command, code: string, { person }: Context): Promise<{ recovery: string[] }> {
  const { sql, actor } = command;
  const { id, name } = present(person ?? undefined);
  const user = await sql.findOne(UserTable, { id });
  if (!user?.factor_begun) throw new LedrinError('conflict', 'Begin it again: there is no key yet that a code could be of');
  const step = stepOf(user.factor_begun, code, actor.at);
  if (step === null) throw fieldError('code', 'is not a code of this key now; type the six digits that the app shows');
  const recovery = Array.from({ length: RECOVERY_CODES }, newRecoveryCode);
  await sql.update(
    UserTable,
    { id },
    { second_factor: user.factor_begun, factor_begun: '', factor_step: step, recovery: JSON.stringify(recovery.map(savedCode)) },
  );
  command.note(`user ${name}`);
  return { recovery };
}

export async function endSecondFactor(command: Command, { person }: Context): Promise<void> {
  const { id, name } = present(person ?? undefined);
  await command.sql.update(UserTable, { id }, NO_FACTOR);
  command.note(`user ${name}`);
}

/** What a user without a second factor has. */
export const NO_FACTOR = { second_factor: '', factor_begun: '', factor_step: 0, recovery: '[]' };

/** Takes a code at sign-in: one of the app, not used before, or one of the recovery codes, which is then gone. Throws where it is neither. */
export async function takeCode(sql: Sql, user: RowOf<typeof UserTable>, code: string, at: string): Promise<void> {
  const { id } = user;
  const step = stepOf(user.second_factor, code, at);
  if (step !== null && step > user.factor_step) return sql.update(UserTable, { id }, { factor_step: step });
  const left = JSON.parse(user.recovery) as string[];
  const used = savedCode(code);
  if (!left.includes(used))
    throw new LedrinError(
      'not-allowed',
      'This code does not open, or was used already. Wait for the next one in the app, or type a recovery code',
      [{ field: 'code', message: 'does not open, or was used already' }],
    );
  await sql.update(UserTable, { id }, { recovery: JSON.stringify(left.filter((it) => it !== used)) });
}

/** Fifty bits, in two groups that are read and typed easily. */
function newRecoveryCode(): string {
  const text = new Secret({ buffer: Uint8Array.from(randomBytes(7)).buffer }).base32.slice(0, 10);
  return `${text.slice(0, 5)}-${text.slice(5)}`;
}

const savedCode = (code: string) => savedToken(code.replace(/[\s-]/g, '').toUpperCase());
