import { comparePlain } from '../../core/costs/costType';
import { dayworkEntries } from '../daywork/dayworkEntries';
import type { Reader } from '../db/sql';
import { columns, totalRow, type Report, type ReportRequest } from '../reportFiles/report';
import { jobOf } from './jobOf';

const COLUMNS = columns(
  'dated:d:Dated',
  'source:t:Source',
  'reference:t:Reference',
  'cost_type:t:Cost type',
  'cost:a:Cost',
  'charge:a:Charge',
  'state:t:State',
);
const SOURCES = ['cost', 'time', 'bill', 'stock', 'equipment'];

/** What of a job's cost is charged or held by the date, entry by entry, and the invoice it is on (docs/rules.md §14). */
export async function dayworkReport(sql: Reader, request: ReportRequest): Promise<Report> {
  const job = await jobOf(sql, 'daywork', request);
  const rows = (await dayworkEntries(sql, job.id, request.asOf))
    .toSorted(
      (a, b) =>
        comparePlain(a.dated, b.dated) ||
        SOURCES.indexOf(a.source) - SOURCES.indexOf(b.source) ||
        comparePlain(a.reference, b.reference) ||
        a.id - b.id,
    )
    .map(({ dated, source, reference, costType, cost, charge, state }) => ({
      dated,
      source,
      reference,
      cost_type: costType,
      cost,
      charge,
      state,
    }));
  return {
    name: 'daywork',
    title: `Daywork, job ${job.number} ${job.name}`,
    columns: COLUMNS,
    rows: [...rows, totalRow(COLUMNS, rows, 'dated')],
    hasTotal: true,
  };
}
