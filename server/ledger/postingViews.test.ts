import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { present } from '../../core/errors/known';
import type { Database } from '../db/database';
import { reading } from '../test/act';
import { cleanUp, databaseOf, folderText, SMALL_BOOK } from '../test/books';
import { postingList, postingView } from './postingViews';

let small: Database;
let demo: Database;

beforeAll(async () => {
  [small, demo] = [await databaseOf(SMALL_BOOK), await databaseOf(folderText('demo/book'))];
});
afterAll(cleanUp);

describe('postings', () => {
  test('are listed newest first, of a job or of all, as of the date', async () => {
    const { postings, count } = await postingList(reading(small), { asOf: '2031-02-28' });
    expect(postings.map((it) => [it.kind, it.dated])).toEqual([
      ['application', '2031-02-28'],
      ['receipt', '2031-02-20'],
      ['application', '2031-02-05'],
      ['opening-cost', '2031-01-15'],
    ]);
    expect(count).toBe(4);
    expect((await postingList(reading(small), { asOf: '2031-02-28', job: 'J2' })).count).toBe(0);
    // Opening cost is of no one job, and is found on each job it has entries of.
    expect((await postingList(reading(small), { asOf: '2031-02-28', job: 'J1' })).count).toBe(4);
  });

  test('are sorted by what they debit, page by page without a gap, and refuse a page of another order', async () => {
    const sql = reading(demo);
    const totals: number[] = [];
    for (let before: string | undefined; ;) {
      const page = await postingList(sql, { asOf: '2031-04-30', sort: 'total', ...(before === undefined ? {} : { before }) });
      totals.push(...page.postings.map((it) => it.total));
      if (page.next === null) break;
      before = page.next;
    }
    const all = await postingList(sql, { asOf: '2031-04-30' });
    expect([totals.length, totals]).toEqual([all.count, totals.toSorted((a, b) => b - a)]);
    const up = await postingList(sql, { asOf: '2031-04-30', sort: 'id', ascending: 'yes' });
    expect(up.postings.slice(0, 3).map((it) => it.id)).toEqual([1, 2, 3]);
    const other = postingList(sql, { asOf: '2031-04-30', sort: 'total', before: present(all.next) });
    await expect(other).rejects.toThrow('expected where a page of this order begins');
  });

  test('show journals that balance, and whether they can be reversed', async () => {
    for (const { id, kind } of (await postingList(reading(small), { asOf: '2031-12-31' })).postings) {
      const view = await postingView(reading(small), id);
      for (const journal of view.journals) expect(journal.lines.reduce((sum, it) => sum + it.debit - it.credit, 0)).toBe(0);
      expect([kind, view.fixed === null]).toEqual([kind, kind !== 'application']);
      // Money names what it came in on; nothing else does.
      expect([kind, view.receivedOn?.kind]).toEqual([kind, kind === 'receipt' ? 'application' : undefined]);
    }
  });
});
