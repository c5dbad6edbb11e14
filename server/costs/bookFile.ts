import { setTimeout as pause } from 'node:timers/promises';
import type { PlainDate } from '../../core/calendar/plainDate';
import { costJournals, type DatedCost } from '../../core/costs/costBatch';
import { COST_TYPES } from '../../core/costs/costType';
import { entryRefusals } from '../../core/costs/entryRefusals';
import { refuse } from '../../core/refusals/refusal';
import { isMarked } from '../../core/charging/chargeMark';
import { CHARGE_CELLS, CHARGE_COLUMNS, chargingOf, invoicesOf } from '../charging/book/chargeColumns';
import { chargingOfBook } from '../charging/book/chargingOfBook';
import { markRow } from '../charging/marks';
import { ChargeMarkTable } from '../charging/models';
import type { BookCheck } from '../bookFormat/bookCheck';
import { bookFile } from '../bookFormat/bookFile';
import type { BookSave } from '../bookFormat/bookSave';
import { amount, date, isWhole, oneOf, quantity, REQUIRED, text, yesNo, type ReadRow, type Row } from '../bookFormat/columns';
import { joinKey } from '../bookFormat/keys';
import { commitments, lineJobs } from '../commitments/bookFile';
import { costCodes } from '../company/book/bookFiles';
import { InstallationTable } from '../corrections/models';
import type { NewRow } from '../db/fields';
import { nextId } from '../db/sql';
import { CostEntryTable } from './models';
import { assertBookOfTeam, isChargedJob, jobs } from '../jobs/bookFiles';
import { PostingTable } from '../ledger/models';
import { savePostings } from '../ledger/savePosting';
import { IDENTICAL_ROWS } from './queries';
import { recountCostTotals } from './costTotals';

const COST = {
  dated: date(REQUIRED),
  job: text(REQUIRED),
  section: text(),
  cost_code: text(REQUIRED),
  cost_type: oneOf(COST_TYPES)(REQUIRED),
  reference: text(REQUIRED),
  party: text(),
  description: text(),
  quantity: quantity(),
  hours: quantity(),
  amount: amount(REQUIRED),
  commitment: text(),
  commitment_line: text(),
  uninstalled: yesNo(),
  installed_on: date(),
  posted_on: date('the accounting date; empty: dated'),
  ...CHARGE_COLUMNS,
  unit: text('of its quantity; empty: that of its cost line'),
};

/** The one file that is never held as a whole: `OpeningCosts` saves its rows as they stream by. */
export const costs = bookFile({
  name: 'costs',
  columns: COST,
  key: [],
  takenBy: 'final',
  refers: {
    job: { to: jobs },
    cost_code: { to: costCodes },
    commitment: { to: commitments, head: true },
    commitment_line: { to: commitments, by: ['commitment', 'commitment_line'] },
  },
  // What was installed in parts is a row for each part, and one for what is left.
  query: `SELECT e.id, e.dated, l.job, l.section, l.cost_code, l.cost_type, e.reference, e.party, e.description,
    CASE WHEN p.cost_entry_id IS NULL THEN e.quantity ELSE p.quantity END AS quantity,
    CASE WHEN p.cost_entry_id IS NULL THEN e.hours ELSE p.hours END AS hours, coalesce(p.amount, e.amount) AS amount,
    k.number AS commitment, n.line AS commitment_line, e.uninstalled, p.installed_on, nullif(e.posted_on, e.dated) AS posted_on,
    ${CHARGE_CELLS('e.id')}, e.unit
    FROM cost_entry e JOIN named_cost_line l ON l.id = e.cost_line_id JOIN job ON job.id = e.job_id LEFT JOIN charge_mark m ON m.cost_entry_id = e.id LEFT JOIN installed_part p ON p.cost_entry_id = e.id
    LEFT JOIN commitment_line n ON n.id = e.commitment_line_id LEFT JOIN commitment k ON k.id = n.commitment_id WHERE e.time_line_id IS NULL`,
  countsOn: ({ dated, posted_on, installed_on }) => (posted_on ? { posted_on, installed_on } : { dated, installed_on }),
  check(row, book) {
    // One plain object: this is asked of a million rows.
    const refusals = entryRefusals({
      costType: row.cost_type ?? null,
      amount: row.amount ?? null,
      hours: row.hours ?? null,
      uninstalled: row.uninstalled === true,
      dated: row.dated ?? null,
      postedOn: row.posted_on ?? null,
    });
    for (const refusal of refusals) book.refuse(costs, row, refusal, { postedOn: 'posted_on' });
    if (row.installed_on && row.dated && row.installed_on < row.dated)
      book.refuse(costs, row, refuse('install-before-delivery', 'installed_on', { on: row.installed_on, delivered: row.dated }));
    checkCommitment(row, book);
    if (isWhole(row)) gatherCost(row, book);
    else book.own(chargingOfBook).unknown.add(row.job ?? '');
  },
});

/** Notes what is charged: it is judged once the invoices can be added up. */
function gatherCost(row: ReadRow<typeof COST>, book: BookCheck): void {
  if (row.charge !== 'yes' && row.charge !== 'hold' && row.daywork_invoice === null && !isChargedJob(book, row.job)) return;
  book.own(chargingOfBook).costs.push({
    file: costs,
    row: row.row,
    name: row.reference ?? '',
    job: row.job ?? '',
    dated: row.dated ?? '',
    postedOn: row.posted_on ?? row.dated ?? '',
    costType: row.cost_type ?? 'other',
    amount: row.amount ?? 0,
    time: null,
    charging: chargingOf(row),
    invoices: invoicesOf(row),
  });
}

function checkCommitment(row: ReadRow<typeof COST>, book: BookCheck): void {
  const { commitment, commitment_line: line, job } = row;
  if (commitment === null && line !== null)
    book.fault(costs, row, 'commitment', 'missing required cell: commitment_line needs its commitment');
  if (commitment !== null && line === null)
    book.fault(costs, row, 'commitment_line', 'missing required cell: a commitment needs its line');
  if (!commitment || !line || !job) return;
  const key = joinKey(commitment, line);
  const of = book.own(lineJobs).get(key) ?? book.keysOf(commitments).existing.get(key)?.job;
  if (of !== undefined && of !== job)
    book.fault(costs, row, 'commitment_line', `line ${line} of commitment ${commitment} belongs to job ${of}, not ${job}`);
}

/** The posting the rows go into. */
interface OpeningPosting {
  id: number;
  /** Its own day: that of the first row. */
  postedOn: PlainDate;
}

/** Saves the rows of costs.csv as they stream by: one posting, opening cost against the clearing account, with a journal a day. */
export class OpeningCosts {
  private readonly days = new Map<string, DatedCost>();
  private readonly jobIds = new Set<number>();
  private posting: OpeningPosting | null = null;
  private count = 0;
  private nextEntry = 0;
  /** The rows that are being saved while the next ones are read: the engine works in a thread of its own. */
  private saving: Promise<void> = Promise.resolve();

  /** `skipIdentical`: rows that are in the books already are left out. */
  constructor(
    private readonly into: BookSave,
    private readonly skipIdentical = false,
  ) {}

  /** Takes rows in once those before are saved. What fails in saving them is thrown by the next call. */
  async add(read: readonly Row<typeof COST>[]): Promise<void> {
    const rows = this.skipIdentical ? await this.fresh(read) : read;
    const [first] = rows;
    if (!first) return;
    const posting = (this.posting ??= await this.open(first.posted_on ?? first.dated));
    const firstEntry = this.nextEntry;
    const entries = rows.map((row, i) => ({ id: firstEntry + i, ...this.entryOf(row, posting) }));
    this.nextEntry += rows.length;
    const installations = rows.flatMap((row, i) => this.installationOf(row, firstEntry + i));
    const marks = rows.flatMap((row, i) => this.markOf(row, firstEntry + i));
    this.count += rows.length;
    await this.saving;
    await this.into.flush();
    this.saving = this.insert(entries, installations, marks);
    this.saving.catch(() => undefined);
    // The driver hands a statement to its thread in two steps, through the loop of this one: it has to come round before reading goes on.
    await pause(1);
  }

  /** The rows that are not in the books yet, word for word. */
  private async fresh(rows: readonly Row<typeof COST>[]): Promise<Row<typeof COST>[]> {
    const cells = rows.map((it) => [
      ...[
        it.job,
        it.section ?? '',
        it.cost_code,
        it.cost_type,
        it.posted_on ?? it.dated,
        it.amount,
        it.reference,
        it.party ?? '',
      ],
      it.description ?? '',
    ]);
    const there = await this.into.sql.all(IDENTICAL_ROWS, [JSON.stringify(cells), this.posting?.id ?? null]);
    const known = new Set(there.map((it) => it.row));
    return rows.filter((_, i) => !known.has(i));
  }

  private async open(postedOn: PlainDate): Promise<OpeningPosting> {
    // The posting names what its journals debit, which is known when all is read: entries refer to it before it is there.
    await this.into.sql.run('PRAGMA defer_foreign_keys = ON');
    this.nextEntry = await nextId(this.into.sql, CostEntryTable);
    return { id: await nextId(this.into.sql, PostingTable), postedOn };
  }

  private async insert(
    entries: readonly NewRow<typeof CostEntryTable>[],
    installations: readonly NewRow<typeof InstallationTable>[],
    marks: readonly NewRow<typeof ChargeMarkTable>[],
  ): Promise<void> {
    await this.into.sql.insertAll(CostEntryTable, entries);
    await this.into.sql.insertAll(InstallationTable, installations);
    await this.into.sql.insertAll(ChargeMarkTable, marks);
  }

  private markOf(row: Row<typeof COST>, entry: number): NewRow<typeof ChargeMarkTable>[] {
    const pricing = isChargedJob(this.into.book, row.job) ? 'charged' : 'fixed';
    const invoices = invoicesOf(row);
    if (invoices.length > 0) this.into.book.own(chargingOfBook).taken.push({ entry, job: row.job, invoices });
    if (!isMarked(chargingOf(row), pricing)) return [];
    const it = { id: entry, job_id: this.into.id(jobs, row.job), posted_on: row.posted_on ?? row.dated };
    return [markRow(it, chargingOf(row), pricing)];
  }

  private installationOf(row: Row<typeof COST>, entry: number): NewRow<typeof InstallationTable>[] {
    if (!row.uninstalled || row.installed_on === null) return [];
    const { installed_on, amount, quantity } = row;
    return [{ cost_entry_id: entry, job_id: this.into.id(jobs, row.job), installed_on, amount, quantity }];
  }

  /** Waits until nothing is being saved any more: only then may the transaction be ended. */
  async settled(): Promise<void> {
    await this.saving.catch(() => undefined);
  }

  /** Saves what the rows posted together; gives back how many there were. */
  async save(): Promise<number> {
    const { sql, actor } = this.into;
    await this.saving;
    if (!this.posting) return 0;
    const { id, postedOn } = this.posting;
    const posting = { kind: 'opening-cost' as const, jobId: null, reference: 'costs.csv', postedOn };
    await savePostings(sql, actor, [{ id, posting, journals: costJournals([...this.days.values()]) }]);
    await assertBookOfTeam(this.into, this.jobIds);
    // A million entries are counted by the engine; gathered here, they would fill the memory.
    await recountCostTotals(sql, [...this.jobIds]);
    return this.count;
  }

  private entryOf(row: Row<typeof COST>, posting: OpeningPosting): NewRow<typeof CostEntryTable> {
    const { into } = this;
    const jobId = into.id(jobs, row.job);
    const postedOn = row.posted_on ?? row.dated;
    this.jobIds.add(jobId);
    // Credits are listed separately from costs, as their journal lines are.
    const key = `${postedOn} ${row.cost_type} ${row.amount < 0 ? 'credit' : 'cost'}`;
    const day = this.days.get(key);
    if (day) day.amount += row.amount;
    else this.days.set(key, { postedOn, costType: row.cost_type, amount: row.amount });
    return {
      posting_id: posting.id,
      job_id: jobId,
      cost_line_id: into.costLine(jobId, row, costCodes),
      dated: row.dated,
      posted_on: postedOn,
      amount: row.amount,
      quantity: row.quantity,
      hours: row.hours,
      reference: row.reference,
      party: row.party ?? '',
      description: row.description ?? '',
      commitment_line_id:
        row.commitment && row.commitment_line ? into.id(commitments, row.commitment, row.commitment_line) : null,
      uninstalled: row.uninstalled ? 1 : 0,
      unit: row.unit ?? '',
    };
  }
}
