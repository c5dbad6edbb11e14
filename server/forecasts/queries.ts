import { COST_TYPES } from '../../core/costs/costType';
import { FORECAST_METHODS } from '../../core/forecast/estimateAtCompletion';
import { shape, t } from '../db/fields';
import { query } from '../db/query';

const FORECAST = {
  id: t.whole,
  section: t.text,
  costCode: t.text,
  costType: t.oneOf(...COST_TYPES),
  on: t.day,
  method: t.oneOf(...FORECAST_METHODS),
  value: t.whole,
  note: t.text,
};

/** Forecasts of job `$1` by the day `$2`, newest first on each cost line. */
export const FORECASTS = query(
  shape(FORECAST),
  `SELECT l.id, l.section, c.code AS costCode, l.cost_type AS costType, f.as_of AS "on", f.method, f.value, f.note
    FROM forecast f JOIN cost_line l ON l.id = f.cost_line_id JOIN cost_code c ON c.id = l.cost_code_id
    WHERE l.job_id = $1 AND f.as_of <= $2 ORDER BY l.section, c.code, l.cost_type, f.as_of DESC`,
);

/** Takes out the forecasts of job `$1` of the day `$2`. */
export const DELETE_FORECASTS =
  'DELETE FROM forecast WHERE as_of = $2 AND cost_line_id IN (SELECT id FROM cost_line WHERE job_id = $1)';
