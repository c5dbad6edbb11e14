import { present } from '../../core/errors/known';
import writeExcelFile from 'write-excel-file/node';
import { WHOLE } from '../../core/money/rate';
import type { Company } from '../company/company';
import type { Report, ReportColumn } from './report';

/** A report as a workbook: amounts are numbers with the currency's decimals, percentages are percentages. */
export async function reportXlsx(report: Report, company: Company): Promise<Buffer> {
  const head = report.columns.map((column) => ({ value: column.title, type: String, fontWeight: 'bold' as const, wrap: true }));
  const rows = report.rows.map((row, i) =>
    report.columns.map((column) =>
      cell(column, present(row[column.key]), company.digits, report.hasTotal && i === report.rows.length - 1),
    ),
  );
  return writeExcelFile([head, ...rows], {
    sheet: report.name,
    columns: report.columns.map(({ kind, key }) => ({
      width: key === 'name' || key === 'description' ? 36 : kind === 'text' ? 14 : 16,
    })),
    stickyRowsCount: 1,
  }).toBuffer();
}

function cell({ kind }: ReportColumn, value: string | number, digits: number, bold: boolean) {
  const weight = bold ? { fontWeight: 'bold' as const } : {};
  if (kind === 'date' && value !== '')
    return { value: new Date(`${value}T00:00:00Z`), type: Date, format: 'd mmm yyyy', ...weight };
  if (typeof value === 'string') return { value, type: String, ...weight };
  const scale = { amount: 10 ** digits, percent: WHOLE, hours: 10_000 }[kind as 'amount'] ?? 1;
  const format =
    { amount: digits === 0 ? '#,##0' : `#,##0.${'0'.repeat(digits)}`, percent: '0.00%', hours: '#,##0.##' }[kind as 'amount'] ??
    '0';
  return { value: value / scale, type: Number, format, ...weight };
}
