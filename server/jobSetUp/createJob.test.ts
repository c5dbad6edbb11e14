import { AuditTable } from '../acts/models';
import { act, reading } from '../test/act';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { JobInput } from '../../wire/jobs';
import type { Database } from '../db/database';
import { jobDrafts, jobList } from '../screens/jobList';
import { OWNER } from '../test/testApp';
import { loadLists } from '../company/lists';
import { loadSession } from '../users/sessionView';
import { cleanUp, everything, faultsOf, reportLines, SMALL_BOOK, temporaryDatabase, besides, TESTER } from '../test/books';
import { JobDraftTable } from '../jobs/models';
import { createJob, deleteDraft } from './createJob';
import { moveJob } from '../jobs/jobLife';
import { addCostCodes, addClient, saveCompany } from '../company/saveCompany';

afterAll(cleanUp);

const company = {
  registrationNumber: '',
  taxNumber: '',
  phone: '',
  email: '',
  web: '',
  bankDetails: '',
  timeZone: '',
  siteDays: 30,
  name: 'Aldergate Cladding',
  currency: 'GBP',
  taxName: 'VAT',
  taxRate: 200_000,
  yearStartMonth: 4,
  address: '',
  jobNumberPattern: '',
};
const client = {
  code: 'NORTH',
  name: 'Northbeck',
  contact: '',
  email: '',
  phone: '',
  address: '',
  termsDays: 30,
  neverCertifies: false,
};

/** A job of 1,000.00 in two lines, with a budget of 700.00. */
const job = (more: Partial<JobInput> = {}): JobInput => ({
  number: '2001',
  name: 'Mill',
  client: 'NORTH',
  contractReference: 'C/1',
  status: 'awarded',
  awardedOn: '2031-04-02',
  startsOn: '2031-04-10',
  finishesOn: '2031-09-30',
  manager: 'Ines',
  site: '',
  revenueMethod: 'cost-to-cost',
  contractSum: 100_000,
  retention: { rate: 50_000, materialsRate: null, stepAt: null, stepTo: null, stepApplies: 'all', cap: null },
  taxRate: 200_000,
  termsDays: null,
  sov: [
    { line: '1', section: 'A', description: 'Frame', scheduledValue: 60_000, quantity: null, unit: '', retentionRate: null },
    {
      line: '2',
      section: 'A',
      description: 'Panels',
      scheduledValue: 40_000,
      quantity: 125_000,
      unit: 'm2',
      retentionRate: 30_000,
    },
  ],
  budget: [
    {
      section: 'A',
      costCode: '100',
      costType: 'labour',
      sovLine: '1',
      description: '',
      quantity: null,
      unit: '',
      hours: 400_000,
      amount: 50_000,
    },
    {
      section: 'A',
      costCode: '100',
      costType: 'labour',
      sovLine: '',
      description: '',
      quantity: null,
      unit: '',
      hours: null,
      amount: 20_000,
    },
  ],
  draftId: null,
  ...more,
});

let database: Database;

beforeEach(async () => {
  database = await temporaryDatabase();
});

async function withCompany(): Promise<void> {
  await act(database, TESTER, saveCompany, company);
  await act(database, TESTER, addClient, client);
  await act(database, TESTER, addCostCodes, { codes: [{ code: '100', description: 'Framing', unit: '' }] });
}

describe('a new job', () => {
  test('stands in the reports from the day it is awarded', async () => {
    await withCompany();
    expect(await act(database, TESTER, createJob, job())).toBe('2001');
    expect(await reportLines(database, 'wip', '2031-04-01')).toEqual([
      'TOTAL,,0.00,0.00,0.00,0.0000,0.00,0.0000,0.00,0.00,0.00,0.00,0.00,0.00,0.00',
    ]);
    expect((await reportLines(database, 'wip', '2031-04-02'))[0]).toBe(
      '2001,Mill,1000.00,700.00,300.00,30.0000,0.00,0.0000,0.00,0.00,0.00,0.00,0.00,1000.00,0.00',
    );
    expect(await reportLines(database, 'estimate-vs-actual', '2031-04-30', '2001')).toEqual([
      'A,100,labour,700.00,0.00,700.00,0.00,0.00,700.00,0.00,40,0,yes',
      'TOTAL,,,700.00,0.00,700.00,0.00,0.00,700.00,0.00,40,0,',
    ]);
  });

  test('goes out with an export and comes back the same', async () => {
    await withCompany();
    await act(database, TESTER, createJob, job());
    const { join } = await import('node:path');
    const { writeBook } = await import('../book/writeBook');
    const { folderText, temporaryFolder } = await import('../test/books');
    const folder = join(temporaryFolder(), 'out');
    await writeBook(reading(database), folder, besides(database));
    const other = await temporaryDatabase();
    expect(await faultsOf(other, folderText(folder))).toEqual([]);
    const again = join(temporaryFolder(), 'again');
    await writeBook(reading(other), again, besides(other));
    expect(folderText(again)).toEqual(folderText(folder));
  });

  test('with everything wrong says everything, field by field, and keeps nothing', async () => {
    await withCompany();
    await act(database, TESTER, createJob, job());
    const before = await everything(database);
    const wrong = job({
      client: 'WEST',
      awardedOn: null,
      finishesOn: '2031-04-01',
      contractSum: 100_001,
      retention: { rate: 0, materialsRate: null, stepAt: 500_000, stepTo: null, stepApplies: 'all', cap: null },
      sov: [...job().sov, { ...job().sov[0]!, scheduledValue: 0 }],
      budget: [{ ...job().budget[0]!, sovLine: '9', costCode: '999' }],
    });
    await expect(act(database, TESTER, createJob, wrong)).rejects.toMatchObject({
      faults: [
        { field: 'client' },
        { field: 'awardedOn' },
        { field: 'finishesOn' },
        { field: 'retention.stepTo' },
        { field: 'sov.2.line' },
        {
          field: 'sov',
          message:
            'The schedule of values is 0.01 short of the contract sum; change a line or the sum until the difference is zero',
        },
        { field: 'budget.0.sovLine' },
        { field: 'budget.0.costCode' },
        { field: 'number', message: 'There is a job 2001 already; choose another number' },
      ],
    });
    expect(await everything(database)).toBe(before);
  });

  test('needs a company first', async () => {
    await expect(act(database, TESTER, createJob, job())).rejects.toThrow(/Name the company first/);
  });
});

describe('a draft of a job', () => {
  /** As an earlier version saved them. */
  const saveDraft = () => {
    const saved = { content: JSON.stringify({ facts: { name: 'Half' } }), actor: TESTER.name, saved_at: TESTER.at };
    return act(database, TESTER, ({ sql }) => sql.insert(JobDraftTable, saved));
  };

  test('goes when the job is set up', async () => {
    await withCompany();
    const id = await saveDraft();
    expect(await jobDrafts(reading(database))).toEqual([{ id, content: { facts: { name: 'Half' } }, savedAt: TESTER.at }]);
    await act(database, TESTER, createJob, job({ draftId: id }));
    expect(await jobDrafts(reading(database))).toEqual([]);
  });

  test('can be deleted', async () => {
    const id = await saveDraft();
    await act(database, TESTER, deleteDraft, id);
    expect(await jobDrafts(reading(database))).toEqual([]);
  });
});

describe("a job's life", () => {
  beforeEach(async () => {
    await withCompany();
    await act(database, TESTER, createJob, job({ status: 'tender', awardedOn: null }));
  });

  test('goes on only, and notes the days it needs', async () => {
    await expect(act(database, TESTER, moveJob, '2001', { status: 'on-site', on: null, reason: '' })).rejects.toThrow(
      /Enter the day it was awarded/,
    );
    await act(database, TESTER, moveJob, '2001', { status: 'on-site', on: '2031-04-02', reason: '' });
    await expect(act(database, TESTER, moveJob, '2001', { status: 'awarded', on: null, reason: '' })).rejects.toThrow(
      /it moves on to closing-out, closed/,
    );
    await expect(act(database, TESTER, moveJob, '2001', { status: 'closed', on: null, reason: '' })).rejects.toThrow(
      /Enter the day it was finished/,
    );
    await expect(act(database, TESTER, moveJob, '2001', { status: 'closed', on: '2031-04-01', reason: '' })).rejects.toThrow(
      /before the award/,
    );
    await act(database, TESTER, moveJob, '2001', { status: 'closed', on: '2031-09-30', reason: '' });
    const row = (await reading(database).anyRows('SELECT status, awarded_on, finished_on FROM job'))[0];
    expect(row).toEqual({ status: 'closed', awarded_on: '2031-04-02', finished_on: '2031-09-30' });
  });

  test('is recorded: who, when, from what to what', async () => {
    await act(database, TESTER, moveJob, '2001', { status: 'awarded', on: '2031-04-02', reason: '' });
    const audit = (await reading(database).find(AuditTable, {}, ['id'])).at(-1);
    expect(audit).toMatchObject({ actor: 'tester', at: TESTER.at, command: 'move-job' });
    expect(JSON.parse(audit!.detail)).toEqual({ from: 'tender', to: 'awarded', on: '2031-04-02', reason: '' });
  });

  test('a tender is in the list of jobs, and not in its totals', async () => {
    const list = await jobList(reading(database), '2031-04-30');
    expect(list.jobs.map((it) => [it.number, it.inSchedule, it.contractSum])).toEqual([['2001', false, 100_000]]);
    expect(list.totals.contractSum).toBe(0);
  });
});

describe('the company', () => {
  test('keeps its currency once there are jobs, and may change the rest', async () => {
    await withCompany();
    await act(database, TESTER, saveCompany, { ...company, currency: 'EUR' });
    await act(database, TESTER, saveCompany, company);
    await act(database, TESTER, createJob, job());
    await expect(act(database, TESTER, saveCompany, { ...company, currency: 'JPY' })).rejects.toMatchObject({
      faults: [{ field: 'currency' }],
    });
    await act(database, TESTER, saveCompany, { ...company, name: 'Aldergate Ltd' });
    expect(
      (await loadSession(reading(database), '2031-05-01', { sendsMail: false, person: OWNER, demo: false, troubles: [] }))
        .company,
    ).toMatchObject({
      name: 'Aldergate Ltd',
      currency: 'GBP',
      digits: 2,
    });
  });

  test('has a currency that exists', async () => {
    await expect(act(database, TESTER, saveCompany, { ...company, currency: 'ZZZ' })).rejects.toThrow(/not an ISO 4217/);
  });

  test('takes no client and no code twice, and adds codes all or none', async () => {
    await withCompany();
    await expect(act(database, TESTER, addClient, client)).rejects.toThrow(/There is a client NORTH already/);
    const codes = [
      { code: '200', description: 'New', unit: '' },
      { code: '100', description: 'Old', unit: '' },
      { code: '200', description: 'Twice', unit: '' },
    ];
    await expect(act(database, TESTER, addCostCodes, { codes })).rejects.toMatchObject({
      faults: [{ field: 'codes.1.code' }, { field: 'codes.2.code' }],
    });
    expect((await loadLists(reading(database), '2031-04-30')).costCodes.map((it) => it.code)).toEqual(['100']);
  });
});

test('what fields complete from: jobs with their sections, open orders with what is left of them', async () => {
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  const lists = await loadLists(reading(database), '2031-03-31');
  expect(lists.jobs).toEqual([
    { number: 'J1', name: 'Mill, east wall', status: 'on-site', locked: false, sections: ['A'] },
    { number: 'J2', name: 'Tender only', status: 'tender', locked: false, sections: [] },
  ]);
  // 2,000.00 ordered, 1,500.00 invoiced against it.
  expect(lists.commitments).toMatchObject([{ number: 'PO1', line: '1', job: 'J1', costCode: '200', open: 50_000 }]);
  expect(lists.clients).toEqual([{ code: 'NORTH', name: 'Northbeck Estates', termsDays: 14 }]);
});
