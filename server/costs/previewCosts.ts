import { present } from '../../core/errors/known';
import { LAST_COST_LINE } from './queries';
import { unusualCosts } from './unusualCosts';
import type { CostBatchInput, CostPreview } from '../../wire/costs';
import type { Database } from '../db/database';
import { loadDigits } from '../company/company';
import type { Actor } from '../acts/audit';
import { previewDate } from './asShown';
import { planCosts, savePlannedCosts } from './postCosts';
import { COST_LINE_COPY, postingEffect } from './postingEffect';

/** Shows what posting a batch would do, and what is unusual in it; holds up nobody. */
export async function previewCosts(database: Database, actor: Actor, input: CostBatchInput): Promise<CostPreview> {
  return database.preview(async (sql, copy) => {
    await copy(COST_LINE_COPY);
    const lastLine = present(await sql.get(LAST_COST_LINE)).id;
    const plan = await planCosts(sql, input.lines);
    const unusual = await unusualCosts(sql, input, plan, { lastLine, digits: await loadDigits(sql) });
    const planned = { ...plan, touched: input.lines, asOf: previewDate(input) };
    const effect = await postingEffect(sql, copy, planned, () => savePlannedCosts(sql, actor, input.lines, plan));
    return { ...effect, total: plan.total, unusual };
  });
}
