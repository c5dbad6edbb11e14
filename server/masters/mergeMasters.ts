import { assertInvoicedStands } from '../charging/invoicedStands';
import { recharge } from '../charging/marks';
import { MASTERS, type MasterKind } from '../../core/masters/masters';
import { LedrinError } from '../../core/errors/ledrinError';
import type { MergePreview } from '../../wire/masters';
import { CostLineTable } from '../costs/models';
import { recountCostTotals } from '../costs/costTotals';
import type { RowOf } from '../db/fields';
import type { Reader, Sql } from '../db/sql';
import type { Command } from '../acts/command';
import { digestOf } from '../versions/digest';
import { assertAsPreviewed } from '../versions/staleness';
import { kindOf, masterOf, repoint, usesOf } from './masters';
import { FORECASTS_IN_BOTH, JOIN_COST_LINES, LINES_IN_BOTH } from './queries';
import { STORES, type SavedMaster } from './stores';

interface Merge {
  kind: MasterKind;
  from: SavedMaster;
  into: SavedMaster;
  /** Cost lines that become one with another. */
  both: RowOf<typeof LINES_IN_BOTH>[];
  moves: string[];
  refused: string | null;
}

async function planMerge(sql: Reader, of: string, code: string, other: string): Promise<Merge> {
  const kind = kindOf(of);
  const [from, into] = [await masterOf(sql, kind, code), await masterOf(sql, kind, other)];
  const both = kind === 'cost-codes' && from.id !== into.id ? await sql.all(LINES_IN_BOTH, [from.id, into.id]) : [];
  return {
    kind,
    from,
    into,
    both,
    moves: (await usesOf(sql, kind)).get(from.id) ?? [],
    refused: from.id === into.id ? 'Choose another one to merge it into' : await whyApart(sql, both, into.code),
  };
}

/** Posted cost stays where it is: two cost lines become one only where nothing is posted to the first. */
async function whyApart(sql: Reader, both: Merge['both'], into: string): Promise<string | null> {
  const name = ({ job, section, cost_type }: Merge['both'][number]) =>
    [`job ${job}`, section, cost_type].filter(Boolean).join(', ');
  const posted = both.filter((it) => it.posted === 1);
  if (posted[0])
    return `Cost is posted to both on ${name(posted[0])}${posted.length > 1 ? ` and ${posted.length - 1} more lines` : ''}; move that cost to ${into} in the cost ledger first`;
  for (const it of both)
    if (await sql.get(FORECASTS_IN_BOTH, [it.id, it.other]))
      return `Both have a forecast of the same month on ${name(it)}; clear one of them first`;
  return null;
}

export async function mergePreview(sql: Reader, of: string, code: string, other: string): Promise<MergePreview> {
  const plan = await planMerge(sql, of, code, other);
  return { moves: plan.moves, refused: plan.refused, seen: digestOf(plan) };
}

/** Makes what refers to one refer to the other, and deletes it. What is posted keeps its amounts, days and texts. */
export async function mergeMaster(command: Command, of: string, code: string, other: string, seen: string): Promise<void> {
  const { sql } = command;
  const plan = await planMerge(sql, of, code, other);
  assertAsPreviewed(command, 'What this merge moves', plan, seen);
  if (plan.refused !== null) throw new LedrinError('refused', plan.refused);
  const { kind, from, into, both } = plan;
  await joinCostLines(sql, both);
  await repoint(sql, kind, from, into);
  await STORES[kind].remove(sql, from.id);
  if (kind === 'clients') {
    await assertInvoicedStands(sql, 'into');
    await recharge(sql, null);
  }
  command.note(`${MASTERS[kind].one} ${into.code}`, { merged: from, moves: plan.moves });
}

async function joinCostLines(sql: Sql, both: Merge['both']): Promise<void> {
  for (const { id, other } of both) {
    for (const statement of JOIN_COST_LINES) await sql.run(statement, [id, other]);
    await sql.remove(CostLineTable, { id });
  }
  const jobs = [...new Set((await sql.find(CostLineTable, { id: both.map((it) => it.other) })).map((it) => it.job_id))];
  await recountCostTotals(sql, jobs);
}
