import type { CorrectionPreview, CorrectionPreviewInput } from '../../wire/corrections';
import { latestOf } from '../costs/asShown';
import { COST_LINE_COPY, postingEffect } from '../costs/postingEffect';
import type { Database } from '../db/database';
import type { Actor } from '../acts/audit';
import { saveCorrection } from './correctCosts';
import { planCorrection } from './planCorrection';

/** Shows what reversing or moving picked entries would do; holds up nobody. */
export async function previewCorrection(
  database: Database,
  actor: Actor,
  { asOf, ...input }: CorrectionPreviewInput,
): Promise<CorrectionPreview> {
  return database.preview(async (sql, copy) => {
    await copy(COST_LINE_COPY);
    const plan = await planCorrection(sql, input);
    const touched = plan.corrections.map(({ entry: { job, section, cost_code, cost_type } }) => ({
      job,
      section,
      costCode: cost_code,
      costType: cost_type,
    }));
    const latest = latestOf([asOf, ...plan.corrections.map(({ entry }) => entry.postedOn)]);
    const effect = await postingEffect(sql, copy, { ...plan, touched, asOf: latest }, () =>
      saveCorrection(sql, actor, input, plan),
    );
    const ordersLeft = plan.picked.flatMap((it) => (input.to?.job && input.to.job !== it.job ? (it.commitment ?? []) : []));
    return { ...effect, total: plan.total, ordersLeft: [...new Set(ordersLeft)] };
  });
}
