import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { act, reading } from '../test/act';
import { afterAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { groupsBy } from '../../core/estimates/award';
import { COST_TYPES } from '../../core/costs/costType';
import { estimateList, estimateView } from './estimateViews';
import { priceListView } from '../prices/priceList';
import { PriceList, unitCostOfShares } from '../../core/prices/buildUp';
import { cleanUp, differences, faultsOf, reportLines, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { sum, written } from '../test/exact';
import { bookText } from '../test/randomBook';
import type { Rows } from '../test/secondCalculation';
import { TenderReckoner } from '../test/secondTenderCalculation';
import { awardJob } from './award';
import { runs } from '../test/runs';

afterAll(cleanUp);

const decimals = (low: number, high: number, places: number) =>
  fc.integer({ min: low, max: high }).map((n) => (n / 10 ** places).toFixed(places));
const maybe = (it: fc.Arbitrary<string>) => fc.oneof(fc.constant(''), it);
const percent = decimals(0, 600_000, 4);
const type = fc.constantFrom(...COST_TYPES);
const code = fc.constantFrom('100', '200', '900');

/** Books with a price list of nested build-ups and one estimate on the tender J2. */
const tender = fc
  .record({
    items: fc.array(
      fc.record({ cost_type: type, cost_code: code, unit_cost: decimals(0, 9_999_999, 4), markup_percent: maybe(percent) }),
      { minLength: 2, maxLength: 5 },
    ),
    buildUps: fc.array(
      fc.array(fc.record({ pick: fc.nat(9), quantity: decimals(0, 99_999, 4), waste_percent: maybe(decimals(0, 400_000, 4)) }), {
        minLength: 1,
        maxLength: 4,
      }),
      { minLength: 1, maxLength: 4 },
    ),
    markups: fc.record({ labour: maybe(percent), material: maybe(percent), A: maybe(percent) }),
    lines: fc.array(
      fc.record({
        section: fc.constantFrom('', 'A', 'B'),
        quantity: decimals(1, 9_999_999, 4),
        pick: fc.nat(5),
        markup_percent: maybe(percent),
        parts: fc.array(
          fc.record({
            cost_code: code,
            cost_type: type,
            basis: fc.constantFrom('', 'per-unit', 'in-all'),
            quantity: decimals(0, 99_999, 4),
            unit_cost: decimals(0, 999_999, 4),
            markup_percent: maybe(percent),
          }),
          { maxLength: 2 },
        ),
      }),
      { minLength: 1, maxLength: 6 },
    ),
    overhead_percent: maybe(percent),
    profit_percent: maybe(percent),
    rounding: decimals(-500, 500, 2),
    agreed: decimals(1, 99_999_999, 2),
  })
  .map(({ items, buildUps, markups, lines, agreed, ...rates }): { rows: Rows; agreed: string } => ({
    agreed,
    rows: {
      price_items: items.map((it, i) => ({ price_item: `I${i}`, description: 'x', ...it })),
      build_ups: buildUps.map((_, i) => ({ build_up: `B${i}`, description: 'x' })),
      // A build-up may hold those made before it, so that none is made of itself.
      build_up_components: buildUps.flatMap((list, i) =>
        list.map(({ pick, ...it }) =>
          pick < i
            ? { build_up: `B${i}`, component: `B${pick}`, ...it }
            : { build_up: `B${i}`, price_item: `I${pick % items.length}`, ...it },
        ),
      ),
      estimates: [{ job: 'J2', estimate: '1', name: 'E', ...rates }],
      estimate_markups: Object.entries(markups)
        .filter(([, rate]) => rate !== '')
        .map(([name, rate]) => ({
          job: 'J2',
          estimate: '1',
          [name === 'A' ? 'section' : 'cost_type']: name,
          markup_percent: rate,
        })),
      estimate_lines: lines.map(({ pick, parts: _, ...it }, i) => ({
        job: 'J2',
        estimate: '1',
        estimate_line: String(i + 1),
        description: 'x',
        ...it,
        build_up: pick < buildUps.length ? `B${pick}` : '',
      })),
      estimate_parts: lines.flatMap(({ parts }, i) =>
        parts.map((it) => ({ job: 'J2', estimate: '1', estimate_line: String(i + 1), ...it })),
      ),
    },
  }));

test('random tenders are priced and awarded, to the penny, as a second reckoning of the rules does it', async () => {
  await fc.assert(
    fc.asyncProperty(tender, async ({ rows, agreed }) => {
      const database = await temporaryDatabase();
      try {
        expect(await faultsOf(database, { ...SMALL_BOOK, ...bookText(rows) })).toEqual([]);
        const reckoner = new TenderReckoner(rows);
        const sql = reading(database);
        const book = await priceListView(sql);
        const prices = new PriceList(book.items, book.buildUps);
        for (const { build_up: name } of rows.build_ups!)
          expect([name, (unitCostOfShares(prices.unitShares(name!)) / 10_000).toFixed(4)]).toEqual([
            name,
            written(sum(reckoner.shares(name!).map((it) => it.cost)), 4),
          ]);
        const { cost, price } = reckoner.totals('1');
        const [row] = await estimateList(sql, 'J2');
        expect([(row!.cost / 100).toFixed(2), (row!.price / 100).toFixed(2)]).toEqual([written(cost), written(price)]);
        const { lines } = await estimateView(sql, 'J2', 1);
        const groups = groupsBy('line', lines).map((it) => ({ ...it, members: [...it.members] }));
        await act(database, TESTER, awardJob, 'J2', 1, {
          acceptedOn: '2031-04-20',
          acceptance: 'x',
          agreed: Math.round(Number(agreed) * 100),
          groups,
        });
        const sov = await sql.all(
          query(
            shape({ value: t.cents }),
            `SELECT scheduled_value AS value FROM sov_line WHERE job_id = (SELECT id FROM job WHERE number = 'J2') ORDER BY position`,
          ),
        );
        expect(sov.map((it) => (it.value / 100).toFixed(2))).toEqual(reckoner.award('1', agreed));
        const report = (await reportLines(database, 'estimate-vs-actual', '2031-04-30', 'J2'))
          .slice(0, -1)
          .map((line) => line.split(','));
        const budget = [...reckoner.budget('1')].map(([key, it]) => [
          ...key.split('|'),
          written(it.cost),
          Number(written(it.hours, 4)),
        ]);
        expect(report.map((it) => [it[0], it[1], it[2], it[3], Number(it[10])]).sort()).toEqual(budget.sort());
        expect(await differences(database, '2031-04-30')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
      } finally {
        await database.close();
      }
    }),
    { numRuns: runs(20), endOnFailure: true },
  );
}, 900_000);
