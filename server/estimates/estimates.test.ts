import { act, reading } from '../test/act';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import { groupsBy } from '../../core/estimates/award';
import type { EstimateInput, EstimateView } from '../../wire/estimates';
import { writeBook } from '../book/writeBook';
import type { Database } from '../db/database';
import { estimateList, estimateView } from './estimateViews';
import { achieved } from '../prices/priceList';
import {
  cleanUp,
  differences,
  everything,
  faultsOf,
  folderText,
  reportLines,
  temporaryDatabase,
  besides,
  temporaryFolder,
  TENDER_BOOK,
  TESTER,
  type BookText,
} from '../test/books';
import { awardJob } from './award';
import { chooseEstimate, deleteEstimate, saveEstimate, sendEstimate, startEstimate } from './estimates';
import { previewReprice, repriceEstimate } from './repriceEstimate';
import { moveJob } from '../jobs/jobLife';
import { saveQuotation } from '../quotations/quotations';
import { movePrices, previewPriceMove } from '../prices/prices';

afterAll(cleanUp);

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, TENDER_BOOK)).toEqual([]);
});

const priceOf = async (number = 1) => (await estimateList(reading(database), 'J2')).find((it) => it.number === number)!.price;
const inputOf = (it: EstimateView, more: Partial<EstimateInput> = {}): EstimateInput => ({
  version: it.version,
  name: it.name,
  overhead: it.overhead,
  profit: it.profit,
  rounding: it.rounding,
  typeMarkups: Object.entries(it.typeMarkups).map(([costType, rate]) => ({ costType: costType as 'labour', rate: rate! })),
  sectionMarkups: Object.entries(it.sectionMarkups).map(([section, rate]) => ({ section, rate })),
  lines: it.lines.map((line) => ({ ...line, parts: [...line.parts] })),
  ...more,
});
const exported = async (of: Database): Promise<BookText> => {
  const folder = temporaryFolder();
  await writeBook(reading(of), folder, besides(of));
  return folderText(folder);
};
const move = { by: 100_000, vendor: 'PANEL', costType: null, costCode: '', on: '2031-04-01', reason: 'Spring list' };

describe('an estimate', () => {
  test('imported, it comes to the price worked by hand; copied, to the same', async () => {
    expect(await priceOf()).toBe(617_700);
    expect(
      await act(database, TESTER, startEstimate, 'J2', {
        name: 'Cheaper',
        copyOf: { job: 'J2', estimate: 1 },
        pattern: null,
        reprice: false,
      }),
    ).toBe(2);
    expect(await priceOf(2)).toBe(617_700);
    await act(database, TESTER, chooseEstimate, 'J2', 2);
    expect((await estimateList(reading(database), 'J2')).map((it) => [it.number, it.chosen])).toEqual([
      [1, false],
      [2, true],
    ]);
    await act(database, TESTER, deleteEstimate, 'J2', 2);
    expect(await estimateList(reading(database), 'J2')).toHaveLength(1);
  });

  test('the second of two who save is told who was first, and the books keep the first’s', async () => {
    const opened = await estimateView(reading(database), 'J2', 1);
    expect(
      await act(
        database,
        { name: 'Ines', at: '2031-05-02T10:42:00.000Z' },
        saveEstimate,
        'J2',
        1,
        inputOf(opened, { overhead: 70_000 }),
      ),
    ).toBe(2);
    await expect(act(database, TESTER, saveEstimate, 'J2', 1, inputOf(opened, { profit: 0 }))).rejects.toThrow(
      /^Ines saved this estimate at 10:42 on 2031-05-02/,
    );
    const now = await estimateView(reading(database), 'J2', 1);
    expect([now.version, now.overhead, now.profit]).toEqual([2, 70_000, 45_000]);
    expect(await act(database, TESTER, saveEstimate, 'J2', 1, inputOf(now, { profit: 0 }))).toBe(3);
  });

  test('faults name line and field, and nothing is kept', async () => {
    const opened = await estimateView(reading(database), 'J2', 1);
    const before = await everything(database);
    const [one, two, three] = inputOf(opened).lines as [
      EstimateInput['lines'][0],
      EstimateInput['lines'][0],
      EstimateInput['lines'][0],
    ];
    const bad = inputOf(opened, {
      lines: [
        one,
        { ...two, line: '1', buildUp: 'NONE' },
        { ...three, parts: [{ ...three.parts[0]!, costCode: '999' }] },
        { ...three, line: '9', quantity: 99_999_999_999, parts: [{ ...three.parts[0]!, unitCost: 9_999_999_999_999 }] },
      ],
    });
    await expect(act(database, TESTER, saveEstimate, 'J2', 1, bad)).rejects.toMatchObject({
      faults: [
        { field: 'lines.1.line' },
        { field: 'lines.1.buildUp' },
        { field: 'lines.2.parts.0.costCode' },
        { field: 'lines.3.quantity' },
      ],
    });
    expect(await everything(database)).toBe(before);
  });

  test('prices that moved reach it when it is priced anew, shown line by line before; sent, it is frozen', async () => {
    const { seen } = await previewPriceMove(database, move);
    await act(database, TESTER, movePrices, { ...move, seen });
    expect(await priceOf()).toBe(617_700);
    // ROOF: material without own markup 15.9453 + 1.539 + 0.0554 = 17.5397 × 137.5 = 2,411.70875 → 2,411.71, with 8 % 192.94: 2,604.65;
    // before 2,192.48 + 175.40 = 2,367.88. Line net 3,769.94 + 236.77 = 4,006.71.
    const told = await previewReprice(reading(database), 'J2', 1);
    expect(told.lines).toEqual([{ line: '1', description: 'Roof', before: 376_994, after: 400_671, because: ['ROOF'] }]);
    expect(told.before).toBe(617_700);
    // Net 5,813.21, overhead 348.79, profit 4.5 % of 6,162.00 = 277.29, −0.03.
    expect(told.after).toBe(643_926);
    await expect(act(database, TESTER, repriceEstimate, 'J2', 1, 'another')).rejects.toThrow(
      /has changed since it was previewed/,
    );
    await act(database, TESTER, repriceEstimate, 'J2', 1, told.seen);
    expect(await priceOf()).toBe(643_926);
    await act(database, TESTER, sendEstimate, 'J2', 1, '2031-04-10', 'Q-14');
    const sent = await estimateView(reading(database), 'J2', 1);
    for (const attempt of [
      () => act(database, TESTER, saveEstimate, 'J2', 1, inputOf(sent)),
      () => act(database, TESTER, repriceEstimate, 'J2', 1, told.seen),
      () => act(database, TESTER, deleteEstimate, 'J2', 1),
    ])
      await expect(attempt()).rejects.toThrow(/Estimate 1 is sent; (it is locked, copy it|only a draft can be deleted)/);
    await expect(database.write((sql) => sql.run('UPDATE estimate_line SET quantity = 1'))).rejects.toThrow();
  });
});

describe('the award', () => {
  const award = async (agreed = 615_000) => {
    const { lines } = await estimateView(reading(database), 'J2', 1);
    const groups = groupsBy('section', lines).map((it) => ({ ...it, members: [...it.members] }));
    return { acceptedOn: '2031-04-20', acceptance: 'Letter of 19 April', agreed, groups };
  };

  test('gives the schedule and budget worked by hand, linked to the lines they come from; the books tie', async () => {
    await act(database, TESTER, saveQuotation, 'J2', null, {
      version: 0,
      estimate: 1,
      title: 'Roof',
      presentation: 'section',
      quantities: true,
      unitPrices: false,
      contact: 'H',
      email: 'h@x.example',
      introduction: 'Two\nlines',
      exclusions: 'a\nb',
      terms: 't',
      validUntil: '2031-06-01',
      alternates: [{ name: 'Green', amount: -5 }],
      payments: [
        { name: 'Start', rate: 300_000, amount: null, dueOn: '2031-06-01', stage: '' },
        { name: 'End', rate: null, amount: 9, dueOn: null, stage: 'Handover' },
      ],
    });
    await act(database, TESTER, awardJob, 'J2', 1, await award());
    const sql = reading(database);
    expect(
      await sql.anyRows(
        'SELECT line, scheduled_value, net, spread, difference FROM sov_line s JOIN award a ON a.sov_line_id = s.id ORDER BY position',
      ),
    ).toEqual([
      { line: '1', scheduled_value: 564_655, net: 511_994, spread: 55_140, difference: -2_479 },
      { line: '2', scheduled_value: 50_345, net: 45_650, spread: 4_916, difference: -221 },
    ]);
    expect(await reportLines(database, 'estimate-vs-actual', '2031-04-30', 'J2')).toEqual([
      'A,100,labour,902.69,0.00,902.69,0.00,0.00,902.69,0.00,27.775,0,yes',
      'A,200,material,2548.22,0.00,2548.22,0.00,0.00,2548.22,0.00,0,0,yes',
      'A,300,subcontract,1200.00,0.00,1200.00,0.00,0.00,1200.00,0.00,0,0,yes',
      'B,100,labour,243.75,0.00,243.75,0.00,0.00,243.75,0.00,7.5,0,yes',
      'B,400,equipment,136.67,0.00,136.67,0.00,0.00,136.67,0.00,0,0,yes',
      'TOTAL,,,5031.33,0.00,5031.33,0.00,0.00,5031.33,0.00,35.275,0,',
    ]);
    expect((await reportLines(database, 'wip', '2031-04-30', 'J2'))[0]).toMatch(/^J2,Tender only,6150.00,5031.33,1118.67/);
    expect(await differences(database, '2031-04-30')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
    expect(await estimateView(sql, 'J2', 1)).toMatchObject({
      status: 'accepted',
      acceptedOn: '2031-04-20',
      sentOn: '2031-04-20',
    });
    await expect(act(database, TESTER, awardJob, 'J2', 1, await award())).rejects.toThrow(/awarded already/);
    // All of it goes out in the book and comes back the same.
    const [once, other] = [await exported(database), await temporaryDatabase()];
    expect(await faultsOf(other, once)).toEqual([]);
    expect(await exported(other)).toEqual(once);
    expect(once['budget.csv']).toContain('J2,A,100,labour,1,Roof,137.5,m2,27.775,902.69,1');
  });

  test('every line in one SOV line, and a day not before it was sent: else it names what is wrong and changes nothing', async () => {
    await act(database, TESTER, sendEstimate, 'J2', 1, '2031-04-21', '');
    const before = await everything(database);
    const good = await award();
    const [a, b] = good.groups as [(typeof good.groups)[0], (typeof good.groups)[0]];
    const bad = {
      ...good,
      groups: [
        { ...a, members: ['1', '1', '7'] },
        { ...b, line: '1', weight: 0 },
      ],
    };
    await expect(act(database, TESTER, awardJob, 'J2', 1, bad)).rejects.toMatchObject({
      faults: ['acceptedOn', 'groups.0.members.1', 'groups.0.members.2', 'groups.1.line', 'groups', 'groups.0.weight'].map(
        (field) => ({ field }),
      ),
    });
    expect(await everything(database)).toBe(before);
  });

  test('once the job is finished, what a build-up took stands beside what it was to take', async () => {
    await act(database, TESTER, awardJob, 'J2', 1, await award());
    await act(database, TESTER, moveJob, 'J2', { status: 'on-site', on: null, reason: '' });
    const costs = await import('../costs/postCosts');
    const entry = {
      dated: '2031-05-20',
      job: 'J2',
      section: 'A',
      party: '',
      description: '',
      commitment: '',
      uninstalled: false,
    };
    await act(database, TESTER, costs.postCosts, {
      asOf: '2031-05-31',
      lines: [
        { ...entry, costCode: '100', costType: 'labour', reference: 'T', hours: 302_500, amount: 99_000 },
        { ...entry, costCode: '200', costType: 'material', reference: 'D', hours: null, amount: 261_250 },
      ],
    });
    expect(await achieved(reading(database))).toEqual([]);
    await act(database, TESTER, moveJob, 'J2', { status: 'closing-out', on: '2031-06-30', reason: '' });
    // Budget 902.69 + 2,548.22 = 3,450.91 for 137.5 m2: 25.0975 (25.09753) a unit in 0.202 h; spent 3,602.50: 26.20 in 30.25 ÷ 137.5 = 0.22 h.
    expect(await achieved(reading(database))).toEqual([
      {
        buildUp: 'ROOF',
        job: 'J2',
        jobName: 'Tender only',
        quantity: 1_375_000,
        unit: 'm2',
        assumedCost: 250_975,
        achievedCost: 262_000,
        assumedHours: 2_020,
        achievedHours: 2_200,
      },
    ]);
  });
});
