import { act, reading } from '../test/act';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { JobFacts } from '../../wire/jobFile';
import { writeBook } from '../book/writeBook';
import type { Database } from '../db/database';
import { planView } from '../screens/planView';
import { jobFileView } from './jobFileView';
import {
  cleanUp,
  everything,
  faultsOf,
  folderText,
  SMALL_BOOK,
  temporaryDatabase,
  besides,
  temporaryFolder,
  TENDER_BOOK,
  TESTER,
} from '../test/books';
import { addEvent, saveChecklist, saveCheckTemplate, saveJobFacts, savePeople } from './jobFile';
import { lockJob, moveJob } from '../jobs/jobLife';
import { createJob } from '../jobSetUp/createJob';
import { NOT_BEGUN } from '../test/wholeBook';
import { savePlan } from '../plan/plan';
import { planSeen } from '../plan/plannedDates';
import { keepChecklist, keepFacts, keepPeople, savePlanAsSeen } from '../test/asSeen';

afterAll(cleanUp);

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, TENDER_BOOK)).toEqual([]);
});
const view = (number = 'J2') => jobFileView(reading(database), number);
const factsOf = async (number: string, more: Partial<JobFacts> = {}) => ({ ...(await view(number)).facts, ...more });

describe('before a job goes on site', () => {
  test('what is missing is listed with its door, holds nothing up, and is mended one by one; the moves are saved', async () => {
    await keepFacts(database, 'J2', await factsOf('J2', { retention: { ...(await view()).facts.retention, rate: 0 } }));
    await act(database, TESTER, moveJob, 'J2', { status: 'awarded', on: '2031-04-20', reason: '' });
    expect((await view()).missing.map((it) => it.to.place)).toEqual(['contract', 'budget', 'job-file']);
    await act(database, TESTER, moveJob, 'J2', { status: 'on-site', on: null, reason: '' });
    expect((await view()).missing.map((it) => it.text)).toEqual([
      expect.stringMatching(/^The schedule of values is empty/),
      'The budget is empty',
      expect.stringMatching(/^Retention is not set/),
    ]);
    await keepFacts(database, 'J2', await factsOf('J2', { noRetention: true }));
    expect((await view()).missing.map((it) => it.to.place)).toEqual(['contract', 'budget']);
    await act(database, TESTER, lockJob, 'J2', true, 'Waits for the order');
    expect((await view()).moves.map((it) => [it.was, it.became, it.onDay, it.reason, it.actor])).toEqual([
      ['tender', 'awarded', '2031-04-20', '', 'tester'],
      ['awarded', 'on-site', null, '', 'tester'],
      ['on-site', 'locked', null, 'Waits for the order', 'tester'],
    ]);
    await database.write((sql) => sql.run('UPDATE client SET terms_days = NULL'));
    expect((await view()).missing.at(-1)!.text).toMatch(/terms of payment/);
    expect((await view('J1')).missing.map((it) => it.to.place)).toEqual(['job-file']);
  });

  test('a job typed as on site needs no more than its number, name and client', async () => {
    const job = {
      number: 'N1',
      name: 'N',
      client: 'NORTH',
      contractReference: '',
      status: 'on-site' as const,
      awardedOn: '2031-04-01',
      startsOn: null,
      finishesOn: null,
      manager: '',
      site: '',
      revenueMethod: 'cost-to-cost' as const,
      contractSum: 0,
      taxRate: 0,
      termsDays: null,
      draftId: null,
      retention: { rate: 0, materialsRate: null, stepAt: null, stepTo: null, stepApplies: 'all' as const, cap: null },
      sov: [],
      budget: [],
    };
    await act(database, TESTER, createJob, job);
    expect((await view('N1')).missing).toHaveLength(3);
  });
});

describe('the facts of a job', () => {
  test('are changed; what was billed with stays, and each such fact is named', async () => {
    await keepFacts(
      database,
      'J1',
      await factsOf('J1', { name: 'Mill, both walls', estimator: 'Ines', finishesOn: '2031-09-30', defectsEnd: '2032-09-30' }),
    );
    expect((await view('J1')).facts).toMatchObject({ name: 'Mill, both walls', estimator: 'Ines', defectsEnd: '2032-09-30' });
    expect((await view('J1')).fixed).toBe(true);
    const { retention } = (await view('J1')).facts;
    const before = await everything(database);
    await expect(
      keepFacts(
        database,
        'J1',
        await factsOf('J1', { taxRate: 0, termsDays: 9, revenueMethod: 'hours', retention: { ...retention, cap: 1 } }),
      ),
    ).rejects.toMatchObject({ faults: ['revenueMethod', 'retention', 'taxRate', 'termsDays'].map((field) => ({ field })) });
    await expect(
      keepFacts(
        database,
        'J2',
        await factsOf('J2', { startsOn: '2031-05-02', finishesOn: '2031-05-01', defectsEnd: '2031-04-01', noRetention: true }),
      ),
    ).rejects.toMatchObject({ faults: ['finishesOn', 'defectsEnd', 'noRetention'].map((field) => ({ field })) });
    expect(await everything(database)).toBe(before);
  });

  test('people, events, checklist and template are kept, and go out and come back with the book', async () => {
    await keepPeople(database, 'J1', [
      { side: 'client', name: 'Mr Hale', role: 'Surveyor', email: 'hale@northbeck.example', phone: '1' },
      { side: 'team', name: 'Ines', role: 'may post', email: '', phone: '' },
    ]);
    await act(database, TESTER, addEvent, 'J1', { kind: 'visit', dated: '2031-03-02', text: 'Walked the roof,\n"twice"' });
    await keepChecklist(database, 'J1', [{ item: 'Bond', person: 'Ines', dueOn: '2031-04-01', doneOn: null }]);
    await act(database, TESTER, saveCheckTemplate, { name: 'Usual', items: ['Bond', 'Permit'] });
    const there = await view('J1');
    expect([there.people.length, there.events[0]!.text, there.checklist[0]!.item, there.templates]).toEqual([
      2,
      'Walked the roof,\n"twice"',
      'Bond',
      [{ name: 'Usual', items: ['Bond', 'Permit'] }],
    ]);
    await savePlanAsSeen(database, 'J1', {
      sections: [{ ...NOT_BEGUN, name: 'A', startsOn: '2031-01-01', finishesOn: null }],
      lines: [{ section: 'A', costCode: '100', costType: 'labour', startsOn: '2031-02-01', finishesOn: '2031-02-28' }],
    });
    const exported = async (of: Database) => {
      const folder = temporaryFolder();
      await writeBook(reading(of), folder, besides(of));
      return folderText(folder);
    };
    const [once, other] = [await exported(database), await temporaryDatabase()];
    expect(await faultsOf(other, once)).toEqual([]);
    expect(await exported(other)).toEqual(once);
    expect(Object.keys(once)).toEqual(
      expect.arrayContaining(['job_people.csv', 'job_events.csv', 'job_checklist.csv', 'job_sections.csv', 'cost_plan.csv']),
    );
  });

  test.each([
    ['a person of no job', { ...SMALL_BOOK, job_people: 'job,side,name\nJ9,client,x\n' }, ['job_people:2:job']],
    [
      'defects ending before the finish',
      { ...SMALL_BOOK, jobs: 'job,name,customer,status,finishes_on,defects_end\nJ1,x,NORTH,tender,2031-05-01,2031-04-01\n' },
      ['jobs:2:defects_end'],
    ],
    [
      'a pattern without digits',
      { ...SMALL_BOOK, company: 'name,currency,job_number_pattern\nA,GBP,YY\n' },
      ['company:2:job_number_pattern'],
    ],
  ])('in a book, %s is a fault', async (_what, book, faults) => {
    const found = await faultsOf(await temporaryDatabase(), book);
    expect(found.filter((it) => faults.includes(it))).toEqual(faults);
  });
});

describe('the plan of a job', () => {
  const line = { section: 'A', costCode: '100', costType: 'labour' as const, startsOn: '2031-02-01', finishesOn: '2031-02-28' };

  test('lies over the dates of its lines, else of their section, else of the job; what has none is told', async () => {
    await savePlanAsSeen(database, 'J1', {
      sections: [{ ...NOT_BEGUN, name: 'A', startsOn: '2031-01-01', finishesOn: '2031-03-31' }],
      lines: [line],
    });
    const plan = await planView(reading(database), 'J1', '2031-02-28');
    // Budget: labour 3,600.00 in February alone; material 2,500.00 and its change of 400.00 over 90 days: 31 + 28 + 31.
    // Prices 6,000.00 + 4,000.00 + 1,000.00 over the same 90 days. 998.8889, 902.2222, 998.8889: the odd penny to January.
    expect(plan.months.map((it) => [it.month, it.plannedCost, it.cost, it.billed])).toEqual([
      ['2031-01', 99_889, 250_000, 0],
      ['2031-02', 99_889 + 90_222 + 360_000, 412_550, 530_000],
      ['2031-03', 650_000, null, null],
    ]);
    expect(plan.months.at(-1)!.plannedBilling).toBe(1_100_000);
    expect(plan.sections).toMatchObject([
      { name: 'A', scheduled: 1_100_000, revised: 650_000, actual: 412_550, billed: 530_000 },
    ]);
    expect([plan.unplannedCost, plan.unplannedBilling]).toEqual([0, 0]);
    await savePlanAsSeen(database, 'J1', { sections: [], lines: [line] });
    expect(await planView(reading(database), 'J1', '2031-02-28')).toMatchObject({
      unplannedCost: 290_000,
      unplannedBilling: 1_100_000,
    });
    await expect(
      savePlanAsSeen(database, 'J1', {
        sections: [{ ...NOT_BEGUN, name: 'A', startsOn: '2031-02-01', finishesOn: '2031-01-01' }],
        lines: [line, line, { ...line, costCode: '900', finishesOn: '2031-01-01' }],
      }),
    ).rejects.toMatchObject({
      faults: ['sections.0.finishesOn', 'lines.1.costCode', 'lines.2.costCode', 'lines.2.finishesOn'].map((field) => ({ field })),
    });
  });

  test.each([
    ['a section twice', { ...SMALL_BOOK, job_sections: 'job,section\nJ1,A\nJ1,A\n' }, ['job_sections:3:section']],
    [
      'a line that ends before it begins',
      {
        ...SMALL_BOOK,
        cost_plan: 'job,section,cost_code,cost_type,starts_on,finishes_on\nJ1,A,100,labour,2031-02-01,2031-01-01\n',
      },
      ['cost_plan:2:finishes_on'],
    ],
    [
      'a section finished before it started, and one that never did',
      { ...SMALL_BOOK, job_sections: 'job,section,started_on,finished_on\nJ1,A,2031-02-02,2031-02-01\nJ1,B,,2031-02-01\n' },
      ['job_sections:2:finished_on', 'job_sections:3:started_on'],
    ],
    [
      'an instalment that contradicts itself, or waits for nothing',
      {
        ...SMALL_BOOK,
        job_sections: 'job,section\nJ1,A\n',
        billing_instalments: `job,instalment,name,due,day,days,taken_from,percent,amount
J1,1,Both,,2031-02-01,,,10,5.00
J1,2,A day and days,day,2031-02-01,3,,10,
J1,3,A day of a stage,finish,2031-02-01,,,10,
J1,4,No stages,finish,,,stages,10,
J1,4,Twice,start,,,,10,
J1,501,Too many,start,,,,10,
`,
        instalment_stages: 'job,instalment,section\nJ1,3,A\nJ1,3,A\nJ1,3,Z\nJ1,9,A\n',
      },
      [
        ...['billing_instalments:2:percent', 'billing_instalments:3:days', 'billing_instalments:4:day'],
        'billing_instalments:5:taken_from',
        ...['billing_instalments:6:instalment', 'billing_instalments:7:instalment', 'instalment_stages:3:section'],
        ...['instalment_stages:4:section', 'instalment_stages:5:instalment'],
      ],
    ],
  ])('in a book, %s is a fault', async (_what, book, faults) =>
    expect(await faultsOf(await temporaryDatabase(), book)).toEqual(faults),
  );
});

test('what somebody else changed since it was opened is not written over', async () => {
  const opened = await view();
  const seen = await planSeen(reading(database), 1);
  await keepFacts(database, 'J1', await factsOf('J1', { manager: 'Ines' }));
  await keepPeople(database, 'J1', [{ side: 'team', name: 'Ines', role: '', email: '', phone: '' }]);
  await keepChecklist(database, 'J1', [{ item: 'Bond', person: '', dueOn: null, doneOn: null }]);
  await savePlanAsSeen(database, 'J1', { sections: [{ ...NOT_BEGUN, name: 'A', startsOn: null, finishesOn: null }], lines: [] });
  const before = await everything(database);
  for (const late of [
    act(database, TESTER, saveJobFacts, 'J1', { ...opened.facts, seen: opened.seen.facts }),
    act(database, TESTER, savePeople, 'J1', [], opened.seen.people),
    act(database, TESTER, saveChecklist, 'J1', [], opened.seen.checklist),
    act(database, TESTER, savePlan, 'J1', { sections: [], lines: [], seen }),
  ])
    await expect(late).rejects.toMatchObject({
      code: 'conflict',
      message: expect.stringMatching(
        /changed after you opened it; tester saved here last, at 09:00 on 2031-05-02; reload to see the saved version/,
      ),
    });
  expect(await everything(database)).toBe(before);
});
