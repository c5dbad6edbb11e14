import * as v from 'valibot';
import { typedJob } from '../../../wire/jobs';
import type { BookRow } from '../format/bookFiles';
import type { BookCheck } from './checkBook';
import { before } from './checkContracts';
import { isHash, readJson } from './checkOffers';
import { joinKey } from './keys';

/** Checks what is known of jobs beside their figures: people, events, attachments, moves, checklists, plans and billing schedules. */
export function checkJobFiles(check: BookCheck): void {
  for (const file of ['job_people', 'job_events', 'job_checklist'] as const)
    for (const row of check.rows[file]) check.refersToJob(file, row);
  checkTemplates(check);
  check.rows.job_moves.forEach((row) => checkMove(check, row));
  for (const row of check.rows.job_papers) {
    check.refersToJob('job_papers', row);
    if (row.sha256 && !isHash(row.sha256))
      check.faults.add('job_papers', row.row, 'sha256', 'is no SHA-256 in 64 hexadecimal digits');
  }
  check.rows.job_sections.forEach((row) => checkSection(check, row));
  check.rows.cost_plan.forEach((row) => checkPlannedLine(check, row));
  check.rows.billing_instalments.forEach((row) => checkInstalment(check, row));
  checkStages(check);
}

/** Lists and jobs to begin from; one of a name the database has is not added to. */
function checkTemplates(check: BookCheck): void {
  for (const row of check.rows.checklist_templates)
    if (row.template && check.existing.checkTemplates.has(row.template))
      check.faults.add('checklist_templates', row.row, 'template', `duplicate key: ${row.template} is already there`);
  for (const row of check.rows.job_templates) {
    check.declare('job_templates', row.row, 'template', check.keys.jobTemplates, row.template);
    if (row.content && !v.is(typedJob, readJson(row.content)))
      check.faults.add(
        'job_templates',
        row.row,
        'content',
        'is no job as Ledrin keeps one, JSON with its parts; take it as it was exported',
      );
  }
}

/** Moves tell how a job came to stand as it does; a job the database has tells its own. */
function checkMove(check: BookCheck, row: BookRow<'job_moves'>): void {
  if (check.refersToJob('job_moves', row) && check.existing.jobs.has(row.job!))
    check.faults.add('job_moves', row.row, 'job', `job ${row.job} is already in the database, where its moves are recorded`);
}

function checkSection(check: BookCheck, row: BookRow<'job_sections'>): void {
  const at = (column: string, message: string) => check.faults.add('job_sections', row.row, column, message);
  check.refersToJob('job_sections', row);
  check.declare('job_sections', row.row, 'section', check.keys.sections, row.job, row.section);
  if (before(row.finishes_on, row.starts_on)) at('finishes_on', `${row.finishes_on} is before starts_on, ${row.starts_on}`);
  if (before(row.finished_on, row.started_on)) at('finished_on', `${row.finished_on} is before started_on, ${row.started_on}`);
  if (row.finished_on && row.started_on === null)
    at('started_on', 'missing required cell: a section that is finished needs the day it started');
}

function checkPlannedLine(check: BookCheck, row: BookRow<'cost_plan'>): void {
  check.refersToJob('cost_plan', row);
  check.refers('cost_plan', row.row, 'cost_code', check.keys.costCodes, 'cost code', row.cost_code);
  check.declare(
    ...(['cost_plan', row.row, 'cost_type', check.keys.plannedLines] as const),
    ...[row.job, row.section, row.cost_code, row.cost_type],
  );
  if (before(row.finishes_on, row.starts_on))
    check.faults.add('cost_plan', row.row, 'finishes_on', `${row.finishes_on} is before starts_on, ${row.starts_on}`);
}

function checkInstalment(check: BookCheck, row: BookRow<'billing_instalments'>): void {
  const file = 'billing_instalments';
  const at = (column: string, message: string) => check.faults.add(file, row.row, column, message);
  check.declare(file, row.row, 'instalment', check.keys.instalments, row.job, row.instalment);
  if (check.refersToJob(file, row) && check.existing.scheduled.has(row.job!))
    at('job', `job ${row.job} has a billing schedule in the database already; an import brings one whole`);
  if ((row.percent === null) === (row.amount === null) && row.percent !== undefined && row.amount !== undefined)
    at('percent', 'enter a percentage or an amount, not both');
  if (row.due === undefined) return;
  const onDay = (row.due ?? 'day') === 'day';
  if (!onDay && row.day) at('day', `due at a ${row.due}, it has no day of its own; expected an empty cell`);
  if (onDay && row.days) at('days', 'due on a day; days are counted from a start or a finish, expected an empty cell');
}

/** Stages are sections of the job; an instalment taken from its stages has some. */
function checkStages(check: BookCheck): void {
  const file = 'instalment_stages';
  const waiting = new Set<string>();
  for (const row of check.rows[file]) {
    if (!check.refersToJob(file, row)) continue;
    check.refers(file, row.row, 'instalment', check.keys.instalments, 'instalment', row.job, row.instalment);
    check.refers(file, row.row, 'section', check.keys.sections, 'section', row.job, row.section);
    check.declare(file, row.row, 'section', check.keys.instalmentStages, row.job, row.instalment, row.section);
    if (row.instalment) waiting.add(joinKey(row.job!, row.instalment));
  }
  const shape = check.shapes[file];
  if (shape && !shape.readable) return;
  for (const row of check.rows.billing_instalments)
    if (row.taken_from === 'stages' && row.job && row.instalment && !waiting.has(joinKey(row.job, row.instalment)))
      check.faults.add('billing_instalments', row.row, 'taken_from', `it names no stages in ${file}.csv to be taken from`);
}
