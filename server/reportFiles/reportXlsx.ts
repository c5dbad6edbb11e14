import { present } from '../../core/errors/known';
import writeExcelFile from 'write-excel-file/node';
import { WHOLE } from '../../core/money/rate';
import type { Company } from '../company/company';
import type { Report, ReportColumn } from './report';
import { columnLetters, formulaOf } from './workbookFormulas';

/**
 * A report as a workbook: amounts are numbers with the currency's decimals, percentages are percentages; totals and what
 * follows from other columns are formulas, which keep their value for programs that do not calculate. Every column can be filtered.
 */
export async function reportXlsx(report: Report, company: Company): Promise<Buffer> {
  const head = report.columns.map((column) => ({ value: column.title, type: String, fontWeight: 'bold' as const, wrap: true }));
  const rows = report.rows.map((row, i) =>
    report.columns.map((column) =>
      cell(column, present(row[column.key]), company.digits, report.hasTotal && i === report.rows.length - 1),
    ),
  );
  const sheet = {
    sheet: report.name,
    columns: report.columns.map(({ kind, key }) => ({
      width: key === 'name' || key === 'description' ? 36 : kind === 'text' ? 14 : 16,
    })),
    stickyRowsCount: 1,
  };
  return writeExcelFile([head, ...rows], sheet, { features: [calculated(report, company.digits)] }).toBuffer();
}

type Feature = NonNullable<NonNullable<Parameters<typeof writeExcelFile>[1]>['features']>[number];

/** Writes formulas beside their values, and the filter, into the sheet: the package can write neither. */
function calculated(report: Report, digits: number): Feature {
  const formulas = new Map<string, string>();
  report.columns.forEach(({ key, kind }, column) =>
    report.rows.forEach((_, row) => {
      const formula = formulaOf(report, key, row, { amount: digits, percent: 6, hours: 4, rate: 4 }[kind as 'amount'] ?? 0);
      if (formula) formulas.set(`${columnLetters(column)}${row + 2}`, formula);
    }),
  );
  const listed = report.rows.length - (report.hasTotal ? 1 : 0);
  const filter = `<autoFilter ref="A1:${columnLetters(report.columns.length - 1)}${listed + 1}"/>`;
  const transform = (xml: string) =>
    xml
      .replace(/(<c r="([A-Z]+\d+)"[^>]*>)<v>/g, (cellWithValue: string, opening: string, at: string) => {
        const formula = formulas.get(at);
        return formula ? `${opening}<f>${formula}</f><v>` : cellWithValue;
      })
      .replace('</sheetData>', `</sheetData>${listed > 0 ? filter : ''}`);
  return { files: { transform: { 'xl/worksheets/sheet{id}.xml': { transform } } } };
}

function cell({ kind }: ReportColumn, value: string | number, digits: number, bold: boolean) {
  const weight = bold ? { fontWeight: 'bold' as const } : {};
  if (kind === 'date' && value !== '')
    return { value: new Date(`${value}T00:00:00Z`), type: Date, format: 'd mmm yyyy', ...weight };
  if (typeof value === 'string') return { value, type: String, ...weight };
  const scale = { amount: 10 ** digits, percent: WHOLE, hours: 10_000, rate: 10_000 }[kind as 'amount'] ?? 1;
  const format =
    { amount: digits === 0 ? '#,##0' : `#,##0.${'0'.repeat(digits)}`, percent: '0.00%', hours: '#,##0.##', rate: '#,##0.0000' }[
      kind as 'amount'
    ] ?? '0';
  return { value: value / scale, type: Number, format, ...weight };
}
