import { dayOf } from '../acts/audit';
import type { PlainDate } from '../../core/calendar/plainDate';
import { LedrinError } from '../../core/errors/ledrinError';
import { ACCOUNTS } from '../../core/ledger/accounts';
import { present } from '../../core/errors/known';
import { columnsText, readColumns, USUAL_COLUMNS, type PayrollColumn, type PayrollField } from '../../core/labour/payroll';
import { multiplierText } from '../../core/labour/payClass';
import { formatCents } from '../../core/money/cents';
import { formatScaled } from '../../core/money/decimal';
import { formatQuantity } from '../../core/money/rate';
import { UNIT_COST_DECIMALS } from '../../core/prices/unitCost';
import type { NamedPayrollRow, OpenPayroll, PayrollProof, PayrollRun, PayrollRunView } from '../../wire/payroll';
import { displayExact, displayQuantity } from '../../core/money/display';
import { requireApproval } from '../approvals/requireApproval';
import { loadDigits } from '../company/company';
import { undoRefusal } from '../../core/labour/handOver';
import { messageOf, showIn } from '../../core/refusals/messages';
import { assertAllowed } from '../acts/refused';
import { nextId, type Reader, type Sql } from '../db/sql';
import type { Command } from '../acts/command';
import { csvText, harmless } from '../reportFiles/reportCsv';
import { digestOf } from '../versions/digest';
import { assertAsPreviewed, assertUnchanged } from '../versions/staleness';
import { PayrollLineTable, PayrollRunTable, PayrollSettingTable } from './models';
import { namedRows, postedLines, type PostedLine } from './paidTime';
import { LINES_OF_RUN, OPEN_TIME, PROOF, RUNS } from './queries';

interface Period {
  from: PlainDate;
  to: PlainDate;
}

/** What is posted and not handed over: of the period, and of the time before it that came late or was corrected. */
async function openLines(sql: Reader, { from, to }: Period): Promise<PostedLine[]> {
  if (to < from)
    throw new LedrinError('bad-input', `The period ends before it begins`, [
      { field: 'to', message: 'expected a day not before from' },
    ]);
  return postedLines(
    sql,
    (await sql.all(OPEN_TIME, [to])).map((it) => it.id),
  );
}

export async function openPayroll(sql: Reader, period: Period): Promise<OpenPayroll> {
  const lines = await openLines(sql, period);
  const rows = await namedRows(sql, lines);
  const earlier = lines.filter((it) => it.dated < period.from).length;
  return { seen: digestOf(shownOf(lines)), rows, earlier, lines: lines.length, proof: await proof(sql) };
}

/** What a page is shown of lines. */
const shownOf = (lines: readonly PostedLine[]) => lines.map((it) => it.id);

async function proof(sql: Reader): Promise<PayrollProof> {
  const { hours, amount, handedHours, handedAmount, ledger } = present(await sql.get(PROOF, [ACCOUNTS.wagesClearing.code]));
  return {
    posted: { hours, amount },
    handedOver: { hours: handedHours, amount: handedAmount },
    left: { hours: hours - handedHours, amount: amount - handedAmount },
    ledger,
  };
}

/** Hands lines over to payroll, each once for ever; a correction goes into the next hand-over. */
export async function handOver(
  command: Command,
  { from, to, seen, employees }: Period & { seen: string; employees: readonly string[] | null },
): Promise<{ run: number }> {
  const { sql, actor } = command;
  const lines = await openLines(sql, { from, to });
  assertAsPreviewed(command, 'The time', shownOf(lines), seen);
  const chosen = lines.filter((it) => employees === null || employees.includes(it.employee));
  if (chosen.length === 0)
    throw new LedrinError('refused', 'There is no time to hand over', [
      { field: 'employees', message: 'expected people with posted time' },
    ]);
  await requireForHandOver(command, { from, to }, chosen);
  const run = await sql.insert(PayrollRunTable, {
    from_day: from,
    to_day: to,
    handed_on: dayOf(actor),
    handed_by: actor.name,
  });
  const first = await nextId(sql, PayrollLineTable);
  await sql.insertAll(
    PayrollLineTable,
    chosen.map((it, i) => ({ id: first + i, payroll_run_id: run, time_line_id: it.id })),
  );
  command.note(`payroll ${run}`, { from, to, lines: chosen.length });
  return { run };
}

/** Lets time be handed over where no rule of the company has it approved first: measured by the gross pay of its rows. */
async function requireForHandOver(command: Command, { from, to }: Period, chosen: readonly PostedLine[]): Promise<void> {
  const rows = await namedRows(command.sql, chosen);
  const amount = rows.reduce((sum, it) => sum + it.amount, 0);
  await requireApproval(command, {
    kind: 'hand-over',
    jobId: null,
    document: '',
    amount,
    content: [from, to, shownOf(chosen)],
    facts: [
      ['Period', `${from} to ${to}`],
      ['People', String(new Set(chosen.map((it) => it.employee)).size)],
      ['Hours', displayQuantity(rows.reduce((sum, it) => sum + it.hours, 0))],
      ['Gross pay', displayExact(amount, await loadDigits(command.sql))],
    ],
  });
}

export async function payrollRuns(sql: Reader): Promise<{ runs: PayrollRun[] }> {
  return { runs: (await sql.all(RUNS)).map(({ lines: _lines, usedOn: _used, ...it }) => it) };
}

/** A hand-over with the newest one that stands. */
async function handOverOf(sql: Reader, id: number) {
  const runs = await sql.all(RUNS);
  const found = runs.find((it) => it.run === id);
  if (!found) throw new LedrinError('not-found', `There is no hand-over ${id}`);
  const standing = runs.filter((it) => it.undoneOn === null).map((it) => it.run);
  return { ...found, last: standing.length > 0 ? Math.max(...standing) : null };
}

/** Takes back a hand-over that nobody has used: its lines wait for the next one. Its number is not given again. */
export async function undoHandOver(command: Command, id: number): Promise<void> {
  const { sql, actor } = command;
  const found = await handOverOf(sql, id);
  assertAllowed([undoRefusal(found)], { code: 'refused' });
  await sql.remove(PayrollLineTable, { payroll_run_id: id });
  await sql.update(PayrollRunTable, { id }, { undone_on: dayOf(actor) });
  command.note(`payroll ${id}`, { undone: found.lines });
}

/** Notes that the file of a hand-over was taken: from then on payroll may have it. */
export async function noteUsed(sql: Sql, id: number, today: PlainDate): Promise<void> {
  if ((await handOverOf(sql, id)).usedOn === null) await sql.update(PayrollRunTable, { id }, { used_on: today });
}

export async function payrollRun(sql: Reader, id: number): Promise<PayrollRunView> {
  const found = await handOverOf(sql, id);
  const { from, to, handedOn, handedBy, people, hours, amount, undoneOn } = found;
  const refusal = undoRefusal(found);
  const of = await postedLines(
    sql,
    (await sql.all(LINES_OF_RUN, [id])).map((it) => it.id),
  );
  return {
    run: id,
    from,
    to,
    handedOn,
    handedBy,
    people,
    hours,
    amount,
    undoneOn,
    undoRefused: refusal && messageOf(refusal, showIn(0)),
    rows: await namedRows(sql, of),
    posted: { lines: found.lines, hours, amount },
  };
}

export async function payrollSetting(sql: Reader) {
  const saved = await sql.findOne(PayrollSettingTable, { id: 1 });
  const columns = readColumns(saved?.columns ?? '') ?? [];
  const setting = { columns: columns.length > 0 ? columns : [...USUAL_COLUMNS], declaration: saved?.declaration ?? '' };
  return { seen: digestOf(setting), ...setting };
}

export async function savePayrollSetting(
  command: Command,
  { seen, columns, declaration }: { seen: string; columns: PayrollColumn[]; declaration: string },
): Promise<void> {
  const { columns: was, declaration: before } = await payrollSetting(command.sql);
  const now = { columns: was, declaration: before };
  await assertUnchanged(command, 'How payroll is handed over', { subject: 'payroll', now, seen });
  if (columns.length === 0)
    throw new LedrinError('bad-input', 'Expected one column or more', [{ field: 'columns', message: 'expected columns' }]);
  await command.sql.save(PayrollSettingTable, [{ id: 1, declaration, columns: columnsText(columns) }], ['id']);
  command.note('payroll', { columns, declaration });
}

/** A hand-over as a file, in the columns the company set. */
export async function payrollCsv(sql: Reader, id: number): Promise<string> {
  const run = await payrollRun(sql, id);
  const { columns } = await payrollSetting(sql);
  const digits = await loadDigits(sql);
  const cell = (row: NamedPayrollRow): Record<PayrollField, string> => ({
    employee: harmless(row.employee),
    'payroll-number': harmless(row.payrollNumber),
    name: harmless(row.name),
    'pay-code': harmless(row.payCode),
    job: harmless(row.job),
    hours: formatQuantity(Number(row.hours)),
    rate: formatScaled(row.rate, UNIT_COST_DECIMALS),
    amount: formatCents(row.amount, digits),
    units: formatQuantity(row.units),
    'top-up': formatCents(row.topUp, digits),
    from: run.from,
    to: run.to,
    multiplier: row.isPieceWork ? '' : multiplierText(row.pay),
    rounding: formatCents(row.rounding, digits),
    'hand-over': String(run.run),
  });
  return csvText([
    columns.map((it) => harmless(it.title)),
    ...run.rows.map((row) => columns.map(({ field }) => cell(row)[field])),
  ]);
}
