import { costJournals, type DatedCost } from '../../core/costs/costBatch';
import { COST_TYPES } from '../../core/costs/costType';
import { entryRefusals } from '../../core/costs/entryRefusals';
import type { BookCheck } from '../book/bookCheck';
import { bookFile } from '../book/bookFile';
import type { BookSave } from '../book/bookSave';
import { amount, date, oneOf, quantity, REQUIRED, text, yesNo, type ReadRow, type Row } from '../book/columns';
import { joinKey } from '../book/keys';
import { commitments, lineJobs } from '../commitments/bookFile';
import { costCodes } from '../company/bookFiles';
import { nextId } from '../db/sql';
import { jobs } from '../jobs/bookFiles';
import { PostingTable } from '../ledger/models';
import { savePostings } from '../ledger/savePosting';
import { insertCostEntries, refreshCostTotals, type NewCostEntry } from './costEntries';

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
  query: `SELECT e.id, e.dated, l.job, l.section, l.cost_code, l.cost_type, e.reference, e.party, e.description, e.quantity, e.hours, e.amount,
    k.number AS commitment, m.line AS commitment_line, e.uninstalled, e.installed_on, nullif(e.posted_on, e.dated) AS posted_on
    FROM cost_entry e JOIN named_cost_line l ON l.id = e.cost_line_id
    LEFT JOIN commitment_line m ON m.id = e.commitment_line_id LEFT JOIN commitment k ON k.id = m.commitment_id`,
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
      book.fault(costs, row, 'installed_on', `${row.installed_on} is before dated, ${row.dated}`);
    checkCommitment(row, book);
  },
});

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

/** Saves the rows of costs.csv as they stream by: one posting, opening cost against the clearing account, with a journal a day. */
export class OpeningCosts {
  private readonly days = new Map<string, DatedCost>();
  private readonly jobIds = new Set<number>();

  private constructor(
    private readonly into: BookSave,
    private readonly postingId: number,
    private readonly firstDay: string,
  ) {}

  static async open(into: BookSave, firstDay: string): Promise<OpeningCosts> {
    // The posting names what its journals debit, which is known when all is read: entries refer to it before it is there.
    await into.sql.run('PRAGMA defer_foreign_keys = ON');
    return new OpeningCosts(into, await nextId(into.sql, PostingTable), firstDay);
  }

  async add(rows: readonly Row<typeof COST>[]): Promise<void> {
    const entries = rows.map((row) => this.entryOf(row));
    await this.into.flush();
    await insertCostEntries(this.into.sql, entries);
  }

  async save(): Promise<void> {
    const { sql, actor } = this.into;
    const posting = { kind: 'opening-cost' as const, jobId: null, reference: 'costs.csv', postedOn: this.firstDay };
    await savePostings(sql, actor, [{ id: this.postingId, posting, journals: costJournals([...this.days.values()]) }]);
    await refreshCostTotals(sql, [...this.jobIds]);
  }

  private entryOf(row: Row<typeof COST>): NewCostEntry {
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
      posting_id: this.postingId,
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
      installed_on: row.installed_on,
    };
  }
}
