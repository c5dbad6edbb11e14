import { transferRefusals } from '../../core/budget/transferRefusals';
import { COST_TYPES } from '../../core/costs/costType';
import { present } from '../../core/errors/known';
import { bookFile } from '../bookFormat/bookFile';
import { amount, date, integer, oneOf, quantity, REQUIRED, text, type ReadRow } from '../bookFormat/columns';
import { joinKey } from '../bookFormat/keys';
import { costCodes } from '../company/book/bookFiles';
import { acceptedEstimate, checkAcceptedLine, estimateLines } from '../estimates/bookFiles';
import { jobs, scheduleOfValues } from '../jobs/bookFiles';
import { BudgetLineTable, BudgetTransferLineTable, BudgetTransferTable } from './models';

const COST_LINE = { section: text(), cost_code: text(REQUIRED), cost_type: oneOf(COST_TYPES)(REQUIRED) };

export const budget = bookFile({
  name: 'budget',
  columns: {
    job: text(REQUIRED),
    ...COST_LINE,
    sov_line: text(),
    description: text(),
    quantity: quantity(),
    unit: text(),
    hours: quantity(),
    amount: amount(REQUIRED),
    estimate_line: text("of the job's accepted estimate"),
  },
  key: [],
  keyNote: 'rows add up',
  takenBy: 'budget',
  refers: {
    job: { to: jobs },
    cost_code: { to: costCodes },
    sov_line: { to: scheduleOfValues, by: ['job', 'sov_line'] },
  },
  query: `SELECT b.id, l.job, l.section, l.cost_code, l.cost_type, s.line AS sov_line, b.description, b.quantity, b.unit, b.hours, b.amount, e.line AS estimate_line
    FROM budget_line b JOIN named_cost_line l ON l.id = b.cost_line_id LEFT JOIN sov_line s ON s.id = b.sov_line_id LEFT JOIN estimate_line e ON e.id = b.estimate_line_id`,
  check: (row, book): void => checkAcceptedLine(budget, row, book),
  save: (rows, into): Promise<void> =>
    into.insertAll(
      BudgetLineTable,
      rows.map((row) => ({
        cost_line_id: into.costLine(into.id(jobs, row.job), row, costCodes),
        sov_line_id: row.sov_line ? into.id(scheduleOfValues, row.job, row.sov_line) : null,
        description: row.description ?? '',
        quantity: row.quantity,
        unit: row.unit ?? '',
        hours: row.hours,
        amount: row.amount,
        estimate_line_id: row.estimate_line
          ? into.id(estimateLines, row.job, present(acceptedEstimate(into.book, row.job)), row.estimate_line)
          : null,
      })),
    ),
});

const TRANSFER = {
  job: text(REQUIRED),
  transfer: integer(1, 9999)(REQUIRED, '1, 2 …'),
  dated: date(REQUIRED),
  reason: text(REQUIRED),
  ...COST_LINE,
  amount: amount(REQUIRED, 'the rows of one transfer net to zero'),
  hours: quantity(),
};

export const budgetTransfers = bookFile({
  name: 'budget_transfers',
  columns: TRANSFER,
  key: [],
  keyNote: 'job, transfer; several rows',
  head: {
    by: ['job', 'transfer'],
    called: 'transfer',
    same: ['dated', 'reason'],
    joins: false,
    existing:
      'SELECT t.id, j.number AS job, t.number AS transfer, t.dated, t.reason FROM budget_transfer t JOIN job j ON j.id = t.job_id',
  },
  takenBy: 'contract',
  refers: { job: { to: jobs }, cost_code: { to: costCodes } },
  query: `SELECT x.id, l.job, t.number AS transfer, t.dated, t.reason, l.section, l.cost_code, l.cost_type, x.amount, x.hours
    FROM budget_transfer_line x JOIN budget_transfer t ON t.id = x.transfer_id JOIN named_cost_line l ON l.id = x.cost_line_id`,
  countsOn: ({ dated }) => ({ dated }),
  checkAll(rows, book) {
    const transfers = new Map<string, ReadRow<typeof TRANSFER>[]>();
    for (const row of rows) {
      if (!row.job || !row.transfer || !book.keysOf(jobs).has(row.job)) continue;
      const key = joinKey(row.job, row.transfer);
      transfers.set(key, [...(transfers.get(key) ?? []), row]);
    }
    for (const lines of transfers.values()) {
      const last = lines.at(-1);
      if (!last || lines.some((row) => row.amount === undefined)) continue;
      // A job that comes with the book comes as it was: on which days is its own affair.
      const moved = lines.map((row) => ({ amount: row.amount ?? 0, hours: row.hours ?? null }));
      for (const it of transferRefusals({ dated: last.dated ?? '', awardedOn: null, lines: moved }))
        book.refuse(budgetTransfers, last, it, { lines: 'amount' });
    }
  },
  acts: (rows) => {
    const moved = new Map<string, number>();
    const keyOf = (row: ReadRow<typeof TRANSFER>) => joinKey(row.job ?? '', row.transfer ?? 0);
    for (const row of rows) moved.set(keyOf(row), (moved.get(keyOf(row)) ?? 0) + Math.max(0, row.amount ?? 0));
    const first = rows.filter((row, i) => rows.findIndex((it) => keyOf(it) === keyOf(row)) === i);
    return first.map((row) => ({ row, column: 'amount', kind: 'transfer', amount: moved.get(keyOf(row)) ?? 0 }));
  },
  async save(rows, into) {
    await into.heads(
      budgetTransfers,
      BudgetTransferTable,
      rows,
      (row) => [row.job, row.transfer],
      (row) => ({
        job_id: into.id(jobs, row.job),
        number: row.transfer,
        dated: row.dated,
        reason: row.reason,
        actor: into.actor.name,
        recorded_at: into.actor.at,
      }),
    );
    await into.insertAll(
      BudgetTransferLineTable,
      rows.map((row) => ({
        transfer_id: into.headId(budgetTransfers, row.job, row.transfer),
        cost_line_id: into.costLine(into.id(jobs, row.job), row, costCodes),
        amount: row.amount,
        hours: row.hours,
      })),
    );
  },
});
