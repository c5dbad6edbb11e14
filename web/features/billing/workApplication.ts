import { at } from '../../../core/errors/known';
import { overbilledBy, overbillings, overbillingText } from '../../../core/billing/overbilling';
import { totalsOf } from '../../../core/billing/totals';
import { retentionToDate } from '../../../core/billing/retention';
import { formatPercentShortest, parseMarkup, rateOf, ratio } from '../../../core/money/rate';
import { displayExact } from '../../../core/money/display';
import type { SummaryFigure } from '../../../core/billing/summaryFigures';
import type { ApplicationView, BilledLineView } from '../../../wire/billing';
import type { GridRow } from '../../kit/grid/gridTypes';
import { readAmount } from '../../kit/typed/readAmount';

/** The ways a line may be entered; the others follow from the last one typed. */
export type EntryKey = 'percent' | 'work' | 'period' | 'materials';

export interface WorkedLine {
  work: number;
  materials: number;
  retention: number;
}

/** The cells of a line as they stand for figures to date. */
export function cellsOf(line: BilledLineView, work: number, materials: number, digits: number): GridRow {
  return {
    percent: work === 0 ? '' : formatPercentShortest(ratio(work, line.scheduled)),
    work: work === 0 ? '' : displayExact(work, digits),
    period: work === line.previousWork ? '' : displayExact(work - line.previousWork, digits),
    materials: materials === 0 ? '' : displayExact(materials, digits),
  };
}

/** Takes what was typed in one cell of a line and lets the other cells follow. What cannot be read stays as typed. */
export function followEntry(line: BilledLineView, row: GridRow, key: EntryKey, digits: number): GridRow {
  const typed = (row[key] ?? '').trim();
  const materials = readAmount(row.materials || '0', digits) ?? 0;
  if (key === 'materials') {
    const value = readAmount(typed || '0', digits);
    return value === null ? row : { ...row, materials: value === 0 ? '' : displayExact(value, digits) };
  }
  const work = workFrom(line, typed, key, digits);
  return work === null ? row : { ...cellsOf(line, work, materials, digits), materials: row.materials ?? '' };
}

function workFrom(line: BilledLineView, typed: string, key: Exclude<EntryKey, 'materials'>, digits: number): number | null {
  if (key === 'percent') {
    // More than all of it follows too: then the amount is said to pass the scheduled value, and may be allowed to.
    const rate = parseMarkup((typed || '0').replace(/\s*%$/, ''));
    return rate.ok && rate.value >= 0 ? rateOf(rate.value, line.scheduled) : null;
  }
  const amount = readAmount(typed || '0', digits);
  if (amount === null) return null;
  return key === 'work' ? amount : line.previousWork + amount;
}

export interface WorkedApplication {
  lines: WorkedLine[];
  faults: Map<string, string>;
  summary: Record<SummaryFigure, number>;
  /** By how much its lines pass their scheduled values, together. */
  above: number;
}

/** Works out an application from its cells, with the same core that the server certifies by. */
export function workApplication(view: ApplicationView, rows: readonly GridRow[], digits: number): WorkedApplication {
  const faults = new Map<string, string>();
  const read = (at: string, text: string | undefined) => {
    const value = readAmount((text ?? '').trim() || '0', digits);
    if (value === null) faults.set(at, `"${text}" is not a valid amount; enter one such as 12,500.00`);
    return value ?? 0;
  };
  const amounts = view.lines.map((line, i) => ({
    work: read(`${i}.work`, rows[i]?.work),
    materials: read(`${i}.materials`, rows[i]?.materials),
    rate: line.retentionRate,
  }));
  const stated = view.lines.map(({ line }, i) => {
    const { work = 0, materials = 0 } = amounts[i] ?? {};
    return { line, work, materials, certifiedWork: null, certifiedMaterials: null };
  });
  const above = overbilledBy(stated, new Map(view.lines.map((it) => [it.line, it.scheduled])));
  view.lines.forEach((line, i) => {
    const { work, materials } = at(stated, i);
    const [over] = above > view.above ? overbillings(at(stated, i), line.scheduled) : [];
    if (over) faults.set(`${i}.${over.figure}`, overbillingText(over, work + materials, digits));
    noteUnread(rows[i] ?? {}, i, cellsOf(line, work, materials, digits), faults);
  });
  const retention = retentionToDate(view.retentionRule, view.summary.contractSum, amounts);
  const totals = totalsOf({ ...view.summary, taxRate: view.taxRate }, amounts, retention);
  return {
    faults,
    above,
    lines: amounts.map(({ work, materials }, i) => ({ work, materials, retention: retention.byLine[i] ?? 0 })),
    summary: { ...view.summary, ...totals, retention: retention.total },
  };
}

/**
 * A percent or a period that could not be read has not followed into the amount: it says something else than the amount does, and
 * must be said by itself.
 */
function noteUnread(row: GridRow, i: number, follows: GridRow, faults: Map<string, string>): void {
  const unread = (key: 'percent' | 'period') => {
    const typed = (row[key] ?? '').trim();
    return typed !== '' && typed !== follows[key] ? typed : null;
  };
  const [percent, period] = [unread('percent'), unread('period')];
  if (percent !== null && Number(percent.replace('%', '')) > 100)
    faults.set(`${i}.percent`, `${percent} % is more than the whole line; bill 100 % or less to date`);
  else if (percent !== null) faults.set(`${i}.percent`, `"${percent}" is not a percentage from 0 to 100 with up to 4 decimals`);
  if (period !== null) faults.set(`${i}.period`, `"${period}" is not a valid amount; enter one such as 12,500.00`);
}
