import type { Content, TableCell } from 'pdfmake';
import { displayDate } from '../../core/calendar/displayDate';
import { addDays, type PlainDate } from '../../core/calendar/plainDate';
import { weekBy } from '../../core/labour/overtime';
import { PAY_CLASSES } from '../../core/labour/payClass';
import { grouped } from '../../core/lists/grouped';
import { at } from '../../core/errors/known';
import { formatCents } from '../../core/money/cents';
import { formatScaled } from '../../core/money/decimal';
import { displayExact, displayQuantity } from '../../core/money/display';
import { formatQuantity } from '../../core/money/rate';
import { UNIT_COST_DECIMALS } from '../../core/prices/unitCost';
import type { WageRow, WageStatement } from '../../wire/payroll';
import { type Company, companyLogo, loadCompany } from '../company/company';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';
import { JobTable } from '../jobs/models';
import { ClientTable } from '../company/models';
import { EmployeeTable } from '../labour/models';
import { POSTED_ON_JOB } from '../labour/queries';
import { loadTerms } from '../labour/terms';
import { companyLetterhead } from '../pdf/letterhead';
import { ledgerLayout, makePdf } from '../pdf/pdf';
import { QUIET } from '../pdf/typefaces';
import { csvText, harmless } from '../reportFiles/reportCsv';
import { paidTime } from './paidTime';
import { payrollSetting } from './payroll';

const DAYS = [0, 1, 2, 3, 4, 5, 6];

/** Wages of a job in the week a day lies in: by worker, classes and rate, day by day; corrections of the week included. */
export async function wageStatement(sql: Reader, number: string, on: PlainDate): Promise<WageStatement> {
  const job = await jobByNumber(sql, number, 'job');
  const week = weekBy((await loadTerms(sql)).rules, on);
  const names = new Map((await sql.find(EmployeeTable, {})).map((it) => [it.code, it.name]));
  const there = await sql.findOne(JobTable, { id: job.id });
  const client = there && (await sql.findOne(ClientTable, { id: there.client_id }));
  const lines = await paidTime(sql, await sql.all(POSTED_ON_JOB, [job.id, week, addDays(week, DAYS.length - 1)]));
  const classOf = (it: (typeof lines)[number]) => it.wageClass || it.employeeClass;
  const groups = grouped(lines, (it) => JSON.stringify([it.employee, classOf(it), it.pay, it.rate, it.rung === 'piece']));
  const rows = [...groups.values()].map((of): WageRow => {
    const first = at(of, 0);
    const sum = (value: (it: (typeof lines)[number]) => number, from = of) => from.reduce((total, it) => total + value(it), 0);
    return {
      employee: first.employee,
      name: names.get(first.employee) ?? first.employee,
      wageClass: classOf(first),
      pay: first.pay,
      days: DAYS.map((i) =>
        sum(
          (it) => it.hours,
          of.filter((it) => it.dated === addDays(week, i)),
        ),
      ),
      hours: sum((it) => it.hours),
      rate: first.rate,
      byPiece: first.rung === 'piece',
      gross: sum((it) => it.payAmount),
      units: sum((it) => it.units ?? 0),
      topUp: sum((it) => (it.pieces ? it.payAmount - it.pieces.amount : 0)),
    };
  });
  // What was corrected to nothing says nothing.
  const shown = rows
    .filter((it) => it.hours !== 0 || it.gross !== 0)
    .sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : PAY_CLASSES.indexOf(a.pay) - PAY_CLASSES.indexOf(b.pay)));
  return {
    job: job.number,
    jobName: job.name,
    client: client?.name ?? '',
    week,
    rows: shown,
    hours: shown.reduce((sum, it) => sum + it.hours, 0),
    gross: shown.reduce((sum, it) => sum + it.gross, 0),
    declaration: (await payrollSetting(sql)).declaration,
  };
}

/** The statement as CSV: one row a worker, classes and rate. */
export function wageStatementCsv({ job, week, rows }: WageStatement, digits: number): string {
  const days = DAYS.map((i) => addDays(week, i));
  return csvText([
    ['job', 'employee', 'name', 'wage_class', 'pay', ...days, 'hours', 'rate', 'units', 'top_up', 'gross'],
    ...rows.map((it) => [
      ...[harmless(job), harmless(it.employee), harmless(it.name), harmless(it.wageClass), it.pay],
      ...it.days.map(formatQuantity),
      ...[formatQuantity(it.hours), formatScaled(it.rate, UNIT_COST_DECIMALS), formatQuantity(it.units)],
      ...[formatCents(it.topUp, digits), formatCents(it.gross, digits)],
    ]),
  ]);
}

export interface WageStatementDocument {
  company: Company;
  logo: string;
  statement: WageStatement;
}

export async function wageStatementDocument(sql: Reader, job: string, on: PlainDate): Promise<WageStatementDocument> {
  return { company: await loadCompany(sql), logo: await companyLogo(sql), statement: await wageStatement(sql, job, on) };
}

/** The statement as a document, with the declaration and a place to sign it. */
export function wageStatementPdf({ company, logo, statement }: WageStatementDocument): Promise<Buffer> {
  const { job, jobName, client, week, rows, hours, gross, declaration } = statement;
  const title = `Statement of wages, week of ${displayDate(week)}`;
  return makePdf({
    title: `${title}, job ${job}`,
    landscape: true,
    foot: `${company.name} · Job ${job} · ${title}`,
    content: [
      companyLetterhead(company, logo),
      { text: title, font: 'Serif', fontSize: 16 },
      {
        text: `Job ${job} ${jobName}, for ${client}. ${displayDate(week)} to ${displayDate(addDays(week, DAYS.length - 1))}. Amounts in ${company.currency}, before deductions.`,
        margin: [0, 2, 0, 10],
      },
      wagesTable(week, rows, { hours, gross }, company.digits),
      ...declared(declaration),
    ],
  });
}

function wagesTable(week: PlainDate, rows: readonly WageRow[], total: { hours: number; gross: number }, digits: number): Content {
  const right = (text: string, bold = false): TableCell => ({ text, alignment: 'right', noWrap: true, bold });
  const head = (text: string): TableCell => ({ text, bold: true });
  const hoursText = (value: number) => (value === 0 ? '' : displayQuantity(value));
  const rate = (it: WageRow) => `${formatScaled(it.rate, UNIT_COST_DECIMALS)}${it.byPiece ? ' a piece' : ''}`;
  const pieces = (it: WageRow) =>
    it.units === 0
      ? ''
      : `${displayQuantity(it.units)}${it.topUp === 0 ? '' : `, topped up by ${displayExact(it.topUp, digits)}`}`;
  return {
    fontSize: 8,
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths: ['*', 'auto', 'auto', ...DAYS.map(() => 'auto'), 'auto', 'auto', 'auto', 'auto'],
      body: [
        [
          ...[head('Worker'), head('Wage class'), head('Pay class')],
          ...DAYS.map((i) => right(displayDate(addDays(week, i)).replace(/ \d{4}$/, ''), true)),
          ...[right('Hours', true), right('Rate', true), right('Pieces', true), right('Gross', true)],
        ],
        ...rows.map((it) => [
          ...[it.name, it.wageClass, it.pay],
          ...it.days.map((day) => right(hoursText(day))),
          ...[right(displayQuantity(it.hours)), right(rate(it)), right(pieces(it)), right(displayExact(it.gross, digits))],
        ]),
        [
          ...[head('Total'), '', ''],
          ...DAYS.map((i) => right(hoursText(rows.reduce((sum, it) => sum + (it.days[i] ?? 0), 0)), true)),
          ...[right(displayQuantity(total.hours), true), '', '', right(displayExact(total.gross, digits), true)],
        ],
      ],
    },
    layout: ledgerLayout(1),
  };
}

function declared(declaration: string): Content[] {
  return [
    ...(declaration === ''
      ? []
      : [
          { text: 'Declaration', font: 'Serif', fontSize: 12, margin: [0, 18, 0, 4] as [number, number, number, number] },
          { text: declaration },
        ]),
    {
      margin: [0, 34, 0, 0],
      columns: ['Place and day', 'Name and office', 'Signature'].map((label) => ({
        stack: [
          { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 200, y2: 0, lineWidth: 0.5 }] },
          { text: label, fontSize: 8, color: QUIET },
        ],
      })),
    },
  ];
}
