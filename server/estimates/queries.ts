import type { CostType } from '../../core/costs/costType';
import type { EstimateView } from '../../wire/estimates';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const TENDER_IN_USE = query(
  shape({ used: t.flag }),
  `SELECT 1 AS used FROM change_order WHERE job_id = $1 UNION ALL SELECT 1 FROM cost_entry WHERE job_id = $1
      UNION ALL SELECT 1 FROM commitment_line m JOIN cost_line l ON l.id = m.cost_line_id WHERE l.job_id = $1 LIMIT 1`,
);

export const LAST_ESTIMATE = query(
  shape({ number: t.orNull(t.whole) }),
  'SELECT max(number) AS number FROM estimate WHERE job_id = $1',
);

export const COST_CODES = query(shape({ code: t.text }), 'SELECT code FROM cost_code');

export const QUOTATION_OF_ESTIMATE = query(shape({ number: t.whole }), 'SELECT number FROM quotation WHERE estimate_id = $1');

const EstimateRow = shape({
  id: t.whole,
  job: t.text,
  jobName: t.text,
  jobStatus: t.text,
  number: t.whole,
  name: t.text,
  status: t.oneOf<EstimateView['status']>(),
  chosen: t.flag,
  overhead: t.whole,
  profit: t.whole,
  rounding: t.whole,
  version: t.whole,
  savedBy: t.text,
  savedAt: t.moment,
  sentOn: t.orNull(t.day),
  reference: t.text,
  acceptedOn: t.orNull(t.day),
  acceptance: t.text,
});

const ROWS = `SELECT e.id, job.number AS job, job.name AS jobName, job.status AS jobStatus, e.number, e.name, e.status, e.chosen, e.overhead_rate AS overhead,
  e.profit_rate AS profit, e.rounding, e.version, e.saved_by AS savedBy, e.saved_at AS savedAt, e.sent_on AS sentOn, e.reference, e.accepted_on AS acceptedOn, e.acceptance
  FROM estimate e JOIN job ON job.id = e.job_id`;

export const ESTIMATE_BY_NUMBER = query(EstimateRow, `${ROWS} WHERE e.job_id = $1 AND e.number = $2`);

export const ESTIMATES_OF_JOB = query(EstimateRow, `${ROWS} WHERE e.job_id = $1 ORDER BY e.number`);

/** The estimates whose ids are in the list `$1`. */
const IN = '(SELECT value FROM json_each($1))';

export const ESTIMATE_LINES = query(
  shape({
    quantity: t.quantity,
    line: t.text,
    section: t.text,
    description: t.text,
    unit: t.text,
    buildUp: t.text,
    markup: t.orNull(t.rate),
    id: t.whole,
    estimateId: t.whole,
  }),
  `SELECT id, estimate_id AS estimateId, line, section, description, quantity, unit, build_up AS buildUp, markup_rate AS markup
        FROM estimate_line WHERE estimate_id IN ${IN} ORDER BY id`,
);

export const ESTIMATE_PARTS = query(
  shape({
    item: t.text,
    description: t.text,
    costCode: t.text,
    costType: t.oneOf<CostType>(),
    basis: t.oneOf<'per-unit' | 'in-all'>(),
    quantity: t.quantity,
    unit: t.text,
    unitCost: t.unitCost,
    markup: t.orNull(t.rate),
    lineId: t.whole,
  }),
  `SELECT p.estimate_line_id AS lineId, p.price_item AS item, p.description, c.code AS costCode, p.cost_type AS costType, p.basis, p.quantity, p.unit,
        p.unit_cost AS unitCost, p.markup_rate AS markup FROM estimate_part p JOIN cost_code c ON c.id = p.cost_code_id
        WHERE p.estimate_line_id IN (SELECT id FROM estimate_line WHERE estimate_id IN ${IN}) ORDER BY p.id`,
);

export const ESTIMATE_MARKUPS = query(
  shape({ estimateId: t.whole, costType: t.orNull(t.oneOf<CostType>()), section: t.orNull(t.text), rate: t.rate }),
  `SELECT estimate_id AS estimateId, cost_type AS costType, section, rate FROM estimate_markup WHERE estimate_id IN ${IN} ORDER BY id`,
);

export const ESTIMATE_PRICES = query(
  shape({
    costCode: t.text,
    costType: t.oneOf<CostType>(),
    markup: t.orNull(t.rate),
    cost: t.unitCost,
    hours: t.hours,
    estimateId: t.whole,
    buildUp: t.text,
  }),
  `SELECT p.estimate_id AS estimateId, p.build_up AS buildUp, c.code AS costCode, p.cost_type AS costType, p.markup_rate AS markup, p.unit_cost AS cost, p.hours
        FROM estimate_price p JOIN cost_code c ON c.id = p.cost_code_id WHERE p.estimate_id IN ${IN} ORDER BY p.id`,
);
