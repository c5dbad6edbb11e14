import {
  BUDGET_OF_LINE,
  CHANGES_OF_LINE,
  TRANSFERS_OF_LINE,
  ACTUAL_BY_MONTH,
  COMMITTED_OF_LINE,
  HOURS_BY_MONTH,
  HOURS_OF_MONTH_BY_SHEET,
} from './queries';
import { entriesOf, inJob, type Place } from '../../core/places/place';
import { at } from '../../core/errors/known';
import { displayPeriod } from '../../core/calendar/displayDate';
import { lastDay } from '../../core/calendar/plainDate';
import { hours, money, words, type Operand } from '../../core/workings/workings';
import type { Reader } from '../db/sql';
import type { JobIdentity } from '../jobs/jobByNumber';
import type { EstimatedLine } from '../costs/estimatedLines';
import type { Explained } from './figureFamily';

type LineSource = (sql: Reader, job: JobIdentity, line: EstimatedLine, asOf: string) => Promise<Explained>;

/** The entries of a cost line, on some days only where they are given. */
function entriesOfLine(job: JobIdentity, line: EstimatedLine, days: Readonly<Record<string, string>> = {}): Place {
  const { section, costCode, costType } = line;
  return entriesOf(job, { section, code: costCode, type: costType, ...days });
}

function entriesOfMonth(job: JobIdentity, line: EstimatedLine, month: string): Place {
  return entriesOfLine(job, line, { from: `${month}-01`, to: lastDay(month) });
}

const budgetRows = async (sql: Reader, line: EstimatedLine) => sql.all(BUDGET_OF_LINE, [line.id]);

const changeRows = (sql: Reader, line: EstimatedLine, asOf: string) => sql.all(CHANGES_OF_LINE, [line.id, asOf]);

const transferRows = (sql: Reader, line: EstimatedLine, asOf: string) => sql.all(TRANSFERS_OF_LINE, [line.id, asOf]);

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
    rule: 'Cost lines of change orders approved by the date, and the cost of daywork, for which the client pays besides.',
    operands: [
      ...(await changeRows(sql, line, asOf)).map((row) =>
        money(`${row.number} ${row.title}, approved ${row.decided_on}`, row.amount, '+', {
          to: inJob(job, 'change', row.number),
        }),
      ),
      ...(line.state.dayworkCost === 0
        ? []
        : [money('Cost of daywork', line.state.dayworkCost, '+', { to: inJob(job, 'charging') })]),
    ],
  }),
  lineTransfers: async (sql, job, line, asOf) => ({
    rule: 'Budget moved to the line, or from it, by transfers made by the date.',
    operands: (await transferRows(sql, line, asOf)).map((row) =>
      money(`Transfer ${row.number} of ${row.dated}: ${row.reason}`, row.amount, '+', { to: inJob(job, 'budget') }),
    ),
  }),
  lineActual: async (sql, job, line, asOf) => {
    const rows = await sql.all(ACTUAL_BY_MONTH, [job.id, line.id, asOf]);
    return {
      rule: 'Cost entries of the line dated on or before the date, month by month.',
      ...(rows.length > 1 ? { entries: entriesOfLine(job, line) } : {}),
      operands: rows.map((row) =>
        money(`${displayPeriod(row.month)}, ${row.count} ${row.count === 1 ? 'entry' : 'entries'}`, row.amount, '+', {
          to: entriesOfMonth(job, line, row.month),
        }),
      ),
    };
  },
  lineCommitted: async (sql, job, line, asOf) => {
    const rows = await sql.all(COMMITTED_OF_LINE, [line.id, asOf]);
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
      rule: 'Each commitment less what was invoiced against it, never below zero; zero once it is closed.',
      operands,
    };
  },
  lineHoursBudgeted: async (sql, job, line, asOf) => ({
    rule: 'Hours of the budget, of approved change orders and of transfers, and those of daywork.',
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
      ...(line.state.dayworkHours === 0
        ? []
        : [hours('Hours of daywork', line.state.dayworkHours, '+', { to: inJob(job, 'charging') })]),
    ],
  }),
  lineHoursActual: async (sql, job, line, asOf) => {
    const rows = await sql.all(HOURS_BY_MONTH, [job.id, line.id, asOf]);
    const newest = rows.at(-1);
    if (!newest) return { rule: 'Hours of the entries of the line, month by month.', operands: [] };
    const sheets = await sql.all(HOURS_OF_MONTH_BY_SHEET, [job.id, line.id, newest.month, asOf]);
    const ofMonth = (month: string, amount: number) =>
      hours(displayPeriod(month), amount, '+', { to: entriesOfMonth(job, line, month) });
    return {
      rule: 'Hours of the entries of the line, month by month; those of the newest month by week sheet.',
      operands: [
        ...rows.slice(0, -1).map((row) => ofMonth(row.month, row.amount)),
        ...sheets.map(({ sheet, amount }) =>
          sheet === null
            ? ofMonth(newest.month, amount)
            : hours(`${displayPeriod(newest.month)}, week sheet ${sheet}`, amount, '+', {
                to: { place: 'week-sheet', document: sheet },
              }),
        ),
      ],
    };
  },
};
