import { present } from '../../core/errors/known';
import { stringify } from 'csv-stringify/sync';
import { formatCents } from '../../core/money/cents';
import { formatScaled } from '../../core/money/decimal';
import { UNIT_COST_DECIMALS } from '../../core/prices/unitCost';
import { formatPercent, formatQuantity } from '../../core/money/rate';
import type { Report, ReportColumn } from './report';

/** A cell as docs/book.md writes it: amounts with the currency's decimals, percentages with four, hours in their shortest form. */
export function cellText({ kind }: Pick<ReportColumn, 'kind'>, value: string | number, digits: number): string {
  if (typeof value === 'string') return value;
  switch (kind) {
    case 'amount':
      return formatCents(value, digits);
    case 'percent':
      return formatPercent(value);
    case 'hours':
      return formatQuantity(value);
    case 'rate':
      return formatScaled(value, UNIT_COST_DECIMALS);
    default:
      return String(value);
  }
}

/** Text that a spreadsheet would work out as a formula, so that it is shown as it is: with an apostrophe before it. */
export function harmless(text: string): string {
  return /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
}

/** A report for a spreadsheet: as CSV, with no text that works. */
export function reportCsvForSpreadsheet(report: Report, digits: number): string {
  const text = (value: string | number) => (typeof value === 'string' ? harmless(value) : value);
  const rows = report.rows.map((row) => Object.fromEntries(Object.entries(row).map(([key, value]) => [key, text(value)])));
  return reportCsv({ ...report, rows }, digits);
}

/** A report as CSV, header first, verbatim: what the command line gives. */
export function reportCsv(report: Report, digits: number): string {
  return csvText([
    report.columns.map((it) => it.key),
    ...report.rows.map((row) => report.columns.map((column) => cellText(column, present(row[column.key]), digits))),
  ]);
}

/** Records as RFC 4180 text. */
export function csvText(records: readonly (readonly string[])[]): string {
  return stringify(records as string[][], { record_delimiter: 'unix' });
}
