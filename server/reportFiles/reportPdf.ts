import { present } from '../../core/errors/known';
import { grouped } from '../../core/lists/grouped';
import { displayDate } from '../../core/calendar/displayDate';
import { formatScaled } from '../../core/money/decimal';
import { UNIT_COST_DECIMALS } from '../../core/prices/unitCost';
import { displayCents, displayPercent, displayQuantity } from '../../core/money/display';
import type { Company } from '../company/company';
import { totalRow, type Report, type ReportColumn, type ReportRow } from './report';
import { ledgerLayout, makePdf } from '../pdf/pdf';

/** A cell as people read it. */
export function readableCell({ kind }: ReportColumn, value: string | number, digits: number): string {
  if (kind === 'date') return displayDate(String(value));
  if (typeof value === 'string') return value;
  if (kind === 'amount') return displayCents(value, digits);
  if (kind === 'percent') return displayPercent(value);
  if (kind === 'rate') return formatScaled(value, UNIT_COST_DECIMALS);
  return kind === 'hours' ? displayQuantity(value) : String(value);
}

/** The rows as people read them: those of a group stand under its name and their sums, which are bold, as the total is. */
export function printedRows({ columns, rows, hasTotal, groups }: Report): { row: ReportRow; bold: boolean }[] {
  const isTotal = (i: number) => hasTotal && i === rows.length - 1;
  if (!groups) return rows.map((row, i) => ({ row, bold: isTotal(i) }));
  const { by, names, totals } = groups;
  const listed = rows.filter((_row, i) => !isTotal(i));
  const of = grouped(listed, (row) => String(row[by]));
  return [
    ...[...of].flatMap(([value, own]) => [
      { row: { ...(totals?.get(value) ?? totalRow(columns, own, by)), [by]: names.get(value) ?? value }, bold: true },
      ...own.map((row) => ({ row: { ...row, [by]: '' }, bold: false })),
    ]),
    ...rows.slice(listed.length).map((row) => ({ row, bold: true })),
  ];
}

/** A report on document: heads repeat on every page, the total stands under a rule. */
export async function reportPdf(report: Report, company: Company, asOf: string): Promise<Buffer> {
  const { columns } = report;
  const many = columns.length > 8;
  const isText = (column: ReportColumn) => column.kind === 'text' || column.kind === 'date';
  const body = [
    columns.map((column) => ({
      text: column.title,
      bold: true,
      alignment: isText(column) ? ('left' as const) : ('right' as const),
    })),
    ...printedRows(report).map(({ row, bold }) =>
      columns.map((column) => ({
        text: readableCell(column, present(row[column.key]), company.digits),
        bold,
        alignment: isText(column) ? ('left' as const) : ('right' as const),
        noWrap: !isText(column),
      })),
    ),
  ];
  return makePdf({
    title: report.title,
    landscape: many,
    foot: `${company.name} · ${report.title} · as of ${displayDate(asOf)}`,
    content: [
      { text: report.title, font: 'Serif', fontSize: 16 },
      { text: `${company.name}, as of ${displayDate(asOf)}. Amounts in ${company.currency}.`, margin: [0, 2, 0, 10] },
      {
        fontSize: many ? 6.6 : 8.5,
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: columns.map((column) => (column.key === 'name' || column.key === 'description' ? '*' : 'auto')),
          body,
        },
        layout: ledgerLayout(report.hasTotal ? 1 : 0),
      },
    ],
  });
}
