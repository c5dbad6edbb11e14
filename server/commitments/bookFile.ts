import { COST_TYPES } from '../../core/costs/costType';
import { shared } from '../bookFormat/bookCheck';
import { bookFile } from '../bookFormat/bookFile';
import { amount, date, oneOf, percent, quantity, REQUIRED, text } from '../bookFormat/columns';
import { joinKey } from '../bookFormat/keys';
import { costCodes, vendors } from '../company/book/bookFiles';
import { jobs } from '../jobs/bookFiles';
import { CommitmentLineTable, CommitmentTable } from './models';

/** The job of every commitment line the book declares. */
export const lineJobs = shared(() => new Map<string, string>());

export const commitments = bookFile({
  name: 'commitments',
  columns: {
    commitment: text(REQUIRED),
    kind: oneOf(['purchase-order', 'subcontract'])(REQUIRED),
    vendor: text(REQUIRED),
    dated: date(REQUIRED),
    job: text(REQUIRED),
    line: text(REQUIRED),
    section: text(),
    cost_code: text(REQUIRED),
    cost_type: oneOf(COST_TYPES)(REQUIRED),
    description: text(),
    quantity: quantity(),
    unit: text(),
    amount: amount(REQUIRED),
    retention_percent: percent(),
    closed_on: date(),
  },
  key: ['commitment', 'line'],
  called: 'line',
  head: {
    by: ['commitment'],
    called: 'commitment',
    same: ['kind', 'vendor', 'dated', 'retention_percent'],
    joins: true,
    existing: `SELECT k.id, k.number AS commitment, k.kind, v.code AS vendor, k.dated, k.retention_rate AS retention_percent
      FROM commitment k JOIN vendor v ON v.id = k.vendor_id`,
  },
  takenBy: 'final',
  refers: { vendor: { to: vendors }, job: { to: jobs }, cost_code: { to: costCodes } },
  query: `SELECT m.id, k.number AS commitment, k.kind, v.code AS vendor, k.dated, l.job, m.line, l.section, l.cost_code, l.cost_type, m.description, m.quantity,
    m.unit, m.amount, k.retention_rate AS retention_percent, m.closed_on
    FROM commitment_line m JOIN commitment k ON k.id = m.commitment_id JOIN vendor v ON v.id = k.vendor_id JOIN named_cost_line l ON l.id = m.cost_line_id`,
  existing: `SELECT m.id, k.number AS commitment, m.line, l.job FROM commitment_line m JOIN commitment k ON k.id = m.commitment_id
    JOIN named_cost_line l ON l.id = m.cost_line_id`,
  declare(row, book) {
    if (row.commitment && row.line && row.job) book.own(lineJobs).set(joinKey(row.commitment, row.line), row.job);
  },
  check(row, book) {
    if (row.closed_on && row.dated && row.closed_on < row.dated)
      book.fault(commitments, row, 'closed_on', `${row.closed_on} is before dated, ${row.dated}`);
  },
  async save(rows, into) {
    await into.heads(
      commitments,
      CommitmentTable,
      rows,
      (row) => [row.commitment],
      (row) => ({
        number: row.commitment,
        kind: row.kind,
        vendor_id: into.id(vendors, row.vendor),
        dated: row.dated,
        retention_rate: row.retention_percent,
      }),
    );
    await into.keyed(
      commitments,
      CommitmentLineTable,
      rows,
      (row) => [row.commitment, row.line],
      (row) => ({
        commitment_id: into.headId(commitments, row.commitment),
        line: row.line,
        cost_line_id: into.costLine(into.id(jobs, row.job), row, costCodes),
        description: row.description ?? '',
        quantity: row.quantity,
        unit: row.unit ?? '',
        amount: row.amount,
        closed_on: row.closed_on,
      }),
    );
  },
});
