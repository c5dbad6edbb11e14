import { at } from '../../core/errors/known';
import { shape, t, type RowOf } from '../db/fields';
import { LedrinError } from '../../core/errors/ledrinError';
import type { CostType } from '../../core/costs/costType';
import { priceEstimate, type Estimate } from '../../core/estimates/estimate';
import type { EstimateListRow, EstimateView } from '../../wire/estimates';
import type { Reader } from '../db/sql';
import { loadDigits } from '../company/company';
import { jobByNumber } from '../jobs/jobByNumber';

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
type EstimateRow = RowOf<typeof EstimateRow>;

const ROWS = `SELECT e.id, job.number AS job, job.name AS jobName, job.status AS jobStatus, e.number, e.name, e.status, e.chosen, e.overhead_rate AS overhead,
  e.profit_rate AS profit, e.rounding, e.version, e.saved_by AS savedBy, e.saved_at AS savedAt, e.sent_on AS sentOn, e.reference, e.accepted_on AS acceptedOn, e.acceptance
  FROM estimate e JOIN job ON job.id = e.job_id`;

/** An estimate with what it is made of, and the unit costs it was priced at. Throws not-found. */
export async function loadEstimate(sql: Reader, job: string, number: number): Promise<LoadedEstimate> {
  const { id: jobId } = await jobByNumber(sql, job, 'job');
  const row = await sql.get(EstimateRow, `${ROWS} WHERE e.job_id = $1 AND e.number = $2`, [jobId, number]);
  if (!row) throw new LedrinError('not-found', `Job ${job} has no estimate ${number}`);
  return at(await withContent(sql, [row]), 0);
}

/** An estimate as the books hold it; `id` and the ids of its lines are the database's. */
export interface LoadedEstimate extends Estimate {
  row: EstimateRow;
  lineIds: ReadonlyMap<string, number>;
}

/** Lines, parts, markups and unit costs of some estimates, each in its own order. */
function readContent(sql: Reader, rows: readonly EstimateRow[]) {
  const ids = JSON.stringify(rows.map((it) => it.id));
  const IN = '(SELECT value FROM json_each($1))';
  return Promise.all([
    sql.all(
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
      [ids],
    ),
    sql.all(
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
      [ids],
    ),
    sql.all(
      shape({ estimateId: t.whole, costType: t.orNull(t.oneOf<CostType>()), section: t.orNull(t.text), rate: t.rate }),
      `SELECT estimate_id AS estimateId, cost_type AS costType, section, rate FROM estimate_markup WHERE estimate_id IN ${IN} ORDER BY id`,
      [ids],
    ),
    sql.all(
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
      [ids],
    ),
  ]);
}

async function withContent(sql: Reader, rows: readonly EstimateRow[]): Promise<LoadedEstimate[]> {
  const [lines, parts, markups, prices] = await readContent(sql, rows);
  const partsOf = grouped(parts, (it) => it.lineId);
  return rows.map((row) => {
    const own = lines.filter((it) => it.estimateId === row.id);
    const ownMarkups = markups.filter((it) => it.estimateId === row.id);
    const shares = grouped(
      prices.filter((it) => it.estimateId === row.id),
      (it) => it.buildUp,
    );
    return {
      row,
      lineIds: new Map(own.map((it) => [it.line, it.id])),
      overhead: row.overhead,
      profit: row.profit,
      rounding: row.rounding,
      typeMarkups: Object.fromEntries(ownMarkups.filter((it) => it.costType).map((it) => [it.costType, it.rate])),
      sectionMarkups: Object.fromEntries(ownMarkups.filter((it) => it.section !== null).map((it) => [it.section, it.rate])),
      lines: own.map(({ id, estimateId: _, ...line }) => ({
        ...line,
        parts: (partsOf.get(id) ?? []).map(({ lineId: _, ...part }) => part),
      })),
      prices: new Map(
        [...shares].map(([code, list]) => [
          code,
          list.map(({ costCode, costType, markup, cost, hours }) => ({ costCode, costType, markup, cost, hours })),
        ]),
      ),
    };
  });
}

/** The estimates of a job, each with its totals as it was priced. */
export async function estimateList(sql: Reader, job: string): Promise<EstimateListRow[]> {
  const { id } = await jobByNumber(sql, job, 'job');
  const digits = await loadDigits(sql);
  const rows = await sql.all(EstimateRow, `${ROWS} WHERE e.job_id = $1 ORDER BY e.number`, [id]);
  return (await withContent(sql, rows)).map((it) => {
    const { cost, hours, price, marginRate, markupRate } = priceEstimate(it, digits).totals;
    const { number, name, status, chosen, savedBy, savedAt, sentOn, acceptedOn } = it.row;
    return {
      ...{ number, name, status, chosen: chosen === 1, savedBy, savedAt, sentOn, acceptedOn },
      ...{ lines: it.lines.length, cost, hours, price, marginRate, markupRate },
    };
  });
}

export async function estimateView(sql: Reader, job: string, number: number): Promise<EstimateView> {
  const { row, lines, typeMarkups, sectionMarkups, overhead, profit, rounding, prices } = await loadEstimate(sql, job, number);
  return {
    job: row.job,
    jobName: row.jobName,
    jobStatus: row.jobStatus,
    number: row.number,
    name: row.name,
    status: row.status,
    chosen: row.chosen === 1,
    version: row.version,
    savedBy: row.savedBy,
    savedAt: row.savedAt,
    sentOn: row.sentOn,
    reference: row.reference,
    acceptedOn: row.acceptedOn,
    acceptance: row.acceptance,
    ...{ lines, typeMarkups, sectionMarkups, overhead, profit, rounding },
    prices: [...prices].map(([code, shares]) => [code, [...shares]]),
  };
}

function grouped<Row, Key>(rows: readonly Row[], keyOf: (row: Row) => Key): Map<Key, Row[]> {
  const groups = new Map<Key, Row[]>();
  for (const row of rows) {
    const group = groups.get(keyOf(row));
    if (group) group.push(row);
    else groups.set(keyOf(row), [row]);
  }
  return groups;
}
