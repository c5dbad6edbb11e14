import { afterAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { at } from '../../core/errors/known';
import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { cleanUp, faultsOf, SMALL_BOOK, temporaryDatabase } from '../test/books';
import { reading } from '../test/act';
import { insertCostEntries } from './costEntries';
import { recountCostTotals } from './costTotals';
import { CostEntryTable, CostLineTable, CostTotalTable } from './models';

afterAll(cleanUp);

test('totals to which entries are added, in any month, forwards and back, are those that are counted from all entries', async () => {
  const database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  const lines = await reading(database).find(CostLineTable, {}, ['id']);
  const [first] = await reading(database).all(
    query(shape({ posting: t.whole, last: t.whole }), 'SELECT max(posting_id) AS posting, max(id) AS last FROM cost_entry'),
  );
  const entry = fc.record({
    line: fc.nat(lines.length - 1),
    month: fc.integer({ min: 1, max: 12 }),
    year: fc.constantFrom(2030, 2031),
    amount: fc.integer({ min: -5000, max: 9000 }),
    hours: fc.option(fc.nat(800)),
  });
  const batches = fc.array(fc.array(entry, { minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 6 });
  let next = (first?.last ?? 0) + 1;
  await fc.assert(
    fc.asyncProperty(batches, async (all) => {
      await database.write(async (sql) => {
        for (const batch of all)
          await insertCostEntries(
            sql,
            batch.map(({ line, month, year, amount, hours }) => ({
              id: next++,
              posting_id: first?.posting ?? 0,
              job_id: at(lines, line).job_id,
              cost_line_id: at(lines, line).id,
              dated: `${year}-01-01`,
              posted_on: `${year}-${String(month).padStart(2, '0')}-15`,
              amount,
              hours,
              reference: 'R',
              party: '',
              description: '',
              uninstalled: 0,
            })),
          );
        const added = await sql.find(CostTotalTable, {}, ['cost_line_id', 'month']);
        await recountCostTotals(sql, [...new Set(lines.map((it) => it.job_id))]);
        expect(await sql.find(CostTotalTable, {}, ['cost_line_id', 'month'])).toEqual(added);
      });
    }),
    { numRuns: 40 },
  );
  // Two years of months on several lines: the property would prove little on a handful.
  expect((await reading(database).find(CostEntryTable, {})).length).toBeGreaterThan(200);
});
