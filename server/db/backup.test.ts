import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import { hashOf, isSound, keepContent } from '../attachments/contents';
import { cleanUp, faultsOf, reportLines, SMALL_BOOK, temporaryFolder } from '../test/books';
import { SessionTable, UserTable } from '../users/models';
import { backUp, copiesFolder, restore } from './backup';
import { copiesToRemove, hourlyCopy } from './copies';
import { Watch } from './watch';
import { openDatabase } from './database';
import { troubleInWords } from './inWords';
import { MIGRATIONS } from './migrations/index';

afterAll(cleanUp);

const storesIn = (folder: string) => ({ files: join(folder, 'files'), outbox: join(folder, 'outbox') });

test('a backup made while the books are open comes back whole, attachments and messages with it', async () => {
  const folder = temporaryFolder();
  const stores = storesIn(folder);
  const file = join(folder, 'a.sqlite');
  const database = await openDatabase(file);
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  const content = Buffer.from('a drawing');
  keepContent(stores.files, hashOf(content), content);
  mkdirSync(stores.outbox, { recursive: true });
  writeFileSync(join(stores.outbox, 'm.eml'), 'mail');
  const backup = join(folder, 'backup.zip');
  await backUp(file, stores, backup);
  await expect(backUp(file, stores, backup)).rejects.toThrow(/already; choose another name/);
  const before = await reportLines(database, 'trial-balance', '2031-04-30');
  // What is posted after it is not in it.
  await database.write((sql) => sql.run(`INSERT INTO cost_code (code, description, unit) VALUES ('LATE', 'x', '')`));
  await database.close();
  const other = temporaryFolder();
  await restore(backup, join(other, 'b.sqlite'), storesIn(other));
  const restored = await openDatabase(join(other, 'b.sqlite'), { checked: true });
  expect(await reportLines(restored, 'trial-balance', '2031-04-30')).toEqual(before);
  expect(await restored.read((sql) => sql.anyRows(`SELECT 1 FROM cost_code WHERE code = 'LATE'`))).toEqual([]);
  await restored.close();
  expect(isSound(join(other, 'files', hashOf(content)), hashOf(content))).toBe(true);
  expect(readFileSync(join(other, 'outbox', 'm.eml'), 'utf8')).toBe('mail');
  await expect(restore(backup, join(other, 'b.sqlite'), storesIn(other))).rejects.toThrow(/already; move it away/);
  writeFileSync(join(other, 'no.zip'), 'no');
  await expect(restore(join(other, 'no.zip'), join(other, 'c.sqlite'), storesIn(other))).rejects.toThrow(/is not a backup/);
});

test('copies are kept by the hour for two days, by the day for a month, by the month for a year; those of the future stay', () => {
  const now = new Date('2031-05-20T10:30:00Z');
  const names: string[] = [];
  for (let hours = 0; hours < 500 * 24; hours++)
    names.push(new Date(now.getTime() - hours * 3_600_000).toISOString().slice(0, 13));
  const removed = new Set(copiesToRemove([...names, '2099-01-01T00', '2031-05-01', 'before-0026'], now));
  const kept = names.filter((it) => !removed.has(it));
  // 48 of the last two days, one of each day of the 29 before, the newest; then one of each month, the newest in it.
  expect(kept.slice(0, 48)).toEqual(names.slice(0, 48));
  expect(kept.slice(48, 51)).toEqual(['2031-05-18T10', '2031-05-17T23', '2031-05-16T23']);
  expect(kept.filter((it) => it < '2031-04-19')).toEqual([
    ...['2031-03-31T23', '2031-02-28T23', '2031-01-31T23', '2030-12-31T23', '2030-11-30T23', '2030-10-31T23'],
    ...['2030-09-30T23', '2030-08-31T23', '2030-07-31T23', '2030-06-30T23', '2030-05-31T23'],
  ]);
  expect([removed.has('2099-01-01T00'), removed.has('2031-05-01'), removed.has('before-0026')]).toEqual([false, true, false]);
});

test('a copy is read by its owner alone, has no session in it, is encrypted where there is a passphrase, and comes back', async () => {
  const folder = temporaryFolder();
  const file = join(folder, 'a.sqlite');
  const database = await openDatabase(file);
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  const at = '2031-05-01T08:00:00Z';
  await database.write(async (sql) => {
    const id = await sql.insert(UserTable, { name: 'Ann', role: 'owner', email: 'a@x.example', created_at: at });
    await sql.insert(SessionTable, { token: 'token-of-ann', user_id: id, began_at: at, seen_at: at, from_where: 'x' });
  });
  const now = new Date('2031-05-02T13:10:00Z');
  expect([await hourlyCopy(file, now, 'a long passphrase'), await hourlyCopy(file, now, 'a long passphrase')]).toEqual([
    true,
    false,
  ]);
  await database.close();
  const copy = join(copiesFolder(file), 'a.sqlite.2031-05-02T13');
  expect([statSync(copy).mode & 0o777, statSync(file).mode & 0o777]).toEqual([0o600, 0o600]);
  expect(readFileSync(copy).includes('token-of-ann') || readFileSync(copy).includes('SQLite format')).toBe(false);
  const other = temporaryFolder();
  const to = (passphrase: string | null) => restore(copy, join(other, 'b.sqlite'), storesIn(other), passphrase);
  await expect(to(null)).rejects.toThrow(/is encrypted; set LEDRIN_BACKUP_PASSPHRASE/);
  await expect(to('another one')).rejects.toThrow(/the passphrase is another, or the file is not whole/);
  await to('a long passphrase');
  const restored = await openDatabase(join(other, 'b.sqlite'), { checked: true });
  expect(await restored.read((sql) => sql.find(SessionTable, {}))).toEqual([]);
  expect((await restored.read((sql) => sql.find(UserTable, {}))).map((it) => it.name)).toEqual(['Ann']);
  await restored.close();
});

test('a copy that fails is told until one is made again', async () => {
  const file = join(temporaryFolder(), 'a.sqlite');
  await (await openDatabase(file)).close();
  writeFileSync(copiesFolder(file), 'a file where the folder should be');
  const watch = new Watch(file, null);
  await expect(watch.copy(new Date('2031-05-02T13:10:00Z'))).rejects.toThrow();
  expect(await watch.troubles()).toEqual([expect.stringMatching(/^The copy of 2031-05-02 13:10 UTC failed/)]);
  rmSync(copiesFolder(file));
  await watch.copy(new Date('2031-05-02T14:10:00Z'));
  expect(await watch.troubles()).toEqual([]);
});

test('a database in use is copied before it is migrated, a new one is not', async () => {
  const file = join(temporaryFolder(), 'a.sqlite');
  const database = await openDatabase(file);
  expect(existsSync(copiesFolder(file))).toBe(false);
  const last = MIGRATIONS.at(-1)!.name;
  // As if the last migration were new: it adds columns that are there, and so fails. The copy is made before.
  await database.write((sql) => sql.run('DELETE FROM schema_migration WHERE name = $1', [last]));
  await database.close();
  await openDatabase(file).then(
    (it) => it.close(),
    () => undefined,
  );
  expect(readdirSync(copiesFolder(file))).toEqual([`a.sqlite.before-${last}`]);
});

test('a damaged database does not start, and says what to do; so do a full and a held one', async () => {
  const file = join(temporaryFolder(), 'a.sqlite');
  const database = await openDatabase(file);
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  await database.close();
  const bytes = readFileSync(file);
  bytes.fill(7, 4096 * 20, 4096 * 60);
  writeFileSync(file, bytes);
  await expect(openDatabase(file, { checked: true })).rejects.toThrow(/damaged.*restore the newest backup/s);
  truncateSync(file, 5000);
  await expect(openDatabase(file, { checked: true })).rejects.toThrow(/restore the newest backup/);
  expect(troubleInWords(Object.assign(new Error('x'), { parent: { code: 'SQLITE_FULL' } }))).toMatch(/disk is full/);
  expect(troubleInWords(new Error('SQLITE_BUSY: database is locked'))).toMatch(/Another program/);
  expect(troubleInWords(new Error('something else'))).toBeNull();
});

test('what is no file, such as a folder, is no database, and is said', async () => {
  await expect(openDatabase(temporaryFolder())).rejects.toThrow(/cannot be opened: see that it is there/);
});

test('a database whose schema is not what the migrations made of it is refused, and says which table', async () => {
  const file = join(temporaryFolder(), 'a.sqlite');
  const database = await openDatabase(file);
  await database.write(async (sql) => {
    await sql.run('PRAGMA writable_schema = ON');
    await sql.run(`UPDATE sqlite_master SET sql = replace(sql, ', ''cancelled'')', ')') WHERE name = 'job'`);
    await sql.run('PRAGMA writable_schema = RESET');
  });
  await database.close();
  await expect(openDatabase(file)).rejects.toThrow(/table job of this database is not as Ledrin expects it/);
});

test('where the file of an open database is deleted, nothing is saved and none takes its place', async () => {
  const file = join(temporaryFolder(), 'a.sqlite');
  const database = await openDatabase(file);
  for (const end of ['', '-wal', '-shm']) rmSync(file + end, { force: true });
  const refused: unknown = await database.write((sql) => sql.run('DELETE FROM client')).catch((error: unknown) => error);
  expect(troubleInWords(refused)).toMatch(/cannot be opened: see that it is there/);
  expect(existsSync(file)).toBe(false);
  await database.close();
});

test('an attachment that was damaged is repaired when it is attached again', () => {
  const folder = temporaryFolder();
  const content = Buffer.from('a drawing');
  const path = join(folder, hashOf(content));
  keepContent(folder, hashOf(content), content);
  writeFileSync(path, '');
  expect(isSound(path, hashOf(content))).toBe(false);
  keepContent(folder, hashOf(content), content);
  expect(isSound(path, hashOf(content))).toBe(true);
});

test('a migration that has shipped never changes', () => {
  const hashes = MIGRATIONS.map((it) => createHash('sha256').update(JSON.stringify(it)).digest('hex').slice(0, 12));
  expect(hashes).toEqual(SHIPPED);
});

/** Of each migration, in order. A new one gets its line when it ships; a line here is never changed. */
const SHIPPED: readonly string[] = [
  'd09cd58ae290',
  '8ec6da9628e3',
  '2867aeed8d49',
  'dbd1e0e8314b',
  '10ee7d38f45a',
  'fbdf65a29303',
  'f348f029826b',
  'd356c1e50b93',
  '44ee3f2bb9e5',
  '127ff708bdb2',
  '246461c432ff',
  'a706c818b82f',
  'f23c5ef1c39a',
  '5d1a78c34cdc',
  'd98857bb3583',
  '98b8a6c14481',
  '0846baaaf2ac',
  '05996433e4c8',
  'cb8e79f6b1ca',
  'f75c90372eb8',
  'c76746f8d0ab',
  'fcd416c831a4',
  '4878c4421158',
  '04c5075b0c64',
  '03b1ebbde234',
  '24950d826437',
  '355248746a1a',
  'a19270a2eee2',
  'af7b9b664108',
  '0a3b088c5250',
  '967d752b26e1',
  '93d2f12177d3',
  '4fce570a1158',
  '16ebfcd468ee',
  'd7f9f816b061',
  '057724be5d30',
  '8a0c6877e838',
  'c16eb08fe475',
];
