import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { act, reading } from '../test/act';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { writeBook } from './writeBook';
import type { Database } from '../db/database';
import { REPORTS, type ReportName } from '../reports/index';
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
  type BookText,
} from '../test/books';
import { startApplication } from '../billing/applications';
import { certifyApplication } from '../billing/certify';
import { exportedBook } from '../test/wholeBook';
import { importBook } from './importBook';
import { runs } from '../test/runs';

afterAll(cleanUp);

test('a byte order mark, CRLF, other columns first and files that are no CSV change nothing', async () => {
  const database = await temporaryDatabase();
  expect(
    await faultsOf(database, {
      ...SMALL_BOOK,
      company: '\ufeffcurrency,name\r\nGBP,A\r\n',
      'notes.txt': 'x',
      vendors: 'name,vendor\n\nPanel Supply,PANEL\n',
    }),
  ).toEqual([]);
});

test('an import adds: references resolve against the database, keys that are there are duplicates', async () => {
  const database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  expect(await faultsOf(database, { customers: SMALL_BOOK.customers! })).toEqual(['customers:2:customer']);
  expect(await faultsOf(database, { schedule_of_values: 'job,sov_line,description,scheduled_value\nJ1,9,Late,5.00\n' })).toEqual([
    'schedule_of_values:2:job',
  ]);
  expect(await faultsOf(database, { receipts: 'dated,job,application,amount\n2031-04-02,J1,2,1964.01\n' })).toEqual([
    'receipts:2:amount',
  ]);
  const more = {
    applications: 'job,application,dated,status\nJ1,4,2031-04-30,draft\n',
    application_lines: 'job,application,sov_line,work_to_date\nJ1,4,1,5500.00\nJ1,4,2,2000.00\nJ1,4,3,250.00\n',
    receipts: 'dated,job,application,amount\n2031-04-02,J1,2,1964.00\n',
    costs: 'dated,job,section,cost_code,cost_type,reference,amount\n2031-04-01,J1,A,100,labour,T9,10.00\n',
  };
  expect(await faultsOf(database, more)).toEqual([]);
  expect(await differences(database, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
});

/** Entries of a penny each, so many that several chunks of the file are read while others are saved. */
function manyCosts(rows: number, last: string): string {
  const lines = Array.from({ length: rows }, (_, i) => `2031-04-01,J1,A,100,labour,T${i},Crew ${'x'.repeat(60)},0.01`);
  return ['dated,job,section,cost_code,cost_type,reference,description,amount', ...lines, last, ''].join('\n');
}
const madeOf = (database: Database) =>
  reading(database).all(
    query(shape({ name: t.text, sql: t.text }), 'SELECT name, sql FROM sqlite_master WHERE sql IS NOT NULL ORDER BY name'),
  );
const costsIn = async (database: Database) =>
  (await reading(database).get(
    query(shape({ rows: t.whole, cents: t.cents }), 'SELECT count(*) AS rows, coalesce(sum(amount), 0) AS cents FROM cost_entry'),
  ))!;

test('rows that are being saved while the next are read: a fault in the last leaves all as it was, indexes too; without it all come in', async () => {
  const database = await temporaryDatabase();
  const before = await madeOf(database);
  expect(await faultsOf(database, { ...SMALL_BOOK, costs: manyCosts(9000, '2031-04-01,J1,A,100,labour,T,x,a penny') })).toEqual([
    'costs:9002:amount',
  ]);
  expect([await costsIn(database), await madeOf(database)]).toEqual([{ rows: 0, cents: 0 }, before]);
  expect(await faultsOf(database, { ...SMALL_BOOK, costs: manyCosts(9000, '2031-04-01,J1,A,100,labour,T,x,10.00') })).toEqual([]);
  // 9,000 pennies and 10.00.
  expect([await costsIn(database), await madeOf(database)]).toEqual([{ rows: 9001, cents: 10_000 }, before]);
  expect(await differences(database, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
});

test('what the engine refuses in the middle of the costs is thrown, and nothing of the book stays', async () => {
  const database = await temporaryDatabase();
  await database.write((sql) =>
    sql.run(
      `CREATE TRIGGER refused BEFORE INSERT ON cost_entry WHEN NEW.reference = 'T5000' BEGIN SELECT RAISE(ABORT, 'refused'); END`,
    ),
  );
  const before = await madeOf(database);
  const good = { ...SMALL_BOOK, costs: manyCosts(9000, '2031-04-01,J1,A,100,labour,T,x,10.00') };
  await expect(faultsOf(database, good)).rejects.toThrow('Validation error');
  expect([await costsIn(database), await madeOf(database)]).toEqual([{ rows: 0, cents: 0 }, before]);
  expect(await reading(database).all(query(shape({ number: t.text }), 'SELECT number FROM job'))).toEqual([]);
  await database.write((sql) => sql.run('DROP TRIGGER refused'));
  expect(await faultsOf(database, good)).toEqual([]);
});

/** Every report of a database, of every job and application. */
async function allReports(database: Database, asOf: string): Promise<Record<string, string[]>> {
  const reports: Record<string, string[]> = {};
  for (const name of Object.keys(REPORTS) as ReportName[])
    if (!['estimate-vs-actual', 'labour-progress', 'quantities', 'daywork', 'application', 'application-summary'].includes(name))
      reports[name] = await reportLines(database, name, asOf);
  for (const { number } of await reading(database).all(query(shape({ number: t.text }), 'SELECT number FROM job')))
    reports[`lines of ${number}`] = [
      ...(await reportLines(database, 'estimate-vs-actual', asOf, number)),
      ...(await reportLines(database, 'labour-progress', asOf, number)),
      ...(await reportLines(database, 'quantities', asOf, number)),
      ...(await reportLines(database, 'daywork', asOf, number)),
    ];
  for (const row of await reading(database).all(
    query(
      shape({ job: t.text, number: t.whole }),
      'SELECT job.number AS job, a.number FROM application a JOIN job ON job.id = a.job_id WHERE dated <= $1',
    ),
    [asOf],
  )) {
    reports[`${row.job}/${row.number}`] = [
      ...(await reportLines(database, 'application', asOf, row.job, row.number)),
      ...(await reportLines(database, 'application-summary', asOf, row.job, row.number)),
    ];
  }
  return reports;
}

async function exported(database: Database): Promise<BookText> {
  const folder = join(temporaryFolder(), 'out');
  await writeBook(reading(database), folder, besides(database));
  return folderText(folder);
}

describe('export and import are inverse', () => {
  test.each([
    ['the small book', SMALL_BOOK, ['2031-01-31', '2031-12-31']],
    ['the sample company', folderText('demo/book'), ['2030-09-17', '2031-04-30']],
  ] as const)(
    'for %s: the same files, the same reports',
    async (_, book, dates) => {
      const [first, second] = [await temporaryDatabase(), await temporaryDatabase()];
      expect(await faultsOf(first, book)).toEqual([]);
      const once = await exported(first);
      expect(await faultsOf(second, once)).toEqual([]);
      expect(await exported(second)).toEqual(once);
      for (const asOf of dates) expect(await allReports(second, asOf)).toEqual(await allReports(first, asOf));
    },
    60_000,
  );

  test('for costs of any kind', async () => {
    const day = fc.integer({ min: 1, max: 28 }).map((n) => `2031-03-${String(n).padStart(2, '0')}`);
    const text = fc.string({ unit: fc.constantFrom('a', '"', ',', '\n', 'ł', ' ', '=', '0') });
    const cost = fc
      .record({
        dated: day,
        amount: fc.integer({ min: -1e9, max: 1e9 }),
        hours: fc.option(fc.integer({ min: -1e6, max: 1e6 })),
        party: text,
        description: text,
        section: text,
        uninstalled: fc.boolean(),
      })
      // A cost with neither an amount nor hours is refused (core/costs/entryRefusals.ts).
      .filter((it) => it.amount !== 0 || !!it.hours);
    await fc.assert(
      fc.asyncProperty(fc.array(cost, { minLength: 1, maxLength: 12 }), async (costs) => {
        const quoted = (it: string) => `"${it.replaceAll('"', '""')}"`;
        const rows = costs.map((it) =>
          [
            it.dated,
            'J1',
            quoted(it.section),
            '100',
            'material',
            'R',
            quoted(it.party),
            quoted(it.description),
            it.hours === null ? '' : (it.hours / 10_000).toFixed(4),
            (it.amount / 100).toFixed(2),
            it.uninstalled ? 'yes' : '',
          ].join(','),
        );
        const [first, second] = [await temporaryDatabase(), await temporaryDatabase()];
        expect(
          await faultsOf(first, {
            ...SMALL_BOOK,
            costs: `dated,job,section,cost_code,cost_type,reference,party,description,hours,amount,uninstalled\n${rows.join('\n')}\n`,
          }),
        ).toEqual([]);
        const once = await exported(first);
        expect(await faultsOf(second, once)).toEqual([]);
        expect(await exported(second)).toEqual(once);
        expect(await differences(second, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
      }),
      { numRuns: runs(6) },
    );
  });
});

test('the monthly totals are the entries, as of any day', async () => {
  const database = await temporaryDatabase();
  expect(await faultsOf(database, folderText('demo/book'))).toEqual([]);
  const sql = reading(database);
  const { loadCostLines } = await import('../costs/costLineStates');
  const { costSubtotals } = await import('../costs/costSubtotals');
  for (const asOf of ['2029-11-30', '2030-02-28', '2030-07-13', '2031-04-30', '2031-04-02']) {
    const entries = new Map(
      (
        await sql.all(
          query(
            shape({ id: t.whole, cost: t.cents, hours: t.hours }),
            'SELECT cost_line_id AS id, sum(amount) AS cost, coalesce(sum(hours), 0) AS hours FROM cost_entry WHERE posted_on <= $1 GROUP BY 1',
          ),
          [asOf],
        )
      ).map((row) => [row.id, row]),
    );
    for (const by of ['job', 'section', 'code', 'type'] as const) {
      // A condition that holds for every entry keeps the second way from the monthly totals.
      expect(await costSubtotals(sql, { asOf, job: '2107' }, by)).toEqual(
        await costSubtotals(sql, { asOf, job: '2107', from: '1900-01-01' }, by),
      );
      expect(await costSubtotals(sql, { asOf, costType: 'labour' }, by)).toEqual(
        await costSubtotals(sql, { asOf, costType: 'labour', from: '1900-01-01' }, by),
      );
    }
    for (const line of await loadCostLines(sql, asOf, null))
      expect([line.id, line.cost, line.hours]).toEqual([
        line.id,
        entries.get(line.id)?.cost ?? 0,
        entries.get(line.id)?.hours ?? 0,
      ]);
  }
});

test('a folder that is not there is told', async () => {
  const database = await temporaryDatabase();
  await expect(act(database, TESTER, importBook, '/nowhere/at/all', besides(database))).rejects.toThrow(/no folder/);
  expect(existsSync('/nowhere')).toBe(false);
});

test('a book goes out in the same order whatever order its applications were started in', async () => {
  const database = await temporaryDatabase();
  const two = {
    ...SMALL_BOOK,
    jobs: `${SMALL_BOOK.jobs}J3,Shed,NORTH,on-site,2031-01-05,5,20\n`,
    schedule_of_values: `${SMALL_BOOK.schedule_of_values}J3,1,,All,100.00\n`,
    applications: `${SMALL_BOOK.applications}J3,1,2031-02-28,draft,\n`,
    application_lines: `${SMALL_BOOK.application_lines}J3,1,1,50.00,,\n`,
  };
  expect(await faultsOf(database, two)).toEqual([]);
  await act(database, TESTER, certifyApplication, 'J1', 3, { version: null, on: '2031-04-05', lines: [] });
  await act(database, TESTER, startApplication, 'J1', { dated: '2031-04-30', reference: '', bySchedule: false });
  const out = await exportedBook(database);
  expect(out['applications.csv']!.split('\n').map((it) => it.split(',').slice(0, 2).join(' '))).toEqual([
    ...['job application', 'J1 1', 'J1 2', 'J1 3', 'J1 4', 'J3 1', ''],
  ]);
  const copy = await temporaryDatabase();
  expect(await faultsOf(copy, out)).toEqual([]);
  expect(await exportedBook(copy)).toEqual(out);
});
