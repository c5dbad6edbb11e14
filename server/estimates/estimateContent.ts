import { ESTIMATE_LIFE } from '../../core/estimates/estimateLife';
import { assertMove } from '../http/refused';
import { type Fault } from '../../core/errors/ledrinError';
import { priceEstimate, type Estimate } from '../../core/estimates/estimate';
import { LARGEST_AMOUNT } from '../../core/money/cents';
import { bulkInsert, nextId, type Reader, type Sql } from '../db/sql';
import { costCodeIds } from '../costs/costCodes';
import { loadEstimate, type LoadedEstimate } from './estimateViews';
import type { Actor } from '../ledger/audit';

/** What a person may change of a draft; the unit costs of its build-ups stand beside it. */
export type EstimateContent = Omit<Estimate, 'prices'> & { name: string };

/** The columns in which an estimate is written, by the draft's commands and by the import of a book alike. */
export const ESTIMATE_COLUMNS = {
  estimate_markup: ['estimate_id', 'cost_type', 'section', 'rate'],
  estimate_line: ['estimate_id', 'line', 'section', 'description', 'quantity', 'unit', 'build_up', 'markup_rate'],
  estimate_part: [
    ...['estimate_line_id', 'price_item', 'description', 'cost_code_id', 'cost_type', 'basis', 'quantity', 'unit'],
    ...['unit_cost', 'markup_rate'],
  ],
  estimate_price: ['estimate_id', 'build_up', 'cost_code_id', 'cost_type', 'markup_rate', 'unit_cost', 'hours'],
};

/** An estimate that is to make a move of its life. */
export async function movable(
  sql: Reader,
  move: keyof typeof ESTIMATE_LIFE,
  job: string,
  number: number,
): Promise<LoadedEstimate> {
  const estimate = await loadEstimate(sql, job, number);
  assertMove(ESTIMATE_LIFE, move, `Estimate ${number}`, estimate.row.status);
  return estimate;
}

/** Gives a changed draft its next version, with who changed it and when. */
export async function bumpVersion(sql: Sql, actor: Actor, { row }: LoadedEstimate): Promise<void> {
  await sql.run('UPDATE estimate SET version = $1, saved_by = $2, saved_at = $3 WHERE id = $4', [
    row.version + 1,
    actor.name,
    actor.at,
    row.id,
  ]);
}

/** Faults of lines, or of the whole, that come to more than can be held. */
export function sizeFaults(estimate: Estimate, digits: number): Fault[] {
  const priced = priceEstimate(estimate, digits);
  const faults = priced.lines.flatMap((it, i) =>
    Math.abs(it.cost) > LARGEST_AMOUNT || Math.abs(it.net) > LARGEST_AMOUNT
      ? [
          {
            field: `lines.${i}.quantity`,
            message: `Line ${estimate.lines[i]!.line} comes to more than Ledrin can hold; check its quantity`,
          },
        ]
      : [],
  );
  if (faults.length === 0 && Math.abs(priced.totals.price) > LARGEST_AMOUNT)
    faults.push({ field: 'lines', message: 'The estimate comes to more than Ledrin can hold; check quantities and markups' });
  return faults;
}

/** Writes the whole content of a draft again. */
export async function saveContent(sql: Sql, id: number, content: EstimateContent, prices: Estimate['prices']): Promise<void> {
  await sql.run('UPDATE estimate SET name = $1, overhead_rate = $2, profit_rate = $3, rounding = $4 WHERE id = $5', [
    content.name,
    content.overhead,
    content.profit,
    content.rounding,
    id,
  ]);
  for (const table of ['estimate_line', 'estimate_markup', 'estimate_price'])
    await sql.run(`DELETE FROM ${table} WHERE estimate_id = $1`, [id]);
  const codes = await costCodeIds(sql);
  await bulkInsert(sql, 'estimate_markup', ESTIMATE_COLUMNS.estimate_markup, [
    ...Object.entries(content.typeMarkups).map(([type, rate]) => [id, type, null, rate]),
    ...Object.entries(content.sectionMarkups).map(([section, rate]) => [id, null, section, rate]),
  ]);
  const first = await nextId(sql, 'estimate_line');
  await bulkInsert(
    sql,
    'estimate_line',
    ['id', ...ESTIMATE_COLUMNS.estimate_line],
    content.lines.map((it, i) => [
      first + i,
      id,
      it.line,
      it.section,
      it.description,
      it.quantity,
      it.unit,
      it.buildUp,
      it.markup,
    ]),
  );
  await bulkInsert(
    sql,
    'estimate_part',
    ESTIMATE_COLUMNS.estimate_part,
    content.lines.flatMap((line, i) =>
      line.parts.map((it) => [
        first + i,
        it.item,
        it.description,
        codes.get(it.costCode),
        it.costType,
        it.basis,
        it.quantity,
        it.unit,
        it.unitCost,
        it.markup,
      ]),
    ),
  );
  await bulkInsert(
    sql,
    'estimate_price',
    ESTIMATE_COLUMNS.estimate_price,
    [...prices].flatMap(([code, shares]) =>
      shares.map((it) => [id, code, codes.get(it.costCode), it.costType, it.markup, it.cost, it.hours]),
    ),
  );
}
