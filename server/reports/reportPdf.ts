import { present } from '../../core/errors/known';
import { displayDate } from '../../core/calendar/displayDate';
import { formatScaled } from '../../core/money/decimal';
import { UNIT_COST_DECIMALS } from '../../core/prices/unitCost';
import { displayCents, displayPercent, displayQuantity } from '../../core/money/display';
import type { Company } from '../company/company';
import type { Report, ReportColumn } from './report';
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

/** A report on document: heads repeat on every page, the total stands under a rule. */
export async function reportPdf(report: Report, company: Company, asOf: string): Promise<Buffer> {
  const { columns, rows } = report;
  const many = columns.length > 8;
  const isText = (column: ReportColumn) => column.kind === 'text' || column.kind === 'date';
  const body = [
    columns.map((column) => ({
      text: column.title,
      bold: true,
      alignment: isText(column) ? ('left' as const) : ('right' as const),
    })),
    ...rows.map((row, i) =>
      columns.map((column) => ({
        text: readableCell(column, present(row[column.key]), company.digits),
        bold: report.hasTotal && i === rows.length - 1,
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
