import { refuse } from '../../core/refusals/refusal';
import { agreedRefusal, changeDayRefusals } from '../../core/changes/changeRefusals';
import { CHANGE_STATUSES } from '../../core/changes/changeOrder';
import { COST_TYPES } from '../../core/costs/costType';
import { present } from '../../core/errors/known';
import { unreliable } from '../billing/book/bookBilling';
import type { BookCheck } from '../bookFormat/bookCheck';
import { bookFile, type BookAct } from '../bookFormat/bookFile';
import { amount, date, days, isWhole, oneOf, quantity, REQUIRED, text, type ReadRow } from '../bookFormat/columns';
import { joinKey } from '../bookFormat/keys';
import { costCodes } from '../company/book/bookFiles';
import { isChargedJob, jobs, scheduleOfValues } from '../jobs/bookFiles';
import { ChangeOrderLineTable, ChangeOrderTable } from './models';

export const changeOrders = bookFile({
  name: 'change_orders',
  columns: {
    job: text(REQUIRED),
    change_order: text(REQUIRED),
    title: text(REQUIRED),
    status: oneOf(CHANGE_STATUSES)(REQUIRED),
    raised_on: date(REQUIRED),
    issued_on: date(),
    decided_on: date('required once decided'),
    reference: text(),
    reason: text(),
    asked_by: text(),
    days_asked: days(),
    days_granted: days(),
    decided_by: text(),
    decision: text(),
  },
  key: ['job', 'change_order'],
  called: 'change order',
  takenBy: 'contract',
  refers: { job: { to: jobs } },
  query:
    'SELECT o.id, j.number AS job, o.number AS change_order, title, o.status, raised_on, issued_on, decided_on, reference, reason, asked_by, days_asked, days_granted, decided_by, decision FROM change_order o JOIN job j ON j.id = o.job_id',
  countsOn: ({ status, decided_on }) => (status === 'approved' ? { decided_on } : {}),
  check(row, book) {
    const at = (message: string) => book.fault(changeOrders, row, 'decided_on', message);
    const decided = row.status === 'approved' || row.status === 'rejected' || row.status === 'withdrawn';
    if (decided && row.decided_on === null)
      at(`missing required cell: a change order that is ${row.status} needs the day that was decided`);
    if (row.status && row.raised_on)
      for (const it of changeDayRefusals({
        status: row.status,
        raisedOn: row.raised_on,
        issuedOn: row.issued_on ?? null,
        decidedOn: row.decided_on ?? null,
      }))
        book.refuse(changeOrders, row, it, { issuedOn: 'issued_on', decidedOn: 'decided_on' });
    const billedTo = book.there(jobs, row.job)?.billed_to;
    if (billedTo && row.status === 'approved' && row.decided_on && row.decided_on <= String(billedTo))
      at(
        `job ${row.job} in the database has an application of ${billedTo}; a change approved by then would alter what it was valued with`,
      );
    if (!isWhole(row) || (decided && row.decided_on === null)) book.own(unreliable).schedule(row.job);
  },
  save: (rows, into): Promise<void> =>
    into.keyed(
      changeOrders,
      ChangeOrderTable,
      rows,
      (row) => [row.job, row.change_order],
      (row) => ({
        job_id: into.id(jobs, row.job),
        number: row.change_order,
        title: row.title,
        status: row.status,
        raised_on: row.raised_on,
        issued_on: row.issued_on,
        decided_on: row.decided_on,
        reference: row.reference ?? '',
        reason: row.reason ?? '',
        asked_by: row.asked_by ?? '',
        days_asked: row.days_asked,
        days_granted: row.days_granted,
        decided_by: row.decided_by ?? '',
        decision: row.decision ?? '',
        saved_by: into.actor.name,
        saved_at: into.actor.at,
      }),
    ),
});

const LINE = {
  job: text(REQUIRED),
  change_order: text(REQUIRED),
  side: oneOf(['price', 'cost'])(REQUIRED),
  sov_line: text('required on the price side'),
  description: text('required for a new SOV line'),
  section: text(),
  cost_code: text('required on the cost side'),
  cost_type: oneOf(COST_TYPES)('required on the cost side'),
  quantity: quantity(),
  unit: text(),
  hours: quantity(),
  amount: amount(REQUIRED, 'what counts'),
  asked: amount('where less was approved'),
};

export const changeOrderLines = bookFile({
  name: 'change_order_lines',
  columns: LINE,
  key: [],
  keyNote: 'rows add up',
  takenBy: 'contract',
  refers: {
    job: { to: jobs },
    change_order: {
      to: changeOrders,
      by: ['job', 'change_order'],
      whole: 'an approved change is altered by another change only',
    },
    cost_code: { to: costCodes },
    sov_line: { to: scheduleOfValues, by: ['job', 'sov_line'] },
  },
  query: `SELECT x.id, j.number AS job, o.number AS change_order, x.side, s.line AS sov_line, x.description, coalesce(l.section, x.section) AS section,
    l.cost_code, l.cost_type, x.quantity, x.unit, x.hours, x.amount, x.asked
    FROM change_order_line x JOIN change_order o ON o.id = x.change_order_id JOIN job j ON j.id = o.job_id LEFT JOIN sov_line s ON s.id = x.sov_line_id
    LEFT JOIN named_cost_line l ON l.id = x.cost_line_id`,
  declare: declareNewLine,
  check(row, book) {
    const missing = (column: string, message: string) =>
      book.fault(changeOrderLines, row, column, `missing required cell: ${message}`);
    if (row.side === 'price' && row.sov_line === null) missing('sov_line', 'a price line names its SOV line');
    if (row.side === 'price' && isChargedJob(book, row.job))
      book.refuse(changeOrderLines, row, refuse('charged-has-none', 'job', { job: row.job ?? '', what: 'price of changes' }));
    if (row.side === 'cost' && row.cost_code === null) missing('cost_code', 'a cost line names its cost code');
    if (row.side === 'cost' && row.cost_type === null) missing('cost_type', 'a cost line names its cost type');
    if (row.side === 'cost' && row.asked !== null && row.asked !== undefined)
      book.fault(changeOrderLines, row, 'asked', 'expected an empty cell: less is approved of a price, not of its cost');
    if (!isWhole(row)) book.own(unreliable).schedule(row.job);
  },
  acts: (rows, book): readonly BookAct[] => approvedChanges(rows, book),
  checkAll(rows, book): void {
    const changes = new Map<string, ReadRow<typeof LINE>[]>();
    for (const row of rows)
      if (row.side === 'price' && typeof row.amount === 'number') {
        const key = joinKey(row.job ?? '', row.change_order ?? '');
        changes.set(key, [...(changes.get(key) ?? []), row]);
      }
    for (const lines of changes.values()) {
      const last = lines.filter((it) => typeof it.asked === 'number').at(-1);
      const sum = (of: (row: ReadRow<typeof LINE>) => number) => lines.reduce((total, it) => total + of(it), 0);
      const refusal =
        last &&
        agreedRefusal(
          sum((it) => it.asked ?? it.amount ?? 0),
          sum((it) => it.amount ?? 0),
        );
      if (refusal) book.refuse(changeOrderLines, last, refusal, { agreed: 'asked' });
    }
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      ChangeOrderLineTable,
      rows.map((row) => ({
        change_order_id: into.id(changeOrders, row.job, row.change_order),
        side: row.side,
        sov_line_id: row.sov_line ? into.id(scheduleOfValues, row.job, row.sov_line) : null,
        cost_line_id:
          row.side === 'cost'
            ? into.costLine(
                into.id(jobs, row.job),
                { section: row.section, cost_code: present(row.cost_code), cost_type: present(row.cost_type) },
                costCodes,
              )
            : null,
        description: row.description ?? '',
        section: row.section ?? '',
        quantity: row.quantity,
        unit: row.unit ?? '',
        hours: row.hours,
        amount: row.amount,
        asked: row.asked,
      })),
    ),
});

/** Approved changes of the book, each at its first line: by the larger of price and cost. */
function approvedChanges(rows: readonly ReadRow<typeof LINE>[], book: BookCheck): BookAct[] {
  return book
    .rowsOf(changeOrders)
    .filter((change) => change.status === 'approved')
    .flatMap((change) => {
      const lines = rows.filter((it) => it.job === change.job && it.change_order === change.change_order);
      const [row] = lines;
      const sum = (side: string) => Math.abs(lines.reduce((total, it) => total + (it.side === side ? (it.amount ?? 0) : 0), 0));
      return row ? [{ row, column: 'amount', kind: 'change-order' as const, amount: Math.max(sum('price'), sum('cost')) }] : [];
    });
}

/** A price line may bring an SOV line, which then needs a description, and is there from then on. */
function declareNewLine(row: ReadRow<typeof LINE>, book: BookCheck): void {
  if (row.side !== 'price' || !row.sov_line || !row.job || !book.keysOf(jobs).has(row.job)) return;
  const [lines, key] = [book.keysOf(scheduleOfValues), joinKey(row.job, row.sov_line)];
  if (lines.has(key)) return;
  lines.declare(key);
  if (row.description === null)
    book.fault(
      changeOrderLines,
      row,
      'description',
      `missing required cell: ${row.sov_line} is a new SOV line and needs a description`,
    );
}
