import { QUANTITY_FIGURES, type QuantityFigure } from '../../core/forecast/quantities';
import { quantityLines } from '../costs/lineQuantities';
import type { Reader } from '../db/sql';
import { jobOf } from './jobOf';
import { columns, type Report, type ReportColumn, type ReportRequest } from '../reportFiles/report';

const FIGURES = Object.entries(QUANTITY_FIGURES) as [QuantityFigure, (typeof QUANTITY_FIGURES)[QuantityFigure]][];
const KINDS = { quantity: 'hours', 'unit-cost': 'rate', money: 'amount' } as const;

const COLUMNS: ReportColumn[] = [
  ...columns('section:t:Section', 'cost_code:t:Cost code', 'cost_type:t:Cost type', 'unit:t:Unit'),
  ...FIGURES.map(([, { column, head, unit }]): ReportColumn => ({ key: column, title: head, kind: KINDS[unit] })),
];

/** Cost lines of one job by quantity, docs/rules.md §5a: what is over by quantity, and what is dear. */
export async function quantitiesReport(sql: Reader, request: ReportRequest): Promise<Report> {
  const job = await jobOf(sql, 'quantities', request);
  const rows = (await quantityLines(sql, job, request.asOf)).map((line) => ({
    section: line.section,
    cost_code: line.costCode,
    cost_type: line.costType,
    unit: line.quantities.unit,
    ...Object.fromEntries(FIGURES.map(([, { column, key }]) => [column, line.quantities[key] ?? ''])),
  }));
  return { name: 'quantities', title: `Quantities, job ${job.number} ${job.name}`, columns: COLUMNS, rows, hasTotal: false };
}
