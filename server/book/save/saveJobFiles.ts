import type { BookCheck } from '../checks/checkBook';
import { joinKey } from '../checks/keys';
import { type Sql } from '../../db/sql';
import { insertInstalments } from '../../instalments/instalments';
import type { CostLines } from '../../costs/costEntries';
import type { Actor } from '../../ledger/audit';
import { bulkInsert, type BookIds } from './saveKeyed';

/** Saves lists and jobs to begin others from. */
export async function saveTemplates(sql: Sql, actor: Actor, { rows }: BookCheck): Promise<void> {
  const lists = new Map<string, string[]>();
  for (const { template, item } of rows.checklist_templates) lists.set(template!, [...(lists.get(template!) ?? []), item!]);
  await bulkInsert(
    sql,
    'check_template',
    ['name', 'items'],
    [...lists].map(([name, items]) => [name, JSON.stringify(items)]),
  );
  await bulkInsert(
    sql,
    'job_template',
    ['name', 'content', 'saved_at'],
    rows.job_templates.map((row) => [row.template, row.content, actor.at]),
  );
}

/** Saves people, events, attachments, moves and checklists of the jobs of a checked book. `sizes`: of the attachments' contents, by hash. */
export async function saveJobFiles(
  sql: Sql,
  actor: Actor,
  { rows }: BookCheck,
  ids: BookIds,
  sizes: ReadonlyMap<string, number>,
): Promise<void> {
  await bulkInsert(
    sql,
    'attachment',
    ['job_id', 'name', 'media_type', 'size', 'hash', 'about', 'actor', 'added_at'],
    rows.job_papers.map((row) => [
      ...[ids.jobs.get(row.job!), row.name, row.media_type, sizes.get(row.sha256!), row.sha256],
      ...[row.about ?? '', row.added_by, row.added_at],
    ]),
  );
  await bulkInsert(
    sql,
    'job_move',
    ['job_id', 'was', 'became', 'on_day', 'reason', 'actor', 'at'],
    rows.job_moves.map((row) => [
      ...[ids.jobs.get(row.job!), row.was ?? '', row.became, row.on_day ?? null, row.reason ?? '', row.moved_by, row.moved_at],
    ]),
  );
  await bulkInsert(
    sql,
    'job_person',
    ['job_id', 'side', 'name', 'role', 'email', 'phone'],
    rows.job_people.map((row) => [ids.jobs.get(row.job!), row.side, row.name, row.role ?? '', row.email ?? '', row.phone ?? '']),
  );
  await bulkInsert(
    sql,
    'job_event',
    ['job_id', 'kind', 'dated', 'text', 'actor', 'recorded_at'],
    rows.job_events.map((row) => [
      ...[ids.jobs.get(row.job!), row.kind, row.dated, row.text],
      ...[row.noted_by ?? actor.name, row.noted_at ?? actor.at],
    ]),
  );
  await bulkInsert(
    sql,
    'job_check',
    ['job_id', 'item', 'person', 'due_on', 'done_on'],
    rows.job_checklist.map((row) => [
      ids.jobs.get(row.job!),
      row.item,
      row.person ?? '',
      row.due_on ?? null,
      row.done_on ?? null,
    ]),
  );
}

/** Saves the dates of sections and cost lines of a checked book. */
export async function savePlans(sql: Sql, { rows }: BookCheck, ids: BookIds, costLines: CostLines): Promise<void> {
  await bulkInsert(
    sql,
    'job_section',
    ['job_id', 'name', 'starts_on', 'finishes_on', 'started_on', 'finished_on'],
    rows.job_sections.map((row) => [
      ids.jobs.get(row.job!),
      row.section,
      ...[row.starts_on ?? null, row.finishes_on ?? null, row.started_on ?? null, row.finished_on ?? null],
    ]),
  );
  const plans = rows.cost_plan.map((row) => [
    costLines.idOf(ids.jobs.get(row.job!)!, row.section ?? '', ids.costCodes.get(row.cost_code!)!, row.cost_type!),
    row.starts_on,
    row.finishes_on,
  ]);
  await costLines.flush();
  await bulkInsert(sql, 'cost_line_plan', ['cost_line_id', 'starts_on', 'finishes_on'], plans);
}

/** Saves the billing schedules of a checked book. */
export async function saveBillingSchedules(sql: Sql, { rows }: BookCheck, ids: BookIds): Promise<void> {
  const of = (row: { job?: string | null; instalment?: number | null }) => joinKey(row.job!, row.instalment!);
  const stages = new Map<string, string[]>();
  for (const row of rows.instalment_stages) stages.set(of(row), [...(stages.get(of(row)) ?? []), row.section!]);
  await insertInstalments(
    sql,
    rows.billing_instalments.map((row) => ({
      ...{ jobId: ids.jobs.get(row.job!)!, number: row.instalment!, name: row.name!, stages: stages.get(of(row)) ?? [] },
      ...{ due: row.due ?? 'day', day: row.day ?? null, days: row.days ?? 0, from: row.taken_from ?? 'job' },
      ...{ rate: row.percent ?? null, amount: row.amount ?? null },
    })),
  );
}
