import { COST_TYPES, type CostType } from '../../core/costs/costType';
import type { Rate } from '../../core/money/rate';
import type { MarkupsInput } from '../../wire/charging';
import type { Command } from '../acts/command';
import { fieldError } from '../acts/refused';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';
import { assertOfTeam } from '../jobs/restricted';
import { assertUnchanged } from '../versions/staleness';
import { assertInvoicedStands } from './invoicedStands';
import { recharge } from './marks';
import { ChargeMarkupTable } from './models';

/** The markups of a job by cost type, in the order of the list. */
export async function markupsOfJob(sql: Reader, jobId: number): Promise<{ costType: CostType; markup: Rate }[]> {
  const rows = await sql.find(ChargeMarkupTable, { job_id: jobId });
  return rows
    .map((it) => ({ costType: it.cost_type, markup: it.markup }))
    .toSorted((a, b) => COST_TYPES.indexOf(a.costType) - COST_TYPES.indexOf(b.costType));
}

/** Saves the markups of a job, whole, and charges what is not invoiced by them. Refused where an invoice would come to something else. */
export async function saveMarkups(command: Command, number: string, { seen, markups }: MarkupsInput): Promise<void> {
  const { sql, actor } = command;
  const { id } = await jobByNumber(sql, number, 'job');
  await assertOfTeam(sql, actor, [id]);
  const was = await markupsOfJob(sql, id);
  await assertUnchanged(command, `The markups of job ${number}`, { subject: number, now: was, seen });
  markups.forEach(({ costType }, i) => {
    if (markups.findIndex((it) => it.costType === costType) !== i)
      throw fieldError(`markups.${i}.costType`, `${costType} has a markup already; give it one`);
  });
  await sql.remove(ChargeMarkupTable, { job_id: id });
  await sql.insertAll(
    ChargeMarkupTable,
    markups.map((it) => ({ job_id: id, cost_type: it.costType, markup: it.markup })),
  );
  await assertInvoicedStands(sql, 'markups');
  await recharge(sql, [id]);
  command.note(number, { was, now: markups });
}
