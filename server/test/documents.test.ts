import { reading } from './act';
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inflateSync } from 'node:zlib';
import { parse } from 'csv-parse/sync';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { type Company, loadCompany } from '../company/company';
import { REPORTS, type ReportName } from '../reports/index';
import type { Report } from '../reportFiles/report';
import { cleanUp, faultsOf, folderText, temporaryDatabase } from './books';
import { unzipped } from './unzipped';
import { applicationDocument, applicationPdf } from '../billing/applicationPdf';
import { cellText, csvText, reportCsv } from '../reportFiles/reportCsv';
import { printedRows, readableCell, reportPdf } from '../reportFiles/reportPdf';
import { reportXlsx } from '../reportFiles/reportXlsx';

let database: Database;
let company: Company;
const AS_OF = '2031-04-30';

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, folderText('demo/book'))).toEqual([]);
  company = await loadCompany(reading(database));
});
afterAll(cleanUp);

const reportOf = (name: ReportName, more = {}): Promise<Report> => REPORTS[name](reading(database), { asOf: AS_OF, ...more });

/** How many pages a PDF has, and what its page contents draw, uncompressed. */
function pdfPages(pdf: Buffer): { pages: number; streams: string[] } {
  const text = pdf.toString('latin1');
  const streams: string[] = [];
  for (const match of text.matchAll(/stream\r?\n/g)) {
    const start = match.index + match[0].length;
    const part = pdf.subarray(start, text.indexOf('endstream', start));
    try {
      streams.push(inflateSync(part).toString('latin1'));
    } catch {
      // A stream that is not compressed, as of a font: nothing to read.
    }
  }
  return { pages: [...text.matchAll(/\/Type \/Page\b(?!s)/g)].length, streams };
}

/** Cells of a sheet that hold a number, by their place. */
function cellsOf(sheet: string): Map<string, { value: number; formula: string | null }> {
  const cells = [...sheet.matchAll(/<c r="([A-Z]+\d+)"[^>]*>(?:<f>([^<]*)<\/f>)?<v>(-?[\d.]+)<\/v>/g)];
  return new Map(cells.map(([, at, formula, value]) => [at!, { value: Number(value), formula: formula ?? null }]));
}

/** What a formula of ours comes to, from the values of the cells it names: sums, differences, shares, rounded. */
function calculated(formula: string, cells: ReturnType<typeof cellsOf>): number {
  const at = (name: string) => cells.get(name)?.value ?? 0;
  const rounded = (exact: number, places: string) => Number(exact.toFixed(Number(places)));
  const share = /^IF\((\w+)=0,0,ROUND\((\w+)\/\1,(\d)\)\)$/.exec(formula);
  if (share) return at(share[1]!) === 0 ? 0 : rounded(at(share[2]!) / at(share[1]!), share[3]!);
  const column = /^ROUND\(SUM\(([A-Z]+)2:\1(\d+)\),(\d)\)$/.exec(formula);
  if (column) {
    const rows = Array.from({ length: Number(column[2]) - 1 }, (_, i) => at(`${column[1]}${i + 2}`));
    return rounded(
      rows.reduce((sum, it) => sum + it, 0),
      column[3]!,
    );
  }
  const sum = /^(MAX\(0,)?ROUND\(([A-Z\d+-]+),(\d)\)\)?$/.exec(formula);
  if (!sum) throw new Error(`No formula of ours: ${formula}`);
  const exact = [...sum[2]!.matchAll(/([+-]?)([A-Z]+\d+)/g)].reduce(
    (all, [, sign, name]) => all + (sign === '-' ? -1 : 1) * at(name!),
    0,
  );
  return sum[1] ? Math.max(0, rounded(exact, sum[3]!)) : rounded(exact, sum[3]!);
}

/** The setting of an office program by which it calculates a workbook again when it opens it. */
const ALWAYS_CALCULATE = `<?xml version="1.0" encoding="UTF-8"?>
<oor:items xmlns:oor="http://openoffice.org/2001/registry"><item oor:path="/org.openoffice.Office.Calc/Formula/Load">
<prop oor:name="OOXMLRecalcMode" oor:op="fuse"><value>0</value></prop></item></oor:items>`;

describe('CSV', () => {
  test.each([
    ['amount', -1205, '-12.05'],
    ['amount', 0, '0.00'],
    ['percent', 333_333, '33.3333'],
    ['percent', 0, '0.0000'],
    ['hours', 125_000, '12.5'],
    ['hours', 0, '0'],
    ['text', 'as, it "is"', 'as, it "is"'],
    ['date', '2031-04-30', '2031-04-30'],
  ] as const)('%s %s is written %s', (kind, value, text) => expect(cellText({ kind }, value, 2)).toBe(text));

  test('quotes what needs it and nothing else', () => {
    expect(csvText([['a', 'b,c', 'd"e', 'f\ng', '']])).toBe('a,"b,c","d""e","f\ng",\n');
  });

  test('has a header and a row for each of the report', async () => {
    const report = await reportOf('ageing');
    const lines = reportCsv(report, 2).trimEnd().split('\n');
    expect(lines[0]).toBe(report.columns.map((it) => it.key).join(','));
    expect(lines.length).toBe(report.rows.length + 1);
  });
});

describe('a workbook', () => {
  test('holds amounts as numbers, to the penny, and per cents as shares', async () => {
    const report = await reportOf('wip');
    const sheet = unzipped(await reportXlsx(report, company))['xl/worksheets/sheet1.xml']!;
    const numbers = [...sheet.matchAll(/<v>(-?[\d.]+)<\/v>/g)].map((match) => match[1]);
    for (const row of report.rows) expect(numbers).toContain(String((row.contract_sum as number) / 100));
    expect(numbers).toContain(String((report.rows[0]!.estimated_margin_percent as number) / 1_000_000));
    expect(sheet.match(/<row /g)!.length).toBe(report.rows.length + 1);
  });

  test('has a filter, and formulas that come to the figures of the report where they are calculated again', async () => {
    const applications = { job: '2104', application: 14 };
    const counted: Record<string, number> = {};
    for (const [name, more] of [
      ['wip', {}],
      ['ageing', {}],
      ['trial-balance', {}],
      ['estimate-vs-actual', { job: '2104' }],
      ['application', applications],
    ] as const) {
      const report = await reportOf(name, more);
      const workbook = await reportXlsx(report, company);
      const cells = cellsOf(unzipped(workbook)['xl/worksheets/sheet1.xml']!);
      const formulas = [...cells].filter(([, it]) => it.formula !== null);
      for (const [at, it] of formulas) expect([at, calculated(it.formula!, cells)]).toEqual([at, it.value]);
      counted[name] = new Set(formulas.map(([at]) => at.replace(/\d+/, ''))).size;
      expect(unzipped(workbook)['xl/worksheets/sheet1.xml']).toContain(`</sheetData><autoFilter ref="A1:`);
    }
    // Columns with formulas: the totals of amounts and hours, and those that follow from others.
    expect(counted).toEqual({ wip: 12, ageing: 7, 'trial-balance': 2, 'estimate-vs-actual': 9, application: 8 });
  });

  const office = spawnSync('soffice', ['--version']).status === 0;
  (office ? test : test.skip)(
    'is calculated to the same by an office program (not proved where none is installed)',
    async () => {
      const report = await reportOf('wip');
      const folder = mkdtempSync(join(tmpdir(), 'ledrin-office-'));
      try {
        mkdirSync(join(folder, 'profile/user'), { recursive: true });
        writeFileSync(join(folder, 'profile/user/registrymodifications.xcu'), ALWAYS_CALCULATE);
        writeFileSync(join(folder, 'wip.xlsx'), await reportXlsx(report, company));
        const profile = `-env:UserInstallation=file://${join(folder, 'profile')}`;
        spawnSync('soffice', [profile, '--headless', '--convert-to', 'csv', '--outdir', folder, join(folder, 'wip.xlsx')]);
        const lines = parse(readFileSync(join(folder, 'wip.csv'), 'utf8')) as string[][];
        const amounts = report.columns.flatMap(({ key, kind }, column) => (kind === 'amount' ? [{ key, column }] : []));
        expect(
          lines.slice(1).map((line) => amounts.map(({ column }) => Math.round(Number(line[column]!.replaceAll(',', '')) * 100))),
        ).toEqual(report.rows.map((row) => amounts.map(({ key }) => row[key])));
      } finally {
        rmSync(folder, { recursive: true });
      }
    },
    120_000,
  );

  test.each(['ageing', 'trial-balance', 'tie-out', 'wip'] as const)('comes of %s', async (name) => {
    expect(Object.keys(unzipped(await reportXlsx(await reportOf(name), company)))).toContain('xl/workbook.xml');
  });
});

describe('a PDF', () => {
  test('of an application has a summary page and line pages', async () => {
    const { pages, streams } = pdfPages(await applicationPdf(await applicationDocument(reading(database), '2104', 14, true)));
    expect(pages).toBe(2);
    expect(streams.length).toBeGreaterThan(2);
  });

  test('of a long application repeats its heads over more pages', async () => {
    const long = await temporaryDatabase();
    const lines = Array.from({ length: 150 }, (_, i) => i + 1);
    const book = {
      company: 'name,currency\nLong Ltd,GBP\n',
      customers: 'customer,name\nC,Client\n',
      jobs: 'job,name,customer,awarded_on\nL1,Long,C,2031-01-01\n',
      schedule_of_values: `job,sov_line,description,scheduled_value\n${lines.map((n) => `L1,${n},Line ${n},12345678.90`).join('\n')}\n`,
      applications: 'job,application,dated,status\nL1,1,2031-01-31,submitted\n',
      application_lines: `job,application,sov_line,work_to_date\n${lines.map((n) => `L1,1,${n},1234567.89`).join('\n')}\n`,
    };
    expect(await faultsOf(long, book)).toEqual([]);
    expect(pdfPages(await applicationPdf(await applicationDocument(reading(long), 'L1', 1, false))).pages).toBeGreaterThan(4);
  });

  test('of an application that is not there is refused', async () => {
    await expect(applicationDocument(reading(database), '2104', 99, false)).rejects.toThrow(/no application 99/);
    await expect(applicationDocument(reading(database), '2117', 1, false)).rejects.toThrow(/tender/);
  });

  test.each(['wip', 'ageing', 'trial-balance', 'tie-out'] as const)('comes of %s', async (name) => {
    expect(pdfPages(await reportPdf(await reportOf(name), company, AS_OF)).pages).toBeGreaterThan(0);
  });

  test('of the ageing stands by client, by name, with what each owes', async () => {
    const report = await reportOf('ageing');
    const rows = printedRows(report);
    const total = (of: typeof rows) => of.reduce((sum, { row }) => sum + Number(row.total), 0);
    const clients = rows.filter(({ row, bold }) => bold && row.job === '' && row.customer !== 'TOTAL');
    expect(clients.map(({ row }) => row.customer)).toContain('Hollin & Threap Construction');
    expect(clients.map(({ row }) => row.customer)).not.toContain('HOLLIN');
    // Each once, over the rows it adds up; all of them are the total.
    expect(new Set(clients.map(({ row }) => row.customer)).size).toBe(clients.length);
    expect(total(clients)).toBe(report.rows.at(-1)?.total);
    expect(total(rows.filter(({ bold }) => !bold))).toBe(report.rows.at(-1)?.total);
  });

  test('writes cells as people read them', () => {
    const cell = (kind: 'amount' | 'percent' | 'hours' | 'date' | 'text', value: string | number) =>
      readableCell({ key: '', title: '', kind }, value, 2);
    expect([
      cell('amount', -123_456),
      cell('amount', 0),
      cell('percent', 125_000),
      cell('hours', 75_000),
      cell('date', '2031-04-30'),
      cell('text', 'x'),
    ]).toEqual(['−1,234.56', '–', '12.5', '7.5', '30 Apr 2031', 'x']);
  });
});
