import { afterAll, beforeEach, expect, test } from '@jest/globals';
import { join } from 'node:path';
import type { CostLineInput } from '../../wire/costs';
import type { CorrectionInput } from '../../wire/corrections';
import { writeBook } from '../book/writeBook';
import { costLedgerPage } from '../costs/costLedger';
import { postCosts } from '../costs/postCosts';
import { type Database } from '../db/database';
import { reversePosting } from './reversePosting';
import { postingView } from '../ledger/postingViews';
import { act, reading } from '../test/act';
import {
  besides,
  cleanUp,
  differences,
  faultsOf,
  folderText,
  reportLines,
  SMALL_BOOK,
  temporaryDatabase,
  temporaryFolder,
  TESTER,
} from '../test/books';
import { correctCosts } from './correctCosts';
import { install, undoInstallation, uninstalledView } from './installations';
import { previewCorrection } from './previewCorrection';

const TIES = ['0.00', '0.00', '0.00', '0.00', '0.00'];
const LATE = '2031-04-30';
let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
});
afterAll(cleanUp);

const line = (more: Partial<CostLineInput> = {}): CostLineInput => ({
  dated: '2031-03-12',
  job: 'J1',
  section: 'A',
  costCode: '200',
  costType: 'material',
  party: 'PANEL',
  reference: 'D7',
  hours: null,
  amount: 120_000,
  description: '',
  commitment: '',
  uninstalled: false,
  ...more,
});
async function post(...lines: CostLineInput[]): Promise<{ postingId: number; ids: number[] }> {
  const { postingId } = await act(database, TESTER, postCosts, { lines, asOf: LATE });
  return { postingId, ids: (await entriesOf(postingId)).map((it) => it.id) };
}
async function entriesOf(posting: number) {
  return (await costLedgerPage(reading(database), { asOf: LATE, posting })).rows;
}
const move = (entries: number[], to: Partial<NonNullable<CorrectionInput['to']>>, on: string | null = null): CorrectionInput => ({
  entries,
  on,
  reason: 'coded to the wrong line',
  to: { job: null, section: null, costCode: null, costType: null, ...to },
});
const correct = (input: CorrectionInput) => act(database, TESTER, correctCosts, input);
const versus = (asOf: string) => reportLines(database, 'estimate-vs-actual', asOf, 'J1');

test('moved cost stands as if it had been posted where it is now, on its own day', async () => {
  const right = await post(line({ dated: '2031-02-20', costCode: '900' }));
  const expected = [await versus('2031-02-28'), await versus(LATE)];
  await act(database, TESTER, reversePosting, right.postingId, { on: null, reason: 'for comparison' });
  const { ids, postingId } = await post(line({ dated: '2031-02-20' }), line({ reference: 'D8', amount: 5 }));
  const moved = await correct(move([ids[0]!], { costCode: '900' }));
  await correct({ entries: [ids[1]!], to: null, on: null, reason: 'not ours' });
  expect([await versus('2031-02-28'), await versus(LATE)]).toEqual(expected);
  expect(await differences(database, LATE)).toEqual(TIES);
  const [was, second] = await entriesOf(postingId);
  expect([was!.reversedBy, was!.moved, second!.moved]).toEqual([moved.postingId, true, false]);
  const [out, into] = await entriesOf(moved.postingId);
  expect([out!.amount, out!.reverses, into!.amount, into!.costCode, into!.replaces]).toEqual([
    ...[-120_000, postingId, 120_000, '900', postingId],
  ]);
  expect((await postingView(reading(database), moved.postingId)).corrects).toEqual([postingId]);
  expect((await postingView(reading(database), postingId)).fixed).toMatch(/Every line .* reversed or moved already/);
});

test('what is left of a document is reversed with it, after lines of it were moved', async () => {
  const before = await versus(LATE);
  const { ids, postingId } = await post(line(), line({ reference: 'D8', amount: 700 }));
  const moved = await correct(move([ids[0]!], { section: 'B' }));
  expect(await act(database, TESTER, reversePosting, postingId, { on: null, reason: 'wrong' })).toMatchObject({
    entries: 1,
    total: -700,
  });
  const [, into] = await entriesOf(moved.postingId);
  await correct({ entries: [into!.id], to: null, on: null, reason: 'wrong too' });
  // Section B has a line of noughts now; what it comes to is as before.
  expect((await versus(LATE)).at(-1)).toEqual(before.at(-1));
});

test('is refused, by entry and field, where it cannot be; and nothing is posted', async () => {
  const { ids } = await post(line(), line({ uninstalled: true }));
  const [first, second] = ids as [number, number];
  const refused = (input: CorrectionInput) =>
    correct(input).then(
      () => 'taken',
      (error: { faults: { field: string; message: string }[] }) => error.faults.map((it) => [it.field, it.message]),
    );
  expect(await refused(move([first, 987_654], { section: 'B' }))).toEqual([['entries.1', 'There is no cost entry 987654']]);
  expect(await refused(move([first], { job: 'J9', costCode: '555' }))).toEqual([
    ['to.job', 'There is no job J9'],
    ['to.costCode', 'There is no cost code 555 open to new use; add it in Set-up, or choose another'],
  ]);
  expect(await refused(move([first], { section: 'A' }))).toMatchObject([
    ['entries.0', expect.stringMatching(/is there already/)],
  ]);
  expect(await refused(move([second], { costType: 'labour' }))).toMatchObject([
    ['to.costType', expect.stringMatching(/labour is not/)],
  ]);
  expect(await refused(move([first], { section: 'B' }, '2031-03-11'))).toMatchObject([['on', expect.anything()]]);
  const { postingId } = await correct(move([first], { section: 'B' }));
  expect(await refused(move([first], { section: 'C' }))).toMatchObject([
    ['entries.0', expect.stringContaining(`document ${postingId}`)],
  ]);
  const [out] = await entriesOf(postingId);
  expect(await refused({ entries: [out!.id], to: null, on: null, reason: 'x' })).toMatchObject([
    ['entries.0', expect.anything()],
  ]);
});

test('a preview shows what the move does, and does nothing', async () => {
  const { ids } = await post(line());
  const before = await versus(LATE);
  const preview = await previewCorrection(database, TESTER, { ...move(ids, { section: 'B' }), asOf: LATE });
  expect(preview.lines.map((it) => [it.section, it.after - it.before])).toEqual([
    ['A', -120_000],
    ['B', 120_000],
  ]);
  expect(preview.journals).toHaveLength(1);
  expect(await versus(LATE)).toEqual(before);
});

test('material is installed in parts and undone, counts so in every report, and goes out and in again', async () => {
  const earned = async (from: Database) => reportLines(from, 'wip', LATE);
  const nothing = await earned(database);
  const { ids } = await post(line({ uninstalled: true, hours: 5000 }));
  const [entry] = ids as [number];
  const left = async () => (await uninstalledView(reading(database), LATE, 'J1')).rows.find((it) => it.entry === entry)?.left;
  const lying = await earned(database);
  expect(await left()).toBe(120_000);
  await act(database, TESTER, install, { on: '2031-03-20', parts: [{ entry, amount: 50_000, quantity: null }] });
  expect(await left()).toBe(70_000);
  expect(await earned(database)).not.toEqual(lying);
  // The day before it was installed, all of it lay there.
  expect((await uninstalledView(reading(database), '2031-03-19', 'J1')).rows.find((it) => it.entry === entry)?.left).toBe(
    120_000,
  );
  await act(database, TESTER, install, { on: '2031-04-02', parts: [{ entry, amount: 10_000, quantity: null }] });
  const folder = join(temporaryFolder(), 'out');
  await writeBook(reading(database), folder, besides(database));
  const copy = await temporaryDatabase();
  expect(await faultsOf(copy, folderText(folder))).toEqual([]);
  for (const name of ['wip', 'trial-balance', 'tie-out'] as const)
    for (const day of ['2031-03-31', LATE])
      expect(await reportLines(copy, name, day)).toEqual(await reportLines(database, name, day));
  await copy.close();
  // Reversed, the entry and what was installed of it count for nothing.
  const { installations } = await uninstalledView(reading(database), LATE, 'J1');
  const own = installations.filter((it) => it.entry === entry);
  for (const { id } of own) await act(database, TESTER, undoInstallation, id);
  expect(await earned(database)).toEqual(lying);
  await act(database, TESTER, install, { on: '2031-03-20', parts: [{ entry, amount: 50_000, quantity: null }] });
  await correct({ entries: [entry], to: null, on: '2031-04-10', reason: 'sent back' });
  expect(await earned(database)).toEqual(nothing);
  expect(await left()).toBeUndefined();
});

test('material that was installed before its cost was posted counts nowhere as uninstalled', async () => {
  const copy = await temporaryDatabase();
  const late = '2031-02-01,J1,A,200,material,L9,P,,500.00,,,yes,2031-02-10,2031-03-15\n';
  const [head, ...rows] = SMALL_BOOK.costs!.split('\n');
  const costs = [`${head},posted_on`, ...rows.filter(Boolean).map((it) => `${it},`), late].join('\n');
  expect(await faultsOf(copy, { ...SMALL_BOOK, costs })).toEqual([]);
  expect(await reportLines(copy, 'wip', '2031-02-28')).toEqual(await reportLines(database, 'wip', '2031-02-28'));
  await copy.close();
});
