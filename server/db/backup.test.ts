import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import { hashOf, isSound, keepContent } from '../attachments/contents';
import { cleanUp, faultsOf, reportLines, SMALL_BOOK, temporaryFolder } from '../test/books';
import { backUp, copiesFolder, nightlyCopy, restore } from './backup';
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

test('one copy a night is kept, the newest seven', async () => {
  const file = join(temporaryFolder(), 'a.sqlite');
  await (await openDatabase(file)).close();
  for (let day = 1; day <= 9; day++) expect(await nightlyCopy(file, `2031-04-0${day}`)).toBe(true);
  expect(await nightlyCopy(file, '2031-04-09')).toBe(false);
  expect(readdirSync(copiesFolder(file)).sort()).toEqual([3, 4, 5, 6, 7, 8, 9].map((day) => `a.sqlite.2031-04-0${day}`));
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
];
