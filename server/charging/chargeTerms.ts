import { ChargeRates } from '../../core/charging/chargeRates';
import type { ChargeTerms } from '../../core/charging/charge';
import type { CostType } from '../../core/costs/costType';
import type { Rate } from '../../core/money/rate';
import type { Reader } from '../db/sql';
import { CHARGE_MARKUPS, CHARGE_RATES } from './queries';

/** What cost is charged at, as the database has it. */
export async function loadChargeTerms(sql: Reader): Promise<ChargeTerms> {
  return { rates: new ChargeRates(await sql.all(CHARGE_RATES)), markups: markupsByJob(await sql.all(CHARGE_MARKUPS)) };
}

export function markupsByJob(
  rows: readonly { job: string; costType: CostType; markup: Rate }[],
): Map<string, Partial<Record<CostType, Rate>>> {
  const markups = new Map<string, Partial<Record<CostType, Rate>>>();
  for (const { job, costType, markup } of rows) markups.set(job, { ...markups.get(job), [costType]: markup });
  return markups;
}
