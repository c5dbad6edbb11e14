import { approvePastReversal, newestMonth } from '../approvals/pastReversal';
import { at } from '../../core/errors/known';
import type { CorrectionInput } from '../../wire/corrections';
import type { Posted } from '../../wire/ledger';
import { latestOf } from '../costs/asShown';
import type { Sql } from '../db/sql';
import type { Actor } from '../acts/audit';
import type { Command } from '../acts/command';
import { savePosting } from '../ledger/savePosting';
import { insertCorrections } from './entries';
import { assertOfTeam } from '../jobs/restricted';
import { planCorrection, type PlannedCorrection } from './planCorrection';

/** Reverses picked entries, or moves them to other lines: one posting, in which each entry names the one it corrects. */
export async function correctCosts(command: Command, input: CorrectionInput): Promise<Posted> {
  const plan = await planCorrection(command.sql, input);
  await approvePastReversal(
    command,
    {
      jobId: plan.jobIds.length === 1 ? at(plan.jobIds, 0) : null,
      document: [...new Set(plan.picked.map((it) => it.posting_id))].join(', '),
      content: input,
    },
    await newestMonth(command.sql),
    plan.corrections.filter((it) => it.reverses !== null).map(({ entry }) => ({ on: entry.postedOn, amount: entry.amount })),
  );
  const postingId = await saveCorrection(command.sql, command.actor, input, plan);
  for (const document of new Set(plan.picked.map((it) => it.posting_id)))
    command.note(`posting ${document}`, { reason: input.reason, to: input.to, by: postingId, total: plan.total });
  return { postingId, entries: plan.corrections.length, total: plan.total };
}

/** Writes a planned correction inside the caller's transaction; also how a preview sees what it would do. */
export async function saveCorrection(
  sql: Sql,
  actor: Actor,
  { to, reason }: CorrectionInput,
  { picked, corrections, journals, jobIds }: PlannedCorrection,
): Promise<number> {
  await assertOfTeam(sql, actor, jobIds);
  const references = [...new Set(picked.map((it) => it.reference))];
  const postingId = await savePosting(
    sql,
    actor,
    {
      kind: to ? 'cost-move' : 'reversal',
      jobId: jobIds.length === 1 ? at(jobIds, 0) : null,
      reference: references.length === 1 ? at(references, 0) : `${references[0]} and ${references.length - 1} more`,
      postedOn: latestOf(corrections.map((it) => it.entry.postedOn)),
      note: reason,
    },
    journals,
    jobIds,
  );
  await insertCorrections(sql, postingId, corrections);
  return postingId;
}
