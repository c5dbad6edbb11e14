import { query } from '../db/query';
import { type Act } from './acts';
import { shape, t } from '../db/fields';
import { act as carryOut, reading } from './act';
import { expect } from '@jest/globals';
import { addDays, type PlainDate } from '../../core/calendar/plainDate';
import type { ChangeInput } from '../../wire/changes';
import type { Database } from '../db/database';
import { planView } from '../screens/planView';
import { applicationView } from '../billing/applicationView';
import { jobBilling } from '../billing/jobBilling';
import { saveInstalmentsAsSeen, savePlanAsSeen } from './asSeen';
import { performDaywork } from './performDaywork';
import { reportLines, TESTER } from './books';
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
import { lockJob, moveJob } from '../jobs/jobLife';
import { transferBudget } from '../budget/transfers';
import type { Actor } from '../acts/audit';

export const START = '2031-03-31';

export const SCHEDULED = [600_000, 400_000, 100_000];

export interface Books {
  database: Database;
  on: PlainDate;
  /** Who does the next act. */
  by: Actor;
  /** What was carried out by an owner after somebody was told that it has to be approved. */
  approved: number;
  done: number;
  refused: number;
  /** The last closed day, with what the reports said of it when it was closed. */
  closed: { to: PlainDate; said: string[][] } | null;
}

async function lastNumber(books: Books): Promise<number> {
  const row = await reading(books.database).get(query(shape({ n: t.whole }), 'SELECT max(number) AS n FROM application'));
  return row!.n;
}

/** Carries an act out as it stands. */
export async function perform(books: Books, it: Act): Promise<unknown> {
  const { database, on, by } = books;
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
      return carryOut(database, by, postCosts, {
        lines: [{ ...line, commitment: it.order ? 'PO1/1' : '', uninstalled: it.stored }],
        asOf: on,
      });
    }
    case 'reverse': {
      const postings = await reading(database).all(query(shape({ id: t.whole }), 'SELECT id FROM posting ORDER BY id'));
      return carryOut(database, by, reversePosting, postings[it.pick % postings.length]!.id, { on, reason: 'tried' });
    }
    case 'correct': {
      const to = it.to && { job: null, section: it.to.section, costCode: it.to.code, costType: null };
      const entries = [await pickedId(books, 'SELECT id FROM cost_entry ORDER BY id', it.pick)];
      return carryOut(database, by, correctCosts, { entries, to, on: it.own ? null : on, reason: 'tried' });
    }
    case 'install': {
      const entry = await pickedId(books, 'SELECT id FROM cost_entry WHERE uninstalled = 1 ORDER BY id', it.pick);
      return carryOut(database, by, install, { on, parts: [{ entry, amount: it.amount, quantity: null }] });
    }
    case 'undo':
      return carryOut(
        database,
        TESTER,
        undoInstallation,
        await pickedId(books, 'SELECT id FROM installation ORDER BY id', it.pick),
      );
    case 'start':
      return carryOut(database, by, startApplication, 'J1', { dated: on, reference: '', bySchedule: false });
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
      return saveInstalmentsAsSeen(database, 'J1', instalments);
    }
    case 'begin stage':
    case 'finish stage': {
      const { sections } = await planView(reading(database), 'J1', on);
      const days = sections.find((section) => section.name === 'A')!;
      const startedOn = days.startedOn ?? on;
      const finishedOn = it.kind === 'finish stage' ? on : null;
      const { startsOn, finishesOn } = days;
      return savePlanAsSeen(database, 'J1', {
        sections: [{ name: 'A', startsOn, finishesOn, startedOn, finishedOn }],
        lines: [],
      });
    }
    case 'submit':
    case 'take back':
      return carryOut(database, by, setSubmitted, 'J1', number, it.kind === 'submit');
    case 'discard':
      return carryOut(database, by, deleteApplication, 'J1', number);
    case 'save': {
      const lines = it.shares.map((share, i) => ({
        line: String(i + 1),
        work: Math.floor((SCHEDULED[i]! * share) / 100),
        materials: i === 1 ? it.materials : 0,
      }));
      return carryOut(database, by, saveApplication, 'J1', number, { version: null, dated: on, reference: '', lines });
    }
    case 'certify':
      return carryOut(database, by, certifyApplication, 'J1', number, {
        version: null,
        on,
        lines: it.cut === null ? [] : [{ line: '1', work: it.cut * 6000, materials: 0 }],
      });
    case 'uncertify':
      return carryOut(database, by, reverseCertification, 'J1', number, 'tried');
    case 'receive': {
      const open = await reading(database).all(
        query(
          shape({ posting: t.text, open: t.cents }),
          'SELECT reference AS posting, payable - coalesce((SELECT sum(amount) FROM receipt WHERE invoice_id = i.id), 0) AS open FROM invoice i ORDER BY id',
        ),
      );
      const invoice = open[it.pick % open.length]!;
      return carryOut(database, by, recordReceipt, 'J1', invoice.posting, {
        dated: on,
        amount: Math.floor((invoice.open * it.share) / 100),
        reference: '',
      });
    }
    case 'change':
      return carryOut(database, by, saveChange, 'J1', changeOf(`X${books.done}`, on, it), null);
    case 'issue':
    case 'approve':
    case 'reject':
    case 'withdraw': {
      const changes = await reading(database).all(
        query(shape({ number: t.text }), 'SELECT number FROM change_order ORDER BY id'),
      );
      const { number: change } = changes[it.pick % changes.length]!;
      if (it.kind === 'issue') return carryOut(database, by, issueChange, 'J1', change, on);
      const status = ({ approve: 'approved', reject: 'rejected', withdraw: 'withdrawn' } as const)[it.kind];
      return carryOut(database, by, decideChange, 'J1', change, {
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
      return carryOut(database, by, transferBudget, 'J1', {
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
    case 'mark':
    case 'invoice':
    case 'credit':
      return performDaywork(books, it);
    case 'close': {
      const to = addDays(on, -it.back);
      await carryOut(database, by, closeBooks, { to, reason: it.why });
      books.closed = { to, said: await reportsOf(database, to) };
      return;
    }
    case 'lock':
      return carryOut(database, by, lockJob, 'J1', it.locked, 'tried');
    case 'move job':
      return carryOut(database, by, moveJob, 'J1', { status: it.to, on, reason: 'tried' });
    case 'release':
      return carryOut(database, by, releaseRetention, 'J1', {
        dated: on,
        amount: it.share * 150,
        reference: `Release of ${on} ${books.done}`,
      });
  }
}

/** Hours are entered, approved and posted in one go; or those of a sheet that is there are corrected. */
async function work({ database, on, by }: Books, it: Extract<Act, { kind: 'work' }>): Promise<void> {
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
    department: '',
    wageClass: '',
    pay: null,
    hours: it.hours,
    units: null,
    description: '',
    clock: '',
    charge: '' as const,
  };
  if (there) {
    const input = { week, employees: [it.employee], lines: [line], reason: 'tried', lateOn: null };
    const plan = (sql: Reader) => planTimeCorrection(sql, there.sheet, input, null).then((found) => found.planned);
    const { seen } = await previewPosting(database, on, plan);
    await carryOut(database, by, correctTime, there.sheet, { ...input, seen }, null);
    return;
  }
  const { sheet } = await carryOut(database, by, addSheet, { week, lines: [line] }, null);
  const view = await weekSheet(reading(database), sheet, week);
  const lines = view.lines.map(({ id }) => id);
  await carryOut(database, by, approveTime, sheet, { seen: view.seen, lines }, null);
  const plan = (sql: Reader) => approvedOf(sql, [sheet]).then((approved) => planPosting(sql, approved, null));
  const { seen } = await previewPosting(database, on, plan);
  await carryOut(database, by, postTime, { sheets: [sheet], lateOn: null, leaveOut: false, seen });
}
const POSTED_SHEETS = `SELECT sheet, min(dated) AS dated FROM time_line WHERE status = 'posted' AND reverses_id IS NULL GROUP BY sheet`;

const REPORTS_OF_A_DAY = ['wip', 'ageing', 'trial-balance', 'tie-out'] as const;

export async function reportsOf(database: Database, on: PlainDate): Promise<string[][]> {
  const said: string[][] = [];
  for (const name of REPORTS_OF_A_DAY) said.push(await reportLines(database, name, on));
  return said;
}

export async function pickedId({ database }: Pick<Books, 'database'>, sql: string, pick: number): Promise<number> {
  const rows = await reading(database).all(query(shape({ id: t.whole }), sql));
  return rows[pick % rows.length]?.id ?? 0;
}

/** What is billed by a schedule is what it says, and never more than a line has. */
async function startBySchedule({ database, on, by }: Books): Promise<void> {
  const number = await carryOut(database, by, startApplication, 'J1', { dated: on, reference: '', bySchedule: true });
  const { lines, summary } = await applicationView(reading(database), 'J1', number, on);
  expect(summary.gross).toBe((await jobBilling(reading(database), 'J1', on)).schedule!.due);
  for (const line of lines) {
    expect([line.line, line.work]).toEqual([line.line, line.bySchedule]);
    expect(Math.abs(line.work)).toBeLessThanOrEqual(Math.abs(line.scheduled));
  }
}

export function changeOf(number: string, raisedOn: PlainDate, it: { price: number; cost: number; line: string }): ChangeInput {
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
