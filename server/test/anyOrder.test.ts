import { query } from '../db/query';
import { act, type Act } from './acts';
import { shape, t } from '../db/fields';
import { act as carryOut, reading } from './act';
import { join } from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addDays, type PlainDate } from '../../core/calendar/plainDate';
import { LedrinError } from '../../core/errors/ledrinError';
import type { ChangeInput } from '../../wire/changes';
import { writeBook } from '../book/writeBook';
import type { Database } from '../db/database';
import { loadCostLines } from '../costs/costLineStates';
import { billingScheduleView } from '../instalments/billingScheduleView';
import { planView } from '../screens/planView';
import { COST_BY_MONTH } from '../screens/queries';
import { applicationView } from '../billing/applicationView';
import { agedInvoices } from '../billing/invoices';
import { jobBilling } from '../billing/jobBilling';
import { keepInstalments, keepPlan } from './asSeen';
import {
  cleanUp,
  differences,
  everything,
  faultsOf,
  folderText,
  reportLines,
  LABOUR_TERMS,
  SMALL_BOOK,
  temporaryDatabase,
  besides,
  temporaryFolder,
  TESTER,
} from './books';
import { deleteApplication, saveApplication, setSubmitted, startApplication } from '../billing/applications';
import { certifyApplication } from '../billing/certify';
import { reverseCertification } from '../billing/reverseCertification';
import { saveChange } from '../changes/changes';
import { correctCosts } from '../corrections/correctCosts';
import { install, undoInstallation } from '../corrections/installations';
import { postCosts } from '../costs/postCosts';
import { decideChange, issueChange } from '../changes/decideChange';
import { recordReceipt, releaseRetention } from '../billing/receipts';
import { closeBooks } from '../ledger/closing';
import { weekBy } from '../../core/labour/overtime';
import type { Reader } from '../db/sql';
import { loadTerms } from '../labour/terms';
import { correctTime, planCorrection as planTimeCorrection } from '../weekSheets/correctTime';
import { approveTime } from '../weekSheets/decideTime';
import { approvedOf, planPosting, postTime, previewPosting } from '../weekSheets/postTime';
import { addSheet } from '../weekSheets/saveSheet';
import { weekSheet } from '../weekSheets/sheetViews';
import { reversePosting } from '../corrections/reversePosting';
import { transferBudget } from '../budget/transfers';
import { runs } from './runs';

afterAll(cleanUp);

const START = '2031-03-31';
const TIES = ['0.00', '0.00', '0.00', '0.00', '0.00'];

const SCHEDULED = [600_000, 400_000, 100_000];

interface Books {
  database: Database;
  on: PlainDate;
  done: number;
  refused: number;
  /** The last closed day, with what the reports said of it when it was closed. */
  closed: { to: PlainDate; said: string[][] } | null;
}

async function lastNumber(books: Books): Promise<number> {
  const row = await reading(books.database).get(query(shape({ n: t.whole }), 'SELECT max(number) AS n FROM application'));
  return row!.n;
}

async function perform(books: Books, it: Act): Promise<unknown> {
  const { database, on } = books;
  const number = await lastNumber(books);
  switch (it.kind) {
    case 'post': {
      const line = {
        dated: on,
        job: 'J1',
        section: 'A',
        costCode: it.code,
        costType: it.code === '100' ? ('labour' as const) : ('material' as const),
        party: 'P',
        reference: 'R',
        hours: it.hours,
        amount: it.amount,
        description: '',
      };
      return carryOut(database, TESTER, postCosts, {
        lines: [{ ...line, commitment: it.order ? 'PO1/1' : '', uninstalled: it.stored }],
        asOf: on,
      });
    }
    case 'reverse': {
      const postings = await reading(database).all(query(shape({ id: t.whole }), 'SELECT id FROM posting ORDER BY id'));
      return carryOut(database, TESTER, reversePosting, postings[it.pick % postings.length]!.id, { on, reason: 'tried' });
    }
    case 'correct': {
      const to = it.to && { job: null, section: it.to.section, costCode: it.to.code, costType: null };
      const entries = [await pickedId(books, 'SELECT id FROM cost_entry ORDER BY id', it.pick)];
      return carryOut(database, TESTER, correctCosts, { entries, to, on: it.own ? null : on, reason: 'tried' });
    }
    case 'install': {
      const entry = await pickedId(books, 'SELECT id FROM cost_entry WHERE uninstalled = 1 ORDER BY id', it.pick);
      return carryOut(database, TESTER, install, { on, parts: [{ entry, amount: it.amount, quantity: null }] });
    }
    case 'undo':
      return carryOut(
        database,
        TESTER,
        undoInstallation,
        await pickedId(books, 'SELECT id FROM installation ORDER BY id', it.pick),
      );
    case 'start':
      return carryOut(database, TESTER, startApplication, 'J1', { dated: on, reference: '', bySchedule: false });
    case 'start by schedule':
      return startBySchedule(books);
    case 'schedule': {
      // Per cents cut anywhere, of the one section or of the job; sometimes a millionth is missing.
      const cuts = [...it.cuts, 1_000_000 - it.slip].sort((a, b) => a - b);
      const instalments = cuts.map((cut, i) => ({
        name: `Part ${i}`,
        stages: it.due[i] === 'day' ? [] : ['A'],
        due: it.due[i]!,
        days: 0,
        day: it.due[i] === 'day' ? addDays(on, 10 * i - 20) : null,
        from: 'job' as const,
        rate: cut - (cuts[i - 1] ?? 0),
        amount: null,
      }));
      return keepInstalments(database, 'J1', instalments);
    }
    case 'begin stage':
    case 'finish stage': {
      const { sections } = await planView(reading(database), 'J1', on);
      const days = sections.find((section) => section.name === 'A')!;
      const startedOn = days.startedOn ?? on;
      const finishedOn = it.kind === 'finish stage' ? on : null;
      const { startsOn, finishesOn } = days;
      return keepPlan(database, 'J1', { sections: [{ name: 'A', startsOn, finishesOn, startedOn, finishedOn }], lines: [] });
    }
    case 'submit':
    case 'take back':
      return carryOut(database, TESTER, setSubmitted, 'J1', number, it.kind === 'submit');
    case 'discard':
      return carryOut(database, TESTER, deleteApplication, 'J1', number);
    case 'save': {
      const lines = it.shares.map((share, i) => ({
        line: String(i + 1),
        work: Math.floor((SCHEDULED[i]! * share) / 100),
        materials: i === 1 ? it.materials : 0,
      }));
      return carryOut(database, TESTER, saveApplication, 'J1', number, { version: null, dated: on, reference: '', lines });
    }
    case 'certify':
      return carryOut(database, TESTER, certifyApplication, 'J1', number, {
        version: null,
        on,
        lines: it.cut === null ? [] : [{ line: '1', work: it.cut * 6000, materials: 0 }],
      });
    case 'uncertify':
      return carryOut(database, TESTER, reverseCertification, 'J1', number, 'tried');
    case 'receive': {
      const open = await reading(database).all(
        query(
          shape({ posting: t.text, open: t.cents }),
          'SELECT reference AS posting, payable - coalesce((SELECT sum(amount) FROM receipt WHERE invoice_id = i.id), 0) AS open FROM invoice i ORDER BY id',
        ),
      );
      const invoice = open[it.pick % open.length]!;
      return carryOut(database, TESTER, recordReceipt, 'J1', invoice.posting, {
        dated: on,
        amount: Math.floor((invoice.open * it.share) / 100),
        reference: '',
      });
    }
    case 'change':
      return carryOut(database, TESTER, saveChange, 'J1', changeOf(`X${books.done}`, on, it), null);
    case 'issue':
    case 'approve':
    case 'reject':
    case 'withdraw': {
      const changes = await reading(database).all(
        query(shape({ number: t.text }), 'SELECT number FROM change_order ORDER BY id'),
      );
      const { number: change } = changes[it.pick % changes.length]!;
      if (it.kind === 'issue') return carryOut(database, TESTER, issueChange, 'J1', change, on);
      const status = ({ approve: 'approved', reject: 'rejected', withdraw: 'withdrawn' } as const)[it.kind];
      return carryOut(database, TESTER, decideChange, 'J1', change, {
        status,
        on,
        by: 'Client',
        note: '',
        agreed: it.agreed,
        daysGranted: null,
      });
    }
    case 'transfer': {
      const line = { section: 'A', costType: 'material' as const, hours: null };
      return carryOut(database, TESTER, transferBudget, 'J1', {
        dated: on,
        reason: 'tried',
        lines: [
          { ...line, costCode: '200', amount: it.amount },
          { ...line, costCode: '900', amount: it.slip - it.amount },
        ],
      });
    }
    case 'work':
      return work(books, it);
    case 'close': {
      const to = addDays(on, -it.back);
      await carryOut(database, TESTER, closeBooks, { to, reason: it.why });
      books.closed = { to, said: await reportsOf(database, to) };
      return;
    }
    case 'release':
      return carryOut(database, TESTER, releaseRetention, 'J1', {
        dated: on,
        amount: it.share * 150,
        reference: `Release of ${on} ${books.done}`,
      });
  }
}

/** Hours are entered, approved and posted in one go; or those of a sheet that is there are corrected. */
async function work({ database, on }: Books, it: Extract<Act, { kind: 'work' }>): Promise<void> {
  const { rules } = await database.read((sql) => loadTerms(sql));
  const sheets = await reading(database).all(query(shape({ sheet: t.text, dated: t.day }), POSTED_SHEETS));
  const there = it.correct ? sheets.find(({ dated }) => dated <= on) : undefined;
  const dated = there?.dated ?? on;
  const week = weekBy(rules, dated);
  const line = {
    employee: it.employee,
    dated,
    job: 'J1',
    section: 'A',
    costCode: it.code,
    workKind: '',
    wageClass: '',
    pay: null,
    hours: it.hours,
    units: null,
    description: '',
    clock: '',
  };
  if (there) {
    const input = { week, employees: [it.employee], lines: [line], reason: 'tried', lateOn: null };
    const plan = (sql: Reader) => planTimeCorrection(sql, there.sheet, input, null).then((found) => found.planned);
    const { seen } = await previewPosting(database, on, plan);
    await carryOut(database, TESTER, correctTime, there.sheet, { ...input, seen }, null);
    return;
  }
  const { sheet } = await carryOut(database, TESTER, addSheet, { week, lines: [line] }, null);
  const view = await weekSheet(reading(database), sheet, week);
  const lines = view.lines.map(({ id }) => id);
  await carryOut(database, TESTER, approveTime, sheet, { seen: view.seen, lines }, null);
  const plan = (sql: Reader) => approvedOf(sql, [sheet]).then((approved) => planPosting(sql, approved, null));
  const { seen } = await previewPosting(database, on, plan);
  await carryOut(database, TESTER, postTime, { sheets: [sheet], lateOn: null, leaveOut: false, seen });
}
const POSTED_SHEETS = `SELECT sheet, min(dated) AS dated FROM time_line WHERE status = 'posted' AND reverses_id IS NULL GROUP BY sheet`;

const REPORTS_OF_A_DAY = ['wip', 'ageing', 'trial-balance', 'tie-out'] as const;

async function reportsOf(database: Database, on: PlainDate): Promise<string[][]> {
  const said: string[][] = [];
  for (const name of REPORTS_OF_A_DAY) said.push(await reportLines(database, name, on));
  return said;
}

async function pickedId({ database }: Pick<Books, 'database'>, sql: string, pick: number): Promise<number> {
  const rows = await reading(database).all(query(shape({ id: t.whole }), sql));
  return rows[pick % rows.length]?.id ?? 0;
}

/** What is billed by a schedule is what it says, and never more than a line has. */
async function startBySchedule({ database, on }: Books): Promise<void> {
  const number = await carryOut(database, TESTER, startApplication, 'J1', { dated: on, reference: '', bySchedule: true });
  const { lines, summary } = await applicationView(reading(database), 'J1', number, on);
  expect(summary.gross).toBe((await jobBilling(reading(database), 'J1', on)).schedule!.due);
  for (const line of lines) {
    expect([line.line, line.work]).toEqual([line.line, line.bySchedule]);
    expect(Math.abs(line.work)).toBeLessThanOrEqual(Math.abs(line.scheduled));
  }
}

function changeOf(number: string, raisedOn: PlainDate, it: { price: number; cost: number; line: string }): ChangeInput {
  const line = { section: 'A', description: 'Changed', quantity: null, unit: '' };
  return {
    version: 0,
    number,
    title: 'Tried',
    raisedOn,
    reference: '',
    reason: '',
    askedBy: '',
    daysAsked: 3,
    price: [{ ...line, line: it.line, amount: it.price }],
    cost: [{ ...line, costCode: '200', costType: 'material', sovLine: it.line, hours: null, amount: it.cost }],
  };
}

/** Does it, or sees it refused with a message and nothing changed. */
async function attempt(books: Books, it: Act): Promise<void> {
  books.on = addDays(books.on, it.later);
  const before = await everything(books.database);
  try {
    await perform(books, it);
    books.done += 1;
    // What is closed says the same whatever is done after it.
    if (books.closed) expect([it, await reportsOf(books.database, books.closed.to)]).toEqual([it, books.closed.said]);
  } catch (error) {
    if (!(error instanceof LedrinError)) throw error;
    books.refused += 1;
    expect(error.message.length).toBeGreaterThan(10);
    expect(await everything(books.database)).toBe(before);
  }
}

async function totalsAreEntries(database: Database, on: PlainDate): Promise<void> {
  const sql = reading(database);
  const entries = await sql.all(
    query(
      shape({ id: t.whole, cost: t.cents, hours: t.hours }),
      'SELECT cost_line_id AS id, sum(amount) AS cost, sum(coalesce(hours, 0)) AS hours FROM cost_entry WHERE posted_on <= $1 GROUP BY 1 ORDER BY 1',
    ),
    [on],
  );
  const used = new Set(entries.map((it) => it.id));
  const lines = (await loadCostLines(sql, on, null)).map(({ id, cost, hours }) => ({ id, cost, hours }));
  expect(lines.filter((it) => used.has(it.id)).sort((a, b) => a.id - b.id)).toEqual(entries);
  expect(lines.filter((it) => !used.has(it.id) && (it.cost !== 0 || it.hours !== 0))).toEqual([]);
}

/** The months of a job, from the running totals, are those of its entries. */
async function monthsAreEntries(database: Database, on: PlainDate): Promise<void> {
  const sql = reading(database);
  const job = await pickedId({ database }, `SELECT id FROM job WHERE number = 'J1'`, 0);
  const counted = query(
    shape({ month: t.month, amount: t.cents }),
    'SELECT substr(posted_on, 1, 7) AS month, sum(amount) AS amount FROM cost_entry WHERE job_id = $1 AND posted_on <= $2 GROUP BY 1',
  );
  expect([on, await sql.all(COST_BY_MONTH, [job, on])]).toEqual([on, await sql.all(counted, [job, on])]);
}

const DAYS_WITH_POSTINGS = query(shape({ on: t.day }), 'SELECT DISTINCT dated AS "on" FROM journal ORDER BY 1');

/** No balance is impossible on a day: no less than nothing is held of retention, and received on an invoice what it asks for at most. */
async function assertPossible(database: Database, on: PlainDate): Promise<void> {
  for (const it of await agedInvoices(reading(database), on, null)) {
    const [received, least, most] = [
      it.payable - (it.total - it.retentionHeld),
      Math.min(0, it.payable),
      Math.max(0, it.payable),
    ];
    expect([on, it.invoice, received >= least && received <= most, it.retentionHeld >= 0]).toEqual([on, it.invoice, true, true]);
  }
}

test('whatever is done in whatever order, forwards and back in time, the books tie on every day, and go out and come back the same', async () => {
  let done = 0;
  let refused = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 12, maxLength: 34 }), async (acts) => {
      const books: Books = { database: await temporaryDatabase(), on: START, done: 0, refused: 0, closed: null };
      try {
        expect(await faultsOf(books.database, { ...SMALL_BOOK, ...LABOUR_TERMS })).toEqual([]);
        for (const it of acts) await attempt(books, it);
        const days = await reading(books.database).all(DAYS_WITH_POSTINGS);
        for (const { on } of days) {
          expect([on, await differences(books.database, on)]).toEqual([on, TIES]);
          await totalsAreEntries(books.database, on);
          await monthsAreEntries(books.database, on);
          await assertPossible(books.database, on);
        }
        const last = days.at(-1)!.on;
        const folder = join(temporaryFolder(), 'out');
        await writeBook(reading(books.database), folder, besides(books.database));
        const copy = await temporaryDatabase();
        expect(await faultsOf(copy, folderText(folder))).toEqual([]);
        for (const on of [START, last])
          expect([on, await reportsOf(copy, on)]).toEqual([on, await reportsOf(books.database, on)]);
        const [kept, came] = [
          await billingScheduleView(reading(books.database), 'J1', books.on),
          await billingScheduleView(reading(copy), 'J1', books.on),
        ];
        expect({ ...came, savedBy: null, savedAt: null }).toEqual({ ...kept, savedBy: null, savedAt: null });
        await copy.close();
        done += books.done;
        refused += books.refused;
      } finally {
        await books.database.close();
      }
    }),
    { numRuns: runs(10) },
  );
  // Of both there must be plenty, or the test would prove little.
  expect(done).toBeGreaterThan(50);
  expect(refused).toBeGreaterThan(15);
}, 900_000);
