import { reading } from '../test/act';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { COST_TYPES } from '../../core/costs/costType';
import type { Database } from '../db/database';
import { cleanUp, faultsOf, folderText, temporaryDatabase } from '../test/books';
import type { CostRow } from '../../wire/costs';
import { COST_SORTS, SUBTOTALS } from '../../wire/costs';
import { costLedgerPage, costTotals } from './costLedger';
import type { CostLedgerFilter } from './ledgerQueries';
import { costSubtotals } from './costSubtotals';
import { runs } from '../test/runs';

let database: Database;
let all: CostRow[];
const LATEST = '2031-12-31';

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, folderText('demo/book'))).toEqual([]);
  all = (await costLedgerPage(reading(database), { asOf: LATEST, limit: 100_000 })).rows;
});
afterAll(cleanUp);

const page = (filter: Partial<CostLedgerFilter>) =>
  costLedgerPage(reading(database), { asOf: LATEST, limit: 100_000, ...filter });
const total = (rows: readonly CostRow[]) => rows.reduce((sum, row) => sum + row.amount, 0);

/** What a filter means, said again in plain terms. */
function matches(row: CostRow, filter: Partial<CostLedgerFilter>): boolean {
  const text = `${row.reference} ${row.party} ${row.description}`.toLowerCase();
  return (
    row.dated <= (filter.asOf ?? LATEST) &&
    (!filter.from || row.dated >= filter.from) &&
    (!filter.to || row.dated <= filter.to) &&
    (!filter.job || row.job === filter.job) &&
    (filter.section === undefined || row.section === filter.section) &&
    (!filter.costCode || row.costCode === filter.costCode) &&
    (!filter.costType || row.costType === filter.costType) &&
    (!filter.party || row.party === filter.party) &&
    (!filter.search || text.includes(filter.search.toLowerCase())) &&
    (!filter.commitment || row.commitment === filter.commitment) &&
    (!filter.ids || filter.ids.includes(row.id))
  );
}

const filters: fc.Arbitrary<Partial<CostLedgerFilter>> = fc.record(
  {
    asOf: fc.constantFrom('2030-03-31', '2030-09-15', '2031-04-30'),
    from: fc.constantFrom('2030-01-01', '2031-04-01'),
    to: fc.constantFrom('2030-12-31', '2031-04-10'),
    job: fc.constantFrom('2104', '2107', '2110'),
    section: fc.constantFrom('', 'Atrium', 'Sports hall'),
    costCode: fc.constantFrom('0310', '0440', '0700'),
    costType: fc.constantFrom(...COST_TYPES),
    party: fc.constantFrom('GLIMMER', 'Crew Dray'),
    search: fc.constantFrom('glass', 'TS-30', 'lass un', '%', '_', "'", 'DN-4', 'no such words', '"gla'),
    ids: fc.constant([3, 40, 700]),
    sort: fc.constantFrom(...COST_SORTS),
    descending: fc.boolean(),
  },
  { requiredKeys: [] },
);

describe('the cost ledger', () => {
  test('holds every entry of the book', () => {
    const book = folderText('demo/book');
    const costs = book['costs.csv']!.trim().split('\n').length - 1;
    // Each posted line of time on a job is its pay and its burden; the sample's time stands as it was cut.
    const time = book['time.csv']!.split('\n').filter(
      (it) => /,\d{4}-\d\d-\d\d,,2\d{3},/.test(it) && !/,(submitted|approved),/.test(it),
    );
    expect(all.length).toBe(costs + 2 * time.length);
  });

  test('gives what any filter asks for, with its totals, however it is sorted', async () => {
    await fc.assert(
      fc.asyncProperty(filters, async (filter) => {
        const { rows } = await page(filter);
        const { count, amount, hours } = await costTotals(reading(database), { asOf: LATEST, ...filter });
        const expected = all.filter((row) => matches(row, filter));
        expect(rows.map((row) => row.id).sort()).toEqual(expected.map((row) => row.id).sort());
        expect([count, amount, hours]).toEqual([
          expected.length,
          total(expected),
          expected.reduce((sum, row) => sum + (row.hours ?? 0), 0),
        ]);
      }),
      { numRuns: runs(30) },
    );
  });

  test.each<[CostLedgerFilter['sort'], (row: CostRow) => string | number]>([
    ['dated', (row: CostRow) => row.dated],
    ['amount', (row: CostRow) => row.amount],
    ['party', (row: CostRow) => row.party],
  ])('is sorted by %s, both ways', async (sort, value) => {
    const ascending = (await page({ sort, job: '2107' })).rows.map(value);
    expect(ascending).toEqual([...ascending].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0)));
    const descending = (await page({ sort, job: '2107', descending: true })).rows.map(value);
    expect(descending).toEqual([...ascending].reverse());
  });

  test('pages join without a gap and without a row twice', async () => {
    for (const [sort, descending] of [
      ['amount', false],
      ['job', true],
      ['cost-code', false],
    ] as const) {
      const whole = (await page({ sort, descending })).rows;
      const jumped: CostRow[] = [];
      for (let offset = 0; offset < all.length; offset += 137)
        jumped.push(...(await page({ sort, descending, offset, limit: 137 })).rows);
      expect(jumped).toEqual(whole);
      const readOn: CostRow[] = [];
      for (let next: string | null = '[]'; next !== null;) {
        const after = JSON.parse(next) as (string | number)[];
        const reply = await page({ sort, descending, limit: 137, ...(after.length > 0 && { after }) });
        readOn.push(...reply.rows);
        ({ next } = reply);
      }
      expect(readOn).toEqual(whole);
    }
  });

  test('of a job or code that is not there is empty', async () => {
    for (const filter of [{ job: 'none' }, { costCode: "0310' OR 1" }]) {
      expect(await page(filter)).toEqual({ rows: [], next: null });
      expect(await costTotals(reading(database), { asOf: LATEST, ...filter })).toEqual({ count: 0, amount: 0, hours: 0 });
    }
  });

  test('a page that begins in another order is refused', async () => {
    await expect(page({ sort: 'amount', after: ['2031-01-01', '2', 3] })).rejects.toMatchObject({ faults: [{ field: 'after' }] });
  });
});

describe('subtotals', () => {
  test('of any filter and by any column add up to the ledger', async () => {
    await fc.assert(
      fc.asyncProperty(filters, fc.constantFrom(...SUBTOTALS), async (filter, by) => {
        const groups = await costSubtotals(reading(database), { asOf: LATEST, ...filter }, by);
        const expected = all.filter((row) => matches(row, filter));
        expect(groups.reduce((sum, it) => sum + it.amount, 0)).toBe(total(expected));
        expect(groups.reduce((sum, it) => sum + it.count, 0)).toBe(expected.length);
        expect(new Set(groups.map((it) => it.key)).size).toBe(groups.length);
      }),
      { numRuns: runs(30) },
    );
  });

  test('each group is what its key says', async () => {
    const groups = await costSubtotals(reading(database), { asOf: '2031-04-30', job: '2110' }, 'type');
    for (const { key, amount } of groups)
      expect([key, amount]).toEqual([key, total(all.filter((row) => row.job === '2110' && row.costType === key))]);
    const months = await costSubtotals(reading(database), { asOf: '2031-04-30', job: '2110' }, 'month');
    for (const { key, amount } of months)
      expect([key, amount]).toEqual([key, total(all.filter((row) => row.job === '2110' && row.dated.startsWith(key)))]);
  });
});
