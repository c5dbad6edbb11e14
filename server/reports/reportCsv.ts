import { present } from '../../core/errors/known';
import { stringify } from 'csv-stringify/sync';
import { formatCents } from '../../core/money/cents';
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
    default:
      return String(value);
  }
}

/** A report as CSV, header first. */
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
