import { dayIn } from '../core/calendar/dayIn';
import { existsSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { isPlainDate } from '../core/calendar/plainDate';
import { LedrinError } from '../core/errors/ledrinError';
import { BookRefused, faultLine } from '../core/errors/bookFaults';
import { writeBook } from './book/writeBook';
import { importBook } from './book/importBook';
import { storesOf } from './config';
import { runCommand } from './acts/command';
import { backUp, restore } from './db/backup';
import { troubleInWords } from './db/inWords';
import { openDatabase, type Database } from './db/database';
import { reportCsv } from './reportFiles/reportCsv';
import { usualAsOf, loadDigits } from './company/company';
import { isReportName, REPORTS } from './reports/index';

const USAGE = `Usage:
  ledrin import FOLDER --db FILE
  ledrin export FOLDER --db FILE
  ledrin backup FILE --db FILE       database, attachments and messages as one ZIP, while Ledrin serves
  ledrin restore BACKUP --db FILE
  ledrin report NAME --db FILE [--as-of DATE] [--from DATE] [--job JOB] [--application N]
Reports: ${Object.keys(REPORTS).join(', ')}`;

const COMMAND_LINE = () => ({ name: 'import-book', actor: { name: 'command line', at: new Date().toISOString() } });

const COMMANDS = ['import', 'export', 'report', 'backup', 'restore'];

const OPTIONS = {
  db: { type: 'string' },
  'as-of': { type: 'string' },
  from: { type: 'string' },
  job: { type: 'string' },
  application: { type: 'string' },
} as const;
type Options = { [K in keyof typeof OPTIONS]?: string };

/** Runs one command line; gives back the exit status. */
export async function runCommandLine(args: readonly string[]): Promise<number> {
  try {
    const { values, positionals } = parseArgs({ args: [...args], options: OPTIONS, allowPositionals: true });
    return await runLine(positionals, values);
  } catch (error) {
    if (error instanceof BookRefused) return fail(error.faults.map(faultLine).join('\n'));
    const trouble = troubleInWords(error);
    if (trouble !== null) return fail(trouble);
    return fail(error instanceof LedrinError ? error.message : error instanceof Error ? error.message : String(error));
  }
}

async function runLine([command, subject, ...rest]: readonly string[], options: Options): Promise<number> {
  if (!command || !subject || rest.length > 0 || !COMMANDS.includes(command)) return fail(USAGE);
  if (!options.db) return fail(`Name the database with --db FILE\n${USAGE}`);
  if (command !== 'import' && command !== 'restore' && !existsSync(options.db)) return fail(`There is no database ${options.db}`);
  const stores = storesOf(options.db, process.env);
  const passphrase = process.env.LEDRIN_BACKUP_PASSPHRASE || null;
  if (command === 'backup') return backUp(options.db, stores, subject, passphrase).then(() => 0);
  if (command === 'restore') return restore(subject, options.db, stores, passphrase).then(() => 0);
  const database = await openDatabase(options.db);
  try {
    if (command === 'import') await runCommand(database, COMMAND_LINE(), (it) => importBook(it, subject, stores));
    else if (command === 'export') {
      const left = await database.read((sql) => writeBook(sql, subject, stores));
      if (left.length > 0) process.stderr.write(`Not in the book: ${left.join('; ')}\n`);
    } else process.stdout.write(await reportText(database, subject, options));
    return 0;
  } finally {
    await database.close();
  }
}

async function reportText(database: Database, name: string, options: Options): Promise<string> {
  if (!isReportName(name))
    throw new LedrinError('bad-input', `There is no report ${name}; there are ${Object.keys(REPORTS).join(', ')}`);
  const { 'as-of': date, from, application } = options;
  if (from !== undefined && !isPlainDate(from))
    throw new LedrinError('bad-input', `--from ${from} is not a date; write it as 2031-04-01`);
  if (date !== undefined && !isPlainDate(date))
    throw new LedrinError('bad-input', `--as-of ${date} is not a date; write it as 2031-04-30`);
  if (application !== undefined && !/^\d{1,9}$/.test(application))
    throw new LedrinError('bad-input', `--application ${application} is not a number`);
  const today = dayIn(new Date(), '');
  return database.read(async (sql) => {
    const asOf = date ?? (await usualAsOf(sql, today));
    const number = application === undefined ? undefined : Number(application);
    const report = await REPORTS[name](sql, {
      asOf,
      job: options.job,
      application: number,
      ...(from === undefined ? {} : { from }),
    });
    return reportCsv(report, await loadDigits(sql));
  });
}

function fail(message: string): number {
  process.stderr.write(`${message}\n`);
  return 1;
}

process.exitCode = await runCommandLine(process.argv.slice(2));
