import { afterAll, beforeEach, expect, test } from '@jest/globals';
import { join } from 'node:path';
import type { MasterInput } from '../../wire/masters';
import { postCosts } from '../costs/postCosts';
import type { Database } from '../db/database';
import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { writeBook } from '../book/writeBook';
import { saveJobFacts, savePeople } from '../jobFile/jobFile';
import { jobFileView } from '../jobFile/jobFileView';
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
import { EXAMPLES } from '../test/postedBodies';
import { MASTERS, MASTER_KINDS } from '../../core/masters/masters';
import { addMaster, deleteMaster, masterList, saveMaster } from './masters';
import { mergeMaster, mergePreview } from './mergeMasters';
import { COST_LINE_USERS, USES } from './queries';

const ON = '2031-04-30';
let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
});
afterAll(cleanUp);

const listed = async (kind: string, code: string) => (await masterList(reading(database), kind)).find((it) => it.code === code)!;
const change = async (kind: string, code: string, more: Partial<MasterInput>) => {
  const { usedBy, ...row } = await listed(kind, code);
  expect(usedBy).toBeDefined();
  return act(database, TESTER, saveMaster, kind, code, { ...row, ...more });
};
const add = (kind: string, code: string) => act(database, TESTER, addMaster, kind, { ...EXAMPLES.addMaster.body, code });
const merge = async (kind: string, code: string, into: string) => {
  const { seen } = await mergePreview(reading(database), kind, code, into);
  return act(database, TESTER, mergeMaster, kind, code, into, seen);
};
const refusal = (work: Promise<unknown>) =>
  work.then(
    () => 'done',
    (error: Error) => error.message,
  );

test('everything that refers to a master in the schema is counted and merged', async () => {
  const tables = {
    client: 'clients',
    vendor: 'vendors',
    cost_code: 'cost-codes',
    job_kind: 'job-kinds',
    department: 'departments',
  } as const;
  const row = shape({ child: t.text, column: t.text, parent: t.text });
  const keys = await reading(database).all(
    query(
      row,
      `SELECT m.name AS child, f."from" AS column, f."table" AS parent FROM sqlite_master m, pragma_foreign_key_list(m.name) f WHERE m.type = 'table'`,
    ),
  );
  const referring = (kind: string) =>
    keys.filter((it) => tables[it.parent as keyof typeof tables] === kind).map((it) => `${it.child}.${it.column}`);
  for (const kind of MASTER_KINDS.filter((it) => MASTERS[it].coded === 'code'))
    expect(USES[kind].map((it) => it.where).sort()).toEqual(referring(kind).sort());
  // What else refers to a cost line moves with it: but for what is posted, its totals, and its plan, which goes with the line.
  const ofLines = keys.filter((it) => it.parent === 'cost_line').map((it) => it.child);
  expect(ofLines.sort()).toEqual([...COST_LINE_USERS, 'cost_entry', 'cost_line_plan', 'cost_total'].sort());
});

test('a renamed one keeps what refers to it; a code that is there already is refused', async () => {
  const before = await reportLines(database, 'wip', ON);
  await change('clients', 'NORTH', { code: 'NBK', name: 'Northbeck', termsDays: 21 });
  expect(await listed('clients', 'NBK')).toMatchObject({ name: 'Northbeck', usedBy: ['2 jobs'] });
  expect(await reportLines(database, 'wip', ON)).toEqual(before);
  expect(await refusal(add('clients', 'nbk'))).toMatch(/There is a client NBK already/);
  expect(await refusal(act(database, TESTER, deleteMaster, 'clients', 'NBK'))).toMatch(/used by 2 jobs; close it, or merge/);
});

test('a closed cost code takes no new cost', async () => {
  await change('cost-codes', '900', { closed: true });
  const line = {
    dated: '2031-04-02',
    job: 'J1',
    section: '',
    costCode: '900',
    costType: 'other' as const,
    party: '',
    reference: 'R',
  };
  const lines = [{ ...line, hours: null, amount: 5, description: '', commitment: '', uninstalled: false }];
  expect(await refusal(act(database, TESTER, postCosts, { lines, asOf: ON }))).toMatch(/no cost code 900 open to new use/);
});

test('one is merged into another, cost lines of both becoming one, and the reports stay but for the code', async () => {
  // 900 has posted cost on J1; 910 takes all of it, having a line of its own only where 900 has none.
  await add('cost-codes', '910');
  const before = await reportLines(database, 'estimate-vs-actual', ON, 'J1');
  expect((await mergePreview(reading(database), 'cost-codes', '900', '910')).moves[0]).toMatch(/cost line/);
  await merge('cost-codes', '900', '910');
  expect(await reportLines(database, 'estimate-vs-actual', ON, 'J1')).toEqual(before.map((it) => it.replace(',900,', ',910,')));
  expect(await differences(database, ON)).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
  expect(await listed('cost-codes', '900')).toBeUndefined();
});

test('cost posted to both on one line is moved first, and what changed since the preview is previewed again', async () => {
  const line = {
    dated: '2031-04-02',
    job: 'J1',
    section: 'A',
    costCode: '900',
    costType: 'material' as const,
    party: '',
    reference: 'R',
  };
  const lines = [{ ...line, hours: null, amount: 5, description: '', commitment: '', uninstalled: false }];
  await act(database, TESTER, postCosts, { lines, asOf: ON });
  expect((await mergePreview(reading(database), 'cost-codes', '900', '200')).refused).toMatch(
    /posted to both on job J1, A, material; move that cost/,
  );
  await add('vendors', 'OTHER');
  const { seen } = await mergePreview(reading(database), 'vendors', 'PANEL', 'OTHER');
  await change('vendors', 'PANEL', { phone: '1' });
  expect(await refusal(act(database, TESTER, mergeMaster, 'vendors', 'PANEL', 'OTHER', seen))).toMatch(/Preview it again/);
  await merge('vendors', 'PANEL', 'OTHER');
  expect(await listed('vendors', 'OTHER')).toMatchObject({ usedBy: ['1 order or subcontract'] });
});

test('people are named by jobs: renamed, merged, closed and deleted with all that names them, and they go out and in with the book', async () => {
  const manager = async (job: string) => (await jobFileView(reading(database), job)).facts.manager;
  const setManager = async (name: string) => {
    const { facts, seen } = await jobFileView(reading(database), 'J1');
    return act(database, TESTER, saveJobFacts, 'J1', { ...facts, manager: name, seen: seen.facts });
  };
  const team = { side: 'team' as const, name: 'Ann Ash', role: 'foreman', email: '', phone: '' };
  await setManager('A. Ash');
  await act(database, TESTER, savePeople, 'J1', [team], (await jobFileView(reading(database), 'J1')).seen.people);
  expect(await listed('people', 'A. Ash')).toMatchObject({ name: '', usedBy: ['1 job as manager'] });
  expect((await mergePreview(reading(database), 'people', 'Ann Ash', 'A. Ash')).moves).toEqual(['1 team of a job']);
  await merge('people', 'Ann Ash', 'A. Ash');
  await change('people', 'A. Ash', { code: 'Anna Ash', name: 'Contracts manager' });
  expect([await manager('J1'), await listed('people', 'A. Ash')]).toEqual(['Anna Ash', undefined]);
  expect(await listed('people', 'Anna Ash')).toMatchObject({ usedBy: ['1 job as manager', '1 team of a job'] });
  expect(await refusal(add('people', 'anna ash'))).toMatch(/There is a person Anna Ash already; choose another name/);
  await setManager('B. Birch');
  await change('people', 'Anna Ash', { closed: true });
  expect(await refusal(setManager('Anna Ash'))).toMatch(/Anna Ash is closed to new use; choose another/);
  const folder = join(temporaryFolder(), 'out');
  await writeBook(reading(database), folder, besides(database));
  expect(folderText(folder)['people.csv']).toBe('person,role,email,phone,closed\nAnna Ash,Contracts manager,,,yes\n');
  const copy = await temporaryDatabase();
  expect(await faultsOf(copy, folderText(folder))).toEqual([]);
  expect(await masterList(reading(copy), 'people')).toEqual(await masterList(reading(database), 'people'));
  await copy.close();
});

test('a code is at most 40 characters, and all but people have a name', async () => {
  expect(await refusal(add('vendors', 'X'.repeat(41)))).toMatch(/at most 40 characters/);
  expect(await refusal(change('clients', 'NORTH', { name: ' ' }))).toMatch(/expected a name; enter one/);
});
