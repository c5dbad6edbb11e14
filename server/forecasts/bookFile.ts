import { COST_TYPES } from '../../core/costs/costType';
import { known } from '../../core/errors/known';
import { FORECAST_METHODS } from '../../core/forecast/estimateAtCompletion';
import { shared } from '../bookFormat/bookCheck';
import { bookFile } from '../bookFormat/bookFile';
import { readCell } from '../bookFormat/cells';
import { date, forecastValue, oneOf, REQUIRED, text } from '../bookFormat/columns';
import { costCodes } from '../company/book/bookFiles';
import { jobs } from '../jobs/bookFiles';
import { ForecastTable } from './models';

const VALUE_KINDS = { 'to-complete': 'amount', percent: 'percent', hours: 'quantity' } as const;

/** Values by row, scaled by their method: money, a rate, or hours. */
const values = shared(() => new Map<number, number>());

export const forecasts = bookFile({
  name: 'forecasts',
  columns: {
    job: text(REQUIRED),
    as_of: date(REQUIRED),
    section: text(),
    cost_code: text(REQUIRED),
    cost_type: oneOf(COST_TYPES)(REQUIRED),
    method: oneOf(FORECAST_METHODS)(REQUIRED),
    value: forecastValue(REQUIRED),
    note: text(),
  },
  key: ['job', 'as_of', 'section', 'cost_code', 'cost_type'],
  takenBy: 'final',
  refers: { job: { to: jobs }, cost_code: { to: costCodes } },
  query: `SELECT f.id, l.job, f.as_of, l.section, l.cost_code, l.cost_type, f.method, f.value, f.note
    FROM forecast f JOIN named_cost_line l ON l.id = f.cost_line_id`,
  countsOn: ({ as_of }) => ({ as_of }),
  check(row, book) {
    if (!row.method || !row.value) return;
    const cell = readCell({ kind: VALUE_KINDS[row.method], required: true }, row.value, book.digits);
    if ('fault' in cell) book.fault(forecasts, row, 'value', cell.fault);
    else book.own(values).set(row.row, cell.value as number);
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      ForecastTable,
      rows.map((row) => ({
        cost_line_id: into.costLine(into.id(jobs, row.job), row, costCodes),
        as_of: row.as_of,
        method: row.method,
        value: known(into.book.own(values), row.row),
        note: row.note ?? '',
      })),
    ),
});
