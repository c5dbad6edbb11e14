import { at, known } from '../../core/errors/known';
import { EstimateLineTable, EstimateMarkupTable, EstimatePartTable, EstimatePriceTable, EstimateTable } from './models';
import type { EstimateMove } from '../../core/estimates/estimateLife';
import { estimateRefusal } from '../../core/estimates/estimateRefusals';
import { assertAllowed } from '../acts/refused';
import { type Fault } from '../../core/errors/ledrinError';
import { priceEstimate, type Estimate, type EstimateContent } from '../../core/estimates/estimate';
import { LARGEST_AMOUNT } from '../../core/money/cents';
import { nextId, type Reader, type Sql } from '../db/sql';
import { costCodeIds } from '../costs/costCodes';
import { loadEstimate, movingEstimate, type LoadedEstimate } from './estimateViews';
import type { Actor } from '../acts/audit';

/** An estimate that is to make a move of its life. Throws refused where it cannot. */
export async function movable(sql: Reader, move: EstimateMove, job: string, number: number): Promise<LoadedEstimate> {
  const estimate = await loadEstimate(sql, job, number);
  assertAllowed([estimateRefusal(move, await movingEstimate(sql, estimate))], { code: 'refused' });
  return estimate;
}

/** Gives a changed draft its next version, with who changed it and when. */
export async function bumpVersion(sql: Sql, actor: Actor, { row }: LoadedEstimate): Promise<void> {
  await sql.update(EstimateTable, { id: row.id }, { version: row.version + 1, saved_by: actor.name, saved_at: actor.at });
}

/** Faults of lines, or of the whole, that come to more than can be held. */
export function sizeFaults(estimate: Estimate, digits: number): Fault[] {
  const priced = priceEstimate(estimate, digits);
  const faults = priced.lines.flatMap((it, i) =>
    Math.abs(it.cost) > LARGEST_AMOUNT || Math.abs(it.net) > LARGEST_AMOUNT
      ? [
          {
            field: `lines.${i}.quantity`,
            message: `Line ${at(estimate.lines, i).line} comes to more than Ledrin can hold; check its quantity`,
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
  await sql.update(
    EstimateTable,
    { id },
    { name: content.name, overhead_rate: content.overhead, profit_rate: content.profit, rounding: content.rounding },
  );
  for (const table of [EstimateLineTable, EstimateMarkupTable, EstimatePriceTable]) await sql.remove(table, { estimate_id: id });
  const codes = await costCodeIds(sql);
  await sql.insertAll(EstimateMarkupTable, [
    ...Object.entries(content.typeMarkups).map(([type, rate]) => ({ estimate_id: id, cost_type: type, section: null, rate })),
    ...Object.entries(content.sectionMarkups).map(([section, rate]) => ({ estimate_id: id, cost_type: null, section, rate })),
  ]);
  const first = await nextId(sql, EstimateLineTable);
  await sql.insertAll(
    EstimateLineTable,
    content.lines.map(({ line, section, description, quantity, unit, buildUp, markup }, i) => ({
      id: first + i,
      estimate_id: id,
      line,
      section,
      description,
      quantity,
      unit,
      build_up: buildUp,
      markup_rate: markup,
    })),
  );
  await sql.insertAll(
    EstimatePartTable,
    content.lines.flatMap((line, i) =>
      line.parts.map(({ item, description, costCode, costType, basis, quantity, unit, unitCost, markup }) => ({
        estimate_line_id: first + i,
        price_item: item,
        description,
        cost_code_id: known(codes, costCode),
        cost_type: costType,
        basis,
        quantity,
        unit,
        unit_cost: unitCost,
        markup_rate: markup,
      })),
    ),
  );
  await sql.insertAll(
    EstimatePriceTable,
    [...prices].flatMap(([code, shares]) =>
      shares.map(({ costCode, costType, markup, cost, hours }) => ({
        estimate_id: id,
        build_up: code,
        cost_code_id: known(codes, costCode),
        cost_type: costType,
        markup_rate: markup,
        unit_cost: cost,
        hours,
      })),
    ),
  );
}
