import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { ACTIONS } from '../../core/audit/actions';
import { CALLS } from '../../wire/calls';
import type { Database } from '../db/database';
import { auditName } from '../acts/command';
import { act, reading } from '../test/act';
import { cleanUp, faultsOf, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { setSubmitted } from '../billing/applications';
import { postCosts } from '../costs/postCosts';
import { EXAMPLES } from '../test/postedBodies';
import { readFileSync, rmSync } from 'node:fs';
import { auditCsv, auditPage } from './auditView';

let database: Database;
beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  await act(database, TESTER, postCosts, EXAMPLES.postCosts.body);
  await act(database, { ...TESTER, name: 'Ines', at: '2031-05-02T10:00:00.000Z' }, setSubmitted, 'J1', 3, false);
});
afterAll(cleanUp);

test('every command of the product is there in words, and nothing else', () => {
  const commands = Object.entries(CALLS).filter(([, it]) => it.kind === 'command' || it.kind === 'upload');
  // A sheet that is read, and an import that is previewed, change nothing.
  const names = commands.map(([name]) => auditName(name)).filter((it) => it !== 'read-sheet' && it !== 'preview-import');
  // Asked for by any command that needs it; and those that are no more, whose lines stand in older trails.
  expect(Object.keys(ACTIONS).sort()).toEqual([...names, 'ask-approval', 'remove-price-item', 'add-draft', 'save-draft'].sort());
});

test('it goes out as a file, whole, as it is filtered', async () => {
  const { path, temporaryFolder } = await auditCsv(reading(database), { actor: 'Ines' });
  expect(readFileSync(path, 'utf8').split('\n').slice(0, -1)).toEqual([
    'at,actor,action,command,subject,detail',
    expect.stringMatching(/^2031-05-02T10:00:00.000Z,Ines,.*,set-submitted,J1\/3,/),
  ]);
  rmSync(temporaryFolder, { recursive: true });
});

test('it is found by job, its documents and postings included, by kind of document, person and day', async () => {
  const found = async (filter: Parameters<typeof auditPage>[1]) =>
    (await auditPage(reading(database), filter)).rows.map((it) => [it.actor, it.command]);
  const [posted, returned] = [
    ['tester', 'post-costs'],
    ['Ines', 'set-submitted'],
  ];
  expect(await found({ job: 'J1' })).toEqual([returned, posted]);
  expect(await found({ job: 'J2' })).toEqual([]);
  expect(await found({ subject: 'J1/3' })).toEqual([returned]);
  expect(await found({ about: 'posting' })).toEqual([posted]);
  expect(await found({ actor: 'Ines', from: '2031-05-02', to: '2031-05-02' })).toEqual([returned]);
  expect(await found({ actor: 'Ines', to: '2031-05-01' })).toEqual([]);
});
