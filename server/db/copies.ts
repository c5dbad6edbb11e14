import { existsSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { basename, join } from 'node:path';
import { copiesFolder, copyDatabase } from './backup';
import { encryptFile } from './encryptedFile';

const HOUR = 3_600_000;
/** Copies are kept by the hour for so many hours, then one a day, then one a month; what is older goes. */
const [BY_HOUR, BY_DAY, BY_MONTH] = [48 * HOUR, 31 * 24 * HOUR, 366 * 24 * HOUR];
/** What an interrupted copy left is removed once it is so old. */
const LEFT_OVER = 24 * HOUR;

/** The moment a copy is of: `2031-05-02T13` by the hour, `2031-05-02` as older versions named it; null for another file. */
function momentOf(name: string): number | null {
  const found = /^(\d{4}-\d{2}-\d{2})(?:T(\d{2}))?$/.exec(name);
  const at = found ? Date.parse(`${found[1]}T${found[2] ?? '00'}:00:00Z`) : NaN;
  return Number.isNaN(at) ? null : at;
}

/**
 * Which copies go, by their names: all but the newest of each hour for two days, of each day for a month, of each month for a year. What is
 * of the future stays, and counts for nothing: the clock was wrong when it was made, or is now.
 */
export function copiesToRemove(names: readonly string[], now: Date): string[] {
  const past = names
    .flatMap((name) => {
      const at = momentOf(name);
      return at === null || at > now.getTime() ? [] : [{ name, at }];
    })
    .sort((a, b) => b.at - a.at);
  const filled = new Set<string>();
  return past
    .filter(({ name, at }) => {
      const age = now.getTime() - at;
      const tier = age <= BY_HOUR ? name : age <= BY_DAY ? name.slice(0, 10) : age <= BY_MONTH ? name.slice(0, 7) : null;
      if (tier === null || filled.has(tier)) return true;
      filled.add(tier);
      return false;
    })
    .map((it) => it.name);
}

/** Makes the copy of an hour beside the database, unless it is there, encrypted where there is a passphrase; then removes what is too much. */
export async function hourlyCopy(database: string, now: Date, passphrase: string | null = null): Promise<boolean> {
  const [folder, start] = [copiesFolder(database), `${basename(database)}.`];
  const copy = join(folder, `${start}${now.toISOString().slice(0, 13)}`);
  if (existsSync(copy)) return false;
  await copyDatabase(database, copy);
  if (passphrase !== null) {
    await encryptFile(copy, `${copy}.part`, passphrase);
    renameSync(`${copy}.part`, copy);
  }
  const names = readdirSync(folder).filter((it) => it.startsWith(start));
  for (const name of copiesToRemove(
    names.map((it) => it.slice(start.length)),
    now,
  ))
    rmSync(join(folder, start + name), { force: true });
  for (const name of names.filter((it) => it.endsWith('.part'))) {
    const path = join(folder, name);
    if (existsSync(path) && Date.now() - statSync(path).mtimeMs > LEFT_OVER) rmSync(path, { force: true });
  }
  return true;
}
