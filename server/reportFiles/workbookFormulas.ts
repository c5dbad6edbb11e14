import { ratio } from '../../core/money/rate';
import type { Report, ReportRow } from './report';

/**
 * The formula of a report's cell, without its equals sign; null where it is a figure of its own. A formula is given only
 * where it makes the very figure of the report, so that a workbook never says something else than the screen. `row` counts from 0; `decimals`
 * is what the cell's value is rounded to. The head is the first row of the sheet.
 */
export function formulaOf(report: Report, column: string, row: number, decimals: number): string | null {
  const at = (key: string) => `${columnLetters(report.columns.findIndex((it) => it.key === key))}${row + 2}`;
  const value = report.rows[row]?.[column];
  const figure = (key: string) => Number(report.rows[row]?.[key] ?? 0);
  const isTotal = report.hasTotal && row === report.rows.length - 1;
  const computed = report.computed?.[column];
  if (computed && 'of' in computed) {
    const { of, over } = computed;
    return value === ratio(figure(of), figure(over)) ? `IF(${at(over)}=0,0,ROUND(${at(of)}/${at(over)},${decimals}))` : null;
  }
  if (isTotal && row > 0 && value === sumAbove(report.rows, column)) {
    const letters = columnLetters(report.columns.findIndex((it) => it.key === column));
    return `ROUND(SUM(${letters}2:${letters}${row + 1}),${decimals})`;
  }
  if (!computed) return null;
  const { plus, minus = [], notBelowZero = false } = computed;
  const exact = plus.reduce((sum, key) => sum + figure(key), 0) - minus.reduce((sum, key) => sum + figure(key), 0);
  if (value !== (notBelowZero ? Math.max(0, exact) : exact)) return null;
  const sum = `ROUND(${[plus.map(at).join('+'), ...minus.map(at)].join('-')},${decimals})`;
  return notBelowZero ? `MAX(0,${sum})` : sum;
}

function sumAbove(rows: readonly ReportRow[], column: string): number {
  return rows.slice(0, -1).reduce((sum, row) => sum + Number(row[column]), 0);
}

/** A column's letters, counted from 0: A … Z, AA … */
export function columnLetters(index: number): string {
  const last = String.fromCharCode(65 + (index % 26));
  return index < 26 ? last : columnLetters(Math.floor(index / 26) - 1) + last;
}
