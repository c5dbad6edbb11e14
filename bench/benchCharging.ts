import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { addDays } from '../core/calendar/plainDate';
import { runCommand } from '../server/acts/command';
import { importBook } from '../server/book/importBook';
import { openDatabase, type Database } from '../server/db/database';
import { JournalLineTable } from '../server/ledger/models';
import { DayworkInvoiceTable, DayworkLineTable } from '../server/daywork/models';
import { issueRun, previewRun } from '../server/daywork/runDaywork';
import { unbilledJobs } from '../server/daywork/unbilled';

const FILE = 'data/bench/charging.sqlite';
const JOBS = 200;
const ENTRIES_A_JOB = 250;
const ACTOR = { name: 'bench', at: '2031-04-30T08:00:00.000Z' };
const ON = '2031-04-30';

type Print = (what: string, ours: number, bare: number, note?: string) => void;
const span = (count: number) => Array.from({ length: count }, (_, i) => i);

/** 200 charged jobs of 250 entries each, with a markup on material; nothing is invoiced yet. */
function book(): Record<string, string[]> {
  const jobs = span(JOBS).map((i) => `J${i + 1}`);
  return {
    company: ['name,currency,tax_name,tax_percent', 'Bench,GBP,VAT,20'],
    customers: ['customer,name', ...span(20).map((i) => `C${i},Client ${i}`)],
    cost_codes: ['cost_code,description', ...span(20).map((i) => `${100 + i},Code ${i}`)],
    jobs: ['job,name,customer,awarded_on,pricing', ...jobs.map((job, i) => `${job},Repairs ${i},C${i % 20},2031-01-01,charged`)],
    daywork_terms: ['job,cost_type,markup_percent', ...jobs.map((job) => `${job},material,12.5`)],
    costs: [
      'dated,job,cost_code,cost_type,reference,description,amount',
      ...jobs.flatMap((job, j) =>
        span(ENTRIES_A_JOB).map((i) => {
          const type = i % 3 === 0 ? 'material' : 'other';
          return `${addDays('2031-01-02', i % 110)},${job},${100 + (i % 20)},${type},R${j}-${i},Part ${i},${10 + (i % 97)}.${10 + (i % 90)}`;
        }),
      ),
    ],
  };
}

async function fill(database: Database): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'bench-charging-'));
  for (const [name, rows] of Object.entries(book())) writeFileSync(join(folder, `${name}.csv`), `${rows.join('\n')}\n`);
  const stores = { files: join(folder, 'files'), outbox: join(folder, 'outbox') };
  await runCommand(database, { name: 'import-book', actor: ACTOR }, (command) => importBook(command, folder, stores));
  rmSync(folder, { recursive: true });
}

/** Unbilled over all jobs, a run of an invoice a job previewed, and the run issued; bare: the same sums, and the rows it wrote once more. */
export async function benchCharging(median: (work: () => Promise<unknown>) => Promise<number>, print: Print): Promise<void> {
  mkdirSync('data/bench', { recursive: true });
  const forget = () => ['', '-wal', '-shm'].forEach((tail) => rmSync(FILE + tail, { force: true }));
  forget();
  const database = await openDatabase(FILE);
  await fill(database);
  const sums = await database.read((sql) =>
    median(() =>
      sql.anyRows(
        'SELECT m.job_id, sum(e.amount), sum(m.charge) FROM charge_mark m JOIN cost_entry e ON e.id = m.cost_entry_id GROUP BY m.job_id',
      ),
    ),
  );
  const label = `${JOBS * ENTRIES_A_JOB} unbilled entries`;
  print(`${label}, by job`, await database.read((sql) => median(() => unbilledJobs(sql, ON))), sums, 'goal 300 ms');
  const one = { reference: '', shown: 'entries' as const, wording: '', entries: null };
  const run = { dated: ON, cutOff: ON, invoices: span(JOBS).map((i) => ({ job: `J${i + 1}`, ...one })) };
  const rows = await database.read((sql) =>
    median(() =>
      sql.anyRows(
        'SELECT * FROM charge_mark m JOIN cost_entry e ON e.id = m.cost_entry_id JOIN cost_line l ON l.id = e.cost_line_id',
      ),
    ),
  );
  const preview = () => database.read((sql) => previewRun(sql, run));
  print(`a run of ${JOBS} invoices previewed`, await median(preview), rows, 'goal 3,000 ms');
  const { seen } = await preview();
  const start = performance.now();
  await runCommand(database, { name: 'issue-run', actor: ACTOR }, (command) => issueRun(command, { ...run, seen }));
  print(`a run of ${JOBS} invoices issued`, performance.now() - start, await bare(database), 'goal 5 times');
  await database.close();
  forget();
}

/** What the run wrote, once more: lines, invoices, and the lines of their journals. */
async function bare(database: Database): Promise<number> {
  const [lines, invoices, journals] = await database.read(async (sql) => [
    await sql.find(DayworkLineTable, {}),
    await sql.find(DayworkInvoiceTable, {}),
    await sql.find(JournalLineTable, {}),
  ]);
  const again = lines.map((it) => ({ ...it, daywork_invoice_id: it.daywork_invoice_id + 100_000 }));
  const first = invoices.map((it) => ({ ...it, id: it.id + 100_000, reference: `again ${it.reference}`, posting_id: null }));
  const more = journals.map((it) => ({ ...it, id: it.id + 1_000_000 }));
  const start = performance.now();
  await database.write(async (sql) => {
    await sql.insertAll(DayworkInvoiceTable, first);
    await sql.insertAll(DayworkLineTable, again);
    await sql.insertAll(JournalLineTable, more);
  });
  return performance.now() - start;
}
