import { mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { tmpdir } from 'node:os';
import { install } from '../corrections/installations';
import { exportedBook } from '../test/wholeBook';
import { afterAll, beforeEach, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { act, reading } from '../test/act';
import {
  besides,
  cleanUp,
  everything,
  faultsOf,
  reportLines,
  SMALL_BOOK,
  temporaryDatabase,
  temporaryFolder,
  TESTER,
} from '../test/books';
import { exportZip } from './exportZip';
import { importBook } from './importBook';
import { importBookAlone } from './importBookAlone';
import { previewImport } from './previewImport';
import { copyFileSync } from 'node:fs';

const ASKED = { name: 'import-book', actor: TESTER };
let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
});
afterAll(cleanUp);

function folderWith(files: Record<string, string>): string {
  const folder = temporaryFolder();
  for (const [name, text] of Object.entries(files)) writeFileSync(join(folder, name), text);
  return folder;
}

test('what is there already is counted by file, with what is wrong; nothing is saved and nothing is left', async () => {
  const before = await everything(database);
  const folders = () => readdirSync(tmpdir()).filter((it) => it.startsWith('ledrin-preview-')).length;
  const left = folders();
  // The very ZIP that was exported, chosen again.
  const { path } = await exportZip(database.file, besides(database));
  const folder = mkdtempSync(join(temporaryFolder(), 'in'));
  copyFileSync(path, join(folder, 'book.zip'));
  const seen = await previewImport(database.file, ASKED, folder);
  expect(seen.files.find((it) => it.name === 'cost_codes')).toEqual({ name: 'cost_codes', rows: 3, there: 3 });
  expect(seen.files.find((it) => it.name === 'application_lines')).toMatchObject({ there: null });
  expect(seen.faults.length).toBeGreaterThan(5);
  expect([seen.after, await everything(database), folders()]).toEqual([null, before, left]);
});

test('what was installed in parts is known again as it was exported: a row for each part', async () => {
  // 300.00 delivered on 20 Feb, of which 100.00 is installed in March: two rows of 100.00 and 200.00.
  const delivery = `${SMALL_BOOK.costs!.split('\n')[0]}\n2031-02-20,J1,A,200,material,D9,PANEL,,300.00,,,yes,\n`;
  await act(database, TESTER, importBook, folderWith({ 'costs.csv': delivery }), besides(database));
  const [entry] = await reading(database).anyRows(`SELECT id FROM cost_entry WHERE reference = 'D9'`);
  const part = { entry: Number(entry!.id), amount: 10_000, quantity: null };
  await act(database, TESTER, install, { on: '2031-03-10', parts: [part] });
  const costs = (await exportedBook(database))['costs.csv'];
  expect(costs!.split('\n').filter((it) => it.includes(',D9,'))).toHaveLength(2);
  const rows = costs!.trim().split('\n').length - 1;
  const seen = await previewImport(database.file, ASKED, folderWith({ 'costs.csv': costs! }));
  expect(seen.identical.count).toBe(rows);
  const counts = await importBookAlone(database.file, ASKED, folderWith({ 'costs.csv': costs! }), besides(database), true);
  expect(counts).toEqual({ costs: 0 });
});

test('costs that are there word for word are named, and left out where that is asked for', async () => {
  // The five costs of the book again, and one of 10.00 that is new.
  const costs = `${SMALL_BOOK.costs}2031-02-11,J1,A,900,other,NEW,,,10.00,,,,\n`;
  const seen = await previewImport(database.file, ASKED, folderWith({ 'costs.csv': costs }));
  // 1,000.00 + 1,500.00 + 1,250.00 + 75.50 + 300.00 are there; with the 10.00 they are 4,135.50 more.
  expect(seen.identical).toMatchObject({ count: 5, amount: 412_550 });
  expect(seen.after!.cost - seen.before!.cost).toBe(413_550);
  expect([seen.files, seen.after!.ties]).toEqual([[{ name: 'costs', rows: 6, there: null }], true]);
  const only = await temporaryDatabase();
  expect(await faultsOf(only, { ...SMALL_BOOK, costs })).toEqual([]);
  const stores = besides(database);
  const counts = await importBookAlone(database.file, ASKED, folderWith({ 'costs.csv': costs }), stores, true);
  expect(counts).toEqual({ costs: 1 });
  expect(await reportLines(database, 'wip', '2031-04-30')).toEqual(await reportLines(only, 'wip', '2031-04-30'));
  expect(await importBookAlone(database.file, ASKED, folderWith({ 'costs.csv': costs }), stores, true)).toEqual({ costs: 0 });
  // Asked for twice over, they come in twice.
  await act(database, TESTER, importBook, folderWith({ 'costs.csv': costs }), stores);
  expect((await reading(database).anyRows('SELECT count(*) AS n FROM cost_entry'))[0]!.n).toBe(12);
});
