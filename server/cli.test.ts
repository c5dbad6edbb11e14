import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { cleanUp, folderText, SMALL_BOOK, temporaryFolder, writeBookText } from './test/books';

/** Runs the command line in a process of its own, as a person or a script would. */
function ledrin(...args: string[]): { status: number | null; out: string; err: string[] } {
  const run = spawnSync(process.execPath, ['dist/server/cli.mjs', ...args], { encoding: 'utf8' });
  return {
    status: run.status,
    out: run.stdout,
    err: run.stderr.split('\n').filter((line) => line !== '' && !line.includes('Warning')),
  };
}

let file: string;

beforeAll(() => {
  file = join(temporaryFolder(), 'new', 'books.sqlite');
  expect(ledrin('import', writeBookText(SMALL_BOOK), '--db', file)).toEqual({ status: 0, out: '', err: [] });
});
afterAll(cleanUp);

describe('report', () => {
  test('without a date is as of the last day of the newest month with entries: the receipt of March', () => {
    const without = ledrin('report', 'trial-balance', '--db', file);
    expect(without.status).toBe(0);
    expect(without.out).toBe(ledrin('report', 'trial-balance', '--db', file, '--as-of', '2031-03-31').out);
    expect(without.out).not.toBe(ledrin('report', 'trial-balance', '--db', file, '--as-of', '2031-02-28').out);
  });

  test.each([
    [
      'wip',
      [],
      'job,name,contract_sum,estimated_cost,estimated_profit,estimated_margin_percent,cost_to_date,percent_complete,earned_revenue,profit_to_date,billed_to_date,overbilled,underbilled,backlog,loss_provision',
    ],
    [
      'estimate-vs-actual',
      ['--job', 'J1'],
      'section,cost_code,cost_type,original,changes,revised,actual,committed,estimate_at_completion,variance,hours_budgeted,hours_actual,budgeted',
    ],
    [
      'application',
      ['--job', 'J1', '--application', '1'],
      'sov_line,section,description,scheduled_value,previous,this_period,materials_on_site,to_date,percent,balance,retention',
    ],
    ['application-summary', ['--job', 'J1', '--application', '1'], 'item,amount'],
    [
      'ageing',
      [],
      'customer,job,application,dated,due_on,not_due,days_1_30,days_31_60,days_61_90,days_over_90,retention_held,total',
    ],
    ['trial-balance', [], 'account,name,debit,credit'],
    ['tie-out', [], 'check,subledger,ledger,difference'],
  ])('%s has the columns of the format, in their order', (name, more, header) => {
    const { status, out, err } = ledrin('report', name, '--db', file, ...more);
    expect([status, err, out.split('\n')[0]]).toEqual([0, [], header]);
  });

  test('the columns of the format stand in its page as well', () => {
    const page = readFileSync('docs/book.md', 'utf8');
    for (const name of ['wip', 'estimate-vs-actual', 'application', 'application-summary', 'ageing', 'trial-balance', 'tie-out'])
      expect(page).toContain(`\`${name}\``);
  });

  test.each([
    [['report', 'wip', '--job', 'J9'], /^There is no job J9$/],
    [['report', 'wip', '--job', 'J2'], /tender; it has no contract yet$/],
    [
      ['report', 'application', '--job', 'J1', '--application', '3', '--as-of', '2031-03-30'],
      /^Job J1 has no application 3 by 2031-03-30$/,
    ],
    [['report', 'estimate-vs-actual'], /name it with --job$/],
    [['report', 'application', '--job', 'J1'], /--application$/],
    [['report', 'wip', '--as-of', '31.3.2031'], /--as-of 31\.3\.2031 is not a date/],
    [['report', 'application', '--job', 'J1', '--application', 'two'], /--application two is not a number/],
    [['report', 'balance-sheet'], /^There is no report balance-sheet; there are wip/],
  ])('%j exits with 1 and one line that says why', (args, message) => {
    const { status, out, err } = ledrin(...args, '--db', file);
    expect([status, out, err.length]).toEqual([1, '', 1]);
    expect(err[0]).toMatch(message);
  });
});

describe('import', () => {
  test('lists every fault on standard error, exits with 1, and leaves the database as it was', () => {
    const before = ledrin('report', 'trial-balance', '--db', file).out;
    const { status, out, err } = ledrin(
      'import',
      writeBookText({
        costs: 'dated,job,cost_code,cost_type,reference,amount\n2031-03-01,J1,100,labour,T,1.005\nx,J1,100,labour,T,5\n',
        odd: 'a\n',
      }),
      '--db',
      file,
    );
    expect([status, out]).toEqual([1, '']);
    expect(err.map((line) => /^[a-z_]+\.csv:\d+: [a-z_]*: ./.test(line) || /^odd\.csv:1: : ./.test(line))).toEqual([
      true,
      true,
      true,
    ]);
    expect(err.map((line) => line.split(': ').slice(0, 2).join('|'))).toEqual([
      'costs.csv:2|amount',
      'costs.csv:3|dated',
      'odd.csv:1|',
    ]);
    expect(ledrin('report', 'trial-balance', '--db', file).out).toBe(before);
  });

  test('a folder that is not there, or no folder, is told', () => {
    expect(ledrin('import', join(temporaryFolder(), 'none'), '--db', file).err[0]).toMatch(/There is no folder/);
    expect(ledrin('import', '--db', file).status).toBe(1);
  });
});

describe('export', () => {
  test('writes a book that imports into an empty database and gives the same reports', () => {
    const folder = join(temporaryFolder(), 'out');
    expect(ledrin('export', folder, '--db', file)).toEqual({
      status: 0,
      out: '',
      err: ['Not in the book: the record of who did what (1)'],
    });
    expect(Object.keys(folderText(folder))).toContain('application_lines.csv');
    const second = join(temporaryFolder(), 'second.sqlite');
    expect(ledrin('import', folder, '--db', second).status).toBe(0);
    for (const report of ['wip', 'ageing', 'trial-balance', 'tie-out'])
      expect(ledrin('report', report, '--db', second).out).toBe(ledrin('report', report, '--db', file).out);
  });

  test('a database that is not there is not made', () => {
    const missing = join(temporaryFolder(), 'missing.sqlite');
    expect(ledrin('export', temporaryFolder(), '--db', missing).status).toBe(1);
    expect(existsSync(missing)).toBe(false);
  });
});

test.each([[[]], [['report', 'wip']], [['frobnicate', 'x', '--db', 'y']], [['report', 'wip', '--db', 'y', '--colour']]])(
  '%j shows how it is used',
  (args) => {
    const { status, err } = ledrin(...args);
    expect(status).toBe(1);
    expect(err.length).toBeGreaterThan(0);
  },
);

test('a file that is no database is told, and not written over', () => {
  const text = join(temporaryFolder(), 'text.sqlite');
  writeFileSync(text, 'this is no database, and is longer than a header of one would be, to be sure of it\n'.repeat(20));
  const before = readFileSync(text, 'utf8');
  const { status, err } = ledrin('report', 'wip', '--db', text);
  expect([status, err.length > 0]).toEqual([1, true]);
  expect(readFileSync(text, 'utf8')).toBe(before);
});
