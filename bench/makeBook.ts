import { createWriteStream, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { join } from 'node:path';
import { addMonths, lastDay } from '../core/calendar/plainDate';
import { COST_TYPES } from '../core/costs/costType';
import { BOOK_FILES } from '../server/book/bookFiles';

export const JOBS = 1000;
export const COST_ROWS = 1_000_000;
export const FIRST_MONTH = '2029-01';
export const MONTHS = 24;
/** The job that has twenty times the cost of any other. */
export const LARGEST_JOB = 'J0001';

const LINES_A_JOB = 40;
const SOV_A_JOB = 12;

/** Writes the book of 1,000 jobs and 1,000,000 cost rows into `folder`, once; a finished one is saved for as long as the format is the same. */
export async function makeBook(folder: string): Promise<void> {
  const mark = join(folder, 'complete');
  const format = JSON.stringify(BOOK_FILES.map(({ name, columns }) => [name, Object.keys(columns)]));
  if (existsSync(mark) && readFileSync(mark, 'utf8') === format) return;
  rmSync(mark, { force: true });
  mkdirSync(folder, { recursive: true });
  await write(folder, 'company', [['Bench Ltd', 'GBP', 'VAT', '20', '1', '']]);
  await write(
    folder,
    'customers',
    range(20).map((i) => [`C${i}`, `Client ${i}`, '', '', '', '', '30']),
  );
  await write(
    folder,
    'vendors',
    range(20).map((i) => [`V${i}`, `Vendor ${i}`, 'supplier', '', '', '', '', '30']),
  );
  await write(
    folder,
    'cost_codes',
    range(20).map((i) => [code(i), `Code ${i}`, '']),
  );
  await write(
    folder,
    'jobs',
    range(JOBS).map((i) => [
      job(i),
      `Bench job ${i}`,
      `C${i % 20}`,
      '',
      'on-site',
      `${FIRST_MONTH}-01`,
      '',
      '',
      '',
      `Manager ${i % 8}`,
      '',
      'cost-to-cost',
      '5',
      '',
      '',
      '',
      '',
      '',
      '20',
      '',
    ]),
  );
  await write(
    folder,
    'schedule_of_values',
    range(JOBS).flatMap((i) =>
      range(SOV_A_JOB).map((s) => [job(i), String(s + 1), '', `Line ${s + 1}`, '100000.00', '', '', '']),
    ),
  );
  await write(
    folder,
    'budget',
    range(JOBS).flatMap((i) =>
      range(LINES_A_JOB).map((l) => [
        job(i),
        section(l),
        code(l % 20),
        costType(l),
        '',
        '',
        '',
        '',
        l % 5 === 0 ? '500' : '',
        '24000.00',
      ]),
    ),
  );
  await write(
    folder,
    'commitments',
    range(JOBS).flatMap((i) =>
      range(3).map((c) => [
        `PO${i}-${c}`,
        'purchase-order',
        `V${i % 20}`,
        `${FIRST_MONTH}-05`,
        job(i),
        '1',
        section(c + 1),
        code(c + 1),
        costType(c + 1),
        '',
        '',
        '',
        '30000.00',
        '',
        '',
      ]),
    ),
  );
  await write(
    folder,
    'applications',
    range(JOBS).flatMap((i) =>
      range(12).map((a) => [job(i), String(a + 1), lastDay(addMonths(FIRST_MONTH, a * 2)), 'certified', '', '']),
    ),
  );
  await write(
    folder,
    'application_lines',
    range(JOBS).flatMap((i) =>
      range(12).flatMap((a) =>
        range(SOV_A_JOB).map((s) => [job(i), String(a + 1), String(s + 1), `${(a + 1) * 7000 + (i % 13) * 100}.00`, '', '', '']),
      ),
    ),
  );
  await write(
    folder,
    'receipts',
    range(JOBS).flatMap((i) =>
      range(10).map((a) => [
        lastDay(addMonths(FIRST_MONTH, a * 2 + 1)),
        job(i),
        String(a + 1),
        ((a === 0 ? 7000 + (i % 13) * 100 : 7000) * 12 * 1.14).toFixed(2),
        '',
      ]),
    ),
  );
  await write(
    folder,
    'forecasts',
    range(JOBS).flatMap((i) =>
      range(4).map((f) => [job(i), lastDay(addMonths(FIRST_MONTH, 20)), section(f), code(f), costType(f), 'percent', '80', '']),
    ),
  );
  await writeCosts(folder);
  writeFileSync(mark, format);
}

const range = (count: number) => Array.from({ length: count }, (_, i) => i);
const job = (i: number) => `J${String(i + 1).padStart(4, '0')}`;
const code = (i: number) => String(1000 + i * 10);
const costType = (n: number) => COST_TYPES[n % COST_TYPES.length] ?? 'other';
const section = (line: number) => (line < 20 ? 'North' : 'South');

async function write(folder: string, file: string, rows: readonly (readonly string[])[]): Promise<void> {
  const header = headerOf(file);
  // Rows name the first columns; what came later into the format is left empty.
  const text = [header, ...rows].map((row) => [...row, ...header.slice(row.length).map(() => '')].join(',')).join('\n');
  writeFileSync(join(folder, `${file}.csv`), `${text}\n`);
}

async function writeCosts(folder: string): Promise<void> {
  const out = createWriteStream(join(folder, 'costs.csv'));
  const header = headerOf('costs');
  out.write(`${header.join(',')}\n`);
  const largest = 20 * (COST_ROWS / (JOBS + 19));
  for (let n = 0; n < COST_ROWS; n++) {
    const i = n < largest ? 0 : n % JOBS;
    const line = (n * 7 + Math.floor(n / JOBS)) % LINES_A_JOB;
    const month = addMonths(FIRST_MONTH, Math.floor((n / COST_ROWS) * 977) % MONTHS);
    const day = String(1 + (n % 28)).padStart(2, '0');
    const committed = line >= 1 && line <= 3 && n % 3 === 0 ? `PO${i}-${line - 1},1` : ',';
    const text = `${month}-${day},${job(i)},${section(line)},${code(line % 20)},${costType(line)},R${n},V${n % 20},Bench entry ${n},,${line % 5 === 0 ? 4 : ''},${500 + (n % 997)}.${10 + (n % 90)},${committed}`;
    // Rows give the first thirteen columns; what the format has beyond them is left empty.
    if (!out.write(`${text}${','.repeat(header.length - 13)}\n`)) await once(out, 'drain');
  }
  out.end();
  await once(out, 'finish');
}

export function headerOf(file: string): string[] {
  return Object.keys(BOOK_FILES.find((it) => it.name === file)?.columns ?? {});
}
