import { grouped } from '../../core/lists/grouped';
import {
  ESTIMATE_BY_NUMBER,
  ESTIMATES_OF_JOB,
  ESTIMATE_LINES,
  ESTIMATE_PARTS,
  ESTIMATE_MARKUPS,
  ESTIMATE_PRICES,
  QUOTATION_OF_ESTIMATE,
} from './queries';
import { at } from '../../core/errors/known';
import { type RowOf } from '../db/fields';
import { LedrinError } from '../../core/errors/ledrinError';
import { ESTIMATE_LIFE } from '../../core/estimates/estimateLife';
import { estimateRefusal, type MovingEstimate } from '../../core/estimates/estimateRefusals';
import { showIn } from '../../core/refusals/messages';
import { reasonsOf } from '../../core/refusals/reasons';
import { priceEstimate, type Estimate } from '../../core/estimates/estimate';
import type { EstimateListRow, EstimateView } from '../../wire/estimates';
import type { Reader } from '../db/sql';
import { loadDigits } from '../company/company';
import { jobByNumber } from '../jobs/jobByNumber';

type EstimateRow = RowOf<typeof ESTIMATE_BY_NUMBER>;

/** An estimate with what it is made of, and the unit costs it was priced at. Throws not-found. */
export async function loadEstimate(sql: Reader, job: string, number: number): Promise<LoadedEstimate> {
  const { id: jobId } = await jobByNumber(sql, job, 'job');
  const row = await sql.get(ESTIMATE_BY_NUMBER, [jobId, number]);
  if (!row) throw new LedrinError('not-found', `Job ${job} has no estimate ${number}`);
  return at(await withContent(sql, [row]), 0);
}

/** An estimate as the books hold it; `id` and the ids of its lines are the database's. */
export interface LoadedEstimate extends Estimate {
  row: EstimateRow;
  lineIds: ReadonlyMap<string, number>;
}

/** What the moves of an estimate depend on. */
export async function movingEstimate(sql: Reader, { row, lines }: LoadedEstimate): Promise<MovingEstimate> {
  const quoted = await sql.get(QUOTATION_OF_ESTIMATE, [row.id]);
  return {
    number: row.number,
    status: row.status,
    job: { number: row.job, status: row.jobStatus },
    hasLines: lines.length > 0,
    quotation: quoted?.number ?? null,
  };
}

async function reasonsAgainst(sql: Reader, estimate: LoadedEstimate): Promise<EstimateView['refused']> {
  const moving = await movingEstimate(sql, estimate);
  return reasonsOf(ESTIMATE_LIFE, (move) => estimateRefusal(move, moving), showIn(0));
}

/** Lines, parts, markups and unit costs of some estimates, each in its own order. */
function readContent(sql: Reader, rows: readonly EstimateRow[]) {
  const ids = JSON.stringify(rows.map((it) => it.id));
  return Promise.all([
    sql.all(ESTIMATE_LINES, [ids]),
    sql.all(ESTIMATE_PARTS, [ids]),
    sql.all(ESTIMATE_MARKUPS, [ids]),
    sql.all(ESTIMATE_PRICES, [ids]),
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
  const rows = await sql.all(ESTIMATES_OF_JOB, [id]);
  const list: EstimateListRow[] = [];
  for (const it of await withContent(sql, rows)) {
    const { cost, hours, price, marginRate, markupRate } = priceEstimate(it, digits).totals;
    const { number, name, status, chosen, savedBy, savedAt, sentOn, acceptedOn } = it.row;
    list.push({
      number,
      name,
      status,
      refused: await reasonsAgainst(sql, it),
      chosen: chosen === 1,
      savedBy,
      savedAt,
      sentOn,
      acceptedOn,
      lines: it.lines.length,
      cost,
      hours,
      price,
      marginRate,
      markupRate,
    });
  }
  return list;
}

export async function estimateView(sql: Reader, job: string, number: number): Promise<EstimateView> {
  const estimate = await loadEstimate(sql, job, number);
  const { row, lines, typeMarkups, sectionMarkups, overhead, profit, rounding, prices } = estimate;
  return {
    job: row.job,
    jobName: row.jobName,
    jobStatus: row.jobStatus,
    number: row.number,
    name: row.name,
    status: row.status,
    refused: await reasonsAgainst(sql, estimate),
    chosen: row.chosen === 1,
    version: row.version,
    savedBy: row.savedBy,
    savedAt: row.savedAt,
    sentOn: row.sentOn,
    reference: row.reference,
    acceptedOn: row.acceptedOn,
    acceptance: row.acceptance,
    lines,
    typeMarkups,
    sectionMarkups,
    overhead,
    profit,
    rounding,
    prices: [...prices].map(([code, shares]) => [code, [...shares]]),
  };
}
