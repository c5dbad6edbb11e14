import { entriesOf, inJob, type Place } from '../../core/places/place';
import { at } from '../../core/errors/known';
import { shape, t } from '../db/fields';
import { lastDay } from '../../core/calendar/plainDate';
import { hours, money, words, type Operand } from '../../core/workings/workings';
import type { Reader } from '../db/sql';
import type { JobIdentity } from '../jobs/jobByNumber';
import type { EstimatedLine } from '../reports/estimateVsActualReport';
import type { Explained } from './explained';

type LineSource = (sql: Reader, job: JobIdentity, line: EstimatedLine, asOf: string) => Promise<Explained>;

/** The entries of a cost line in a month. */
function entriesOfMonth(job: JobIdentity, line: EstimatedLine, month: string): Place {
  const { section, costCode, costType } = line;
  return entriesOf(job, { section, code: costCode, type: costType, from: `${month}-01`, to: lastDay(month) });
}

const budgetRows = async (sql: Reader, line: EstimatedLine) =>
  sql.all(
    shape({
      description: t.text,
      sov: t.orNull(t.text),
      amount: t.cents,
      hours: t.orNull(t.hours),
      estimateLine: t.orNull(t.text),
      estimate: t.orNull(t.cents),
    }),
    `SELECT b.description, s.line AS sov, b.amount, b.hours, e.line AS estimateLine, (SELECT number FROM estimate WHERE id = e.estimate_id) AS estimate
      FROM budget_line b LEFT JOIN sov_line s ON s.id = b.sov_line_id LEFT JOIN estimate_line e ON e.id = b.estimate_line_id WHERE b.cost_line_id = $1 ORDER BY b.id`,
    [line.id],
  );

const changeRows = (sql: Reader, line: EstimatedLine, asOf: string) =>
  sql.all(
    shape({ number: t.text, title: t.text, decided_on: t.day, amount: t.cents, hours: t.orNull(t.hours) }),
    `SELECT c.number, c.title, c.decided_on, c.amount, c.hours FROM approved_change_line c
      WHERE c.cost_line_id = $1 AND c.side = 'cost' AND c.decided_on <= $2 ORDER BY c.decided_on`,
    [line.id, asOf],
  );

const transferRows = (sql: Reader, line: EstimatedLine, asOf: string) =>
  sql.all(
    shape({ number: t.whole, dated: t.day, reason: t.text, amount: t.cents, hours: t.orNull(t.hours) }),
    `SELECT t.number, t.dated, t.reason, x.amount, x.hours FROM budget_transfer_line x JOIN budget_transfer t ON t.id = x.transfer_id
      WHERE x.cost_line_id = $1 AND t.dated <= $2 ORDER BY t.dated, t.number`,
    [line.id, asOf],
  );

const servesSov = (sov: string | null) => (sov === null ? '' : `, serves SOV line ${sov}`);
const ofEstimate = (line: string | null) => (line === null ? '' : `, from estimate line ${line}`);

/** Figures of one cost line that stand on postings. */
export const lineSources: Record<
  'lineOriginal' | 'lineChanges' | 'lineTransfers' | 'lineActual' | 'lineCommitted' | 'lineHoursBudgeted' | 'lineHoursActual',
  LineSource
> = {
  lineOriginal: async (sql, job, line) => ({
    rule: 'The budget as awarded; it is never edited.',
    operands: (await budgetRows(sql, line)).map((row) =>
      money(`${row.description || 'Budget'}${servesSov(row.sov)}${ofEstimate(row.estimateLine)}`, row.amount, '+', {
        to: row.estimate === null ? inJob(job, 'budget') : inJob(job, 'estimate', row.estimate),
      }),
    ),
  }),
  lineChanges: async (sql, job, line, asOf) => ({
    rule: 'Cost lines of change orders approved by the date.',
    operands: (await changeRows(sql, line, asOf)).map((row) =>
      money(`${row.number} ${row.title}, approved ${row.decided_on}`, row.amount, '+', { to: inJob(job, 'change', row.number) }),
    ),
  }),
  lineTransfers: async (sql, job, line, asOf) => ({
    rule: 'Budget moved to the line, or from it, by transfers made by the date.',
    operands: (await transferRows(sql, line, asOf)).map((row) =>
      money(`Transfer ${row.number} of ${row.dated}: ${row.reason}`, row.amount, '+', { to: inJob(job, 'budget') }),
    ),
  }),
  lineActual: async (sql, job, line, asOf) => {
    const rows = await sql.all(
      shape({ month: t.month, count: t.whole, amount: t.cents }),
      'SELECT substr(posted_on, 1, 7) AS month, count(*) AS count, sum(amount) AS amount FROM cost_entry WHERE job_id = $1 AND cost_line_id = $2 AND posted_on <= $3 GROUP BY 1',
      [job.id, line.id, asOf],
    );
    return {
      rule: 'Cost entries of the line dated on or before the date, month by month.',
      operands: rows.map((row) =>
        money(`${row.month}, ${row.count} ${row.count === 1 ? 'entry' : 'entries'}`, row.amount, '+', {
          to: entriesOfMonth(job, line, row.month),
        }),
      ),
    };
  },
  lineCommitted: async (sql, job, line, asOf) => {
    const rows = await sql.all(
      shape({ name: t.text, vendor: t.text, amount: t.cents, invoiced: t.cents, closed: t.flag }),
      `SELECT c.number || '/' || m.line AS name, v.name AS vendor, m.amount, coalesce(m.closed_on <= $2, 0) AS closed, coalesce((SELECT sum(amount) FROM cost_entry WHERE commitment_line_id = m.id AND posted_on <= $2), 0) AS invoiced
        FROM commitment_line m JOIN commitment c ON c.id = m.commitment_id JOIN vendor v ON v.id = c.vendor_id WHERE m.cost_line_id = $1 AND c.dated <= $2 ORDER BY c.number`,
      [line.id, asOf],
    );
    const operands = rows.flatMap((row): Operand[] => [
      money(`${row.name} ${row.vendor}, committed`, row.amount),
      money(`${row.name}, invoiced against it`, row.invoiced, '−', {
        to: entriesOf(job, { order: at(row.name.split('/'), 0) }),
      }),
      ...(row.closed
        ? [words(row.name, 'closed: nothing outstanding')]
        : row.invoiced > row.amount
          ? [words(row.name, 'invoiced in full or more: nothing outstanding')]
          : []),
    ]);
    return {
      rule: 'Each commitment less what was invoiced against it, never below nothing; nothing once it is closed.',
      operands,
    };
  },
  lineHoursBudgeted: async (sql, job, line, asOf) => ({
    rule: 'Hours of the budget, of approved change orders and of transfers.',
    operands: [
      ...(await budgetRows(sql, line)).map((row) =>
        hours(`${row.description || 'Budget'}${servesSov(row.sov)}`, row.hours ?? 0, '+', { to: inJob(job, 'budget') }),
      ),
      ...(await changeRows(sql, line, asOf)).map((row) =>
        hours(`${row.number} ${row.title}`, row.hours ?? 0, '+', { to: inJob(job, 'change', row.number) }),
      ),
      ...(await transferRows(sql, line, asOf)).map((row) =>
        hours(`Transfer ${row.number} of ${row.dated}`, row.hours ?? 0, '+', { to: inJob(job, 'budget') }),
      ),
    ],
  }),
  lineHoursActual: async (sql, job, line, asOf) => {
    const rows = await sql.all(
      shape({ month: t.month, amount: t.cents }),
      'SELECT substr(posted_on, 1, 7) AS month, sum(coalesce(hours, 0)) AS amount FROM cost_entry WHERE job_id = $1 AND cost_line_id = $2 AND posted_on <= $3 GROUP BY 1',
      [job.id, line.id, asOf],
    );
    return {
      rule: 'Hours of the entries of the line, month by month.',
      operands: rows.map((row) => hours(row.month, row.amount, '+', { to: entriesOfMonth(job, line, row.month) })),
    };
  },
};
