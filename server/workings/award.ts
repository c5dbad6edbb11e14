import { AWARDED_LINE, ESTIMATE_LINES_OF } from './queries';
import { inJob } from '../../core/places/place';
import { at, known } from '../../core/errors/known';
import { displayQuantity } from '../../core/money/display';
import { priceEstimate } from '../../core/estimates/estimate';
import { money, type Operand, type Workings } from '../../core/workings/workings';
import type { Reader } from '../db/sql';
import { loadDigits } from '../company/company';
import { loadEstimate } from '../estimates/estimateViews';
import type { JobIdentity } from '../jobs/jobByNumber';

/** How an SOV line came to what was signed for it: its estimate lines, and its shares of what was spread at the award. */
export async function awardedLine(
  sql: Reader,
  job: JobIdentity,
  sovLine: string,
): Promise<Pick<Workings, 'rule' | 'operands'> | null> {
  const award = await sql.get(AWARDED_LINE, [job.id, sovLine]);
  if (!award) return null;
  const estimate = await loadEstimate(sql, job.number, award.estimate);
  const digits = await loadDigits(sql);
  const priced = priceEstimate(estimate, digits).lines;
  const members = new Set((await sql.all(ESTIMATE_LINES_OF, [award.id])).map((row) => row.id));
  const to = inJob(job, 'estimate', award.estimate);
  const lines = estimate.lines.flatMap((line, i): Operand[] => {
    if (!members.has(known(estimate.lineIds, line.line))) return [];
    const name = `Estimate line ${line.line} ${line.description}, ${displayQuantity(line.quantity)} ${line.unit}`.trim();
    return [money(`${name}: cost`, at(priced, i).cost, '+', { to }), money(`${name}: markup`, at(priced, i).markup, '+', { to })];
  });
  return {
    rule: 'Cost and markup of its estimate lines, with its share of overhead, profit and rounding, and of what was agreed beyond or below the price quoted.',
    operands: [
      ...lines,
      money('Share of overhead, profit and rounding', award.spread, '+', { to }),
      money('Share of the difference to the price quoted', award.difference, '+', { to }),
    ],
  };
}
