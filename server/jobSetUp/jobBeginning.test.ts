import { afterAll, beforeEach, expect, test } from '@jest/globals';
import { NO_MORE } from '../../core/masters/masters';
import type { JobInput } from '../../wire/jobs';
import type { Database } from '../db/database';
import { saveCheckTemplate } from '../jobFile/jobFile';
import { jobFileView } from '../jobFile/jobFileView';
import { deleteJob } from '../jobs/jobLife';
import { jobList } from '../screens/jobList';
import { labourList } from '../labour/saveList';
import { addMaster, saveMaster, masterList } from '../masters/masters';
import { act, reading } from '../test/act';
import { cleanUp, faultsOf, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { EXAMPLES } from '../test/postedBodies';
import { createJob } from './createJob';
import { jobBeginning } from './jobBeginning';

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, { ...SMALL_BOOK, 'work_kinds.csv': 'work_kind,description\nROPE,From ropes\n' })).toEqual([]);
  await act(database, TESTER, saveCheckTemplate, { name: 'Before site', items: ['Insurance', 'Bond'] });
  for (const [list, more] of [
    ['job-kinds', { retentionRate: 30_000, workKind: 'ROPE', payCode: 'ROPE-BASIC', checklist: 'Before site' }],
    ['departments', {}],
  ] as const)
    await act(database, TESTER, addMaster, list, { ...NO_MORE, ...more, code: 'TOWER', name: 'Towers', closed: false });
});
afterAll(cleanUp);

const begin = (client: string, kind = '') => jobBeginning(reading(database), { client, kind });
const setUp = (more: Partial<JobInput>) => act(database, TESTER, createJob, { ...EXAMPLES.createJob.body, ...more });
const refusal = (work: Promise<unknown>) =>
  work.then(
    () => [],
    (error: { faults?: { field: string }[] }) => error.faults?.map((it) => it.field),
  );

test('a new job begins as the last job of its client, and what its kind says wins over that', async () => {
  expect(await begin('')).toMatchObject({ last: null, retention: { rate: 50_000 }, termsDays: null, checklist: [] });
  const first = await begin('NORTH');
  await setUp({
    number: '9001',
    name: 'Crane hall',
    awardedOn: '2031-04-29',
    department: 'TOWER',
    termsDays: 21,
    taxRate: 50_000,
    retention: { rate: 40_000, materialsRate: 0, stepAt: 500_000, stepTo: 20_000, stepApplies: 'further', cap: null },
  });
  // Awarded after all others of NORTH, whatever number it has; the last one before it was another.
  expect(first.last).not.toMatchObject({ number: '9001' });
  expect(await begin('NORTH')).toMatchObject({
    last: { number: '9001', name: 'Crane hall' },
    department: 'TOWER',
    termsDays: 21,
    taxRate: 50_000,
    payCode: '',
    retention: { rate: 40_000, stepAt: 500_000, stepTo: 20_000 },
  });
  // 3 % and no step, since the kind says what is retained; its terms it leaves to the last job.
  expect(await begin('NORTH', 'TOWER')).toMatchObject({
    kind: 'Towers',
    termsDays: 21,
    workKind: 'ROPE',
    payCode: 'ROPE-BASIC',
    retention: { rate: 30_000, materialsRate: null, stepAt: null, stepTo: null },
    checklist: [
      { item: 'Insurance', person: '' },
      { item: 'Bond', person: '' },
    ],
  });
});

test('a job is of a kind, a department and a kind of work; its pay code is a row of the list, and goes with it', async () => {
  await setUp({ number: '9001', kind: 'TOWER', department: 'TOWER', workKind: 'ROPE', payCode: 'ROPE-BASIC' });
  const { facts } = await jobFileView(reading(database), '9001');
  expect(facts).toMatchObject({ kind: 'TOWER', department: 'TOWER', workKind: 'ROPE' });
  const listed = (await jobList(reading(database), '2031-04-30')).jobs.map((it) => [it.number, it.kind, it.department]);
  expect(listed).toContainEqual(['9001', 'TOWER', 'TOWER']);
  const codes = async () => (await labourList(reading(database), 'pay-codes')).rows;
  expect(await codes()).toMatchObject([{ payCode: 'ROPE-BASIC', pay: 'regular', job: '9001', workKind: '' }]);
  await act(database, TESTER, deleteJob, '9001');
  expect(await codes()).toEqual([]);
});

test('what is in no list is refused at its field, and so is what is closed to new use', async () => {
  expect(await refusal(setUp({ number: '9001', kind: 'X', department: 'Y', workKind: 'Z' }))).toEqual([
    'kind',
    'department',
    'workKind',
  ]);
  const { usedBy, ...row } = (await masterList(reading(database), 'job-kinds'))[0]!;
  expect(usedBy).toEqual([]);
  await act(database, TESTER, saveMaster, 'job-kinds', 'TOWER', { ...row, closed: true });
  expect(await refusal(setUp({ number: '9001', kind: 'TOWER' }))).toEqual(['kind']);
  const wrong = { ...NO_MORE, code: 'B', name: 'B', closed: false };
  expect(await refusal(act(database, TESTER, addMaster, 'job-kinds', { ...wrong, workKind: 'Z' }))).toEqual(['workKind']);
  expect(await refusal(act(database, TESTER, addMaster, 'job-kinds', { ...wrong, checklist: 'Z' }))).toEqual(['checklist']);
});
