import { SOV_LINES_OF_JOB, LAST_POSITION, DELETE_UNNAMED_SOV_LINES } from './queries';
import { known, present } from '../../core/errors/known';
import { SovLineTable } from '../jobs/models';
import { ChangeOrderLineTable, ChangeOrderTable } from './models';
import type { ChangeMove } from '../../core/changes/changeLife';
import { changeRefusal } from '../../core/changes/changeRefusals';
import { assertAllowed, assertNoFaults } from '../acts/refused';
import type { Command } from '../acts/command';
import type { Fault } from '../../core/errors/ledrinError';
import type { ChangeInput } from '../../wire/changes';
import { nextId, type Reader, type Sql } from '../db/sql';
import { costCodeIds } from '../costs/costCodes';
import { loadChange } from './changeViews';
import { jobThatTakes } from '../jobs/jobByNumber';
import { CostLines } from '../costs/costEntries';
import { type Actor } from '../acts/audit';
import { assertVersion } from '../versions/staleness';
import { assertFixedPrice } from '../jobs/fixedPrice';
import { insertSovLines } from '../jobs/sovLines';

/** Saves a draft change as typed, new or changed. Gives back its version. Throws conflict where somebody saved it since. */
export async function saveChange(command: Command, job: string, input: ChangeInput, was: string | null): Promise<number> {
  const { sql, actor } = command;
  const identity = await jobThatTakes(sql, job, 'changes');
  const change = was === null ? null : await movableChange(sql, 'edit', job, was);
  assertVersion(command, input.number, change, input.version);
  const codes = await costCodeIds(sql);
  const sov = new Map((await sql.all(SOV_LINES_OF_JOB, [identity.id])).map((row) => [row.line, row.id]));
  if (input.price.length > 0) await assertFixedPrice(sql, identity.id, 'price of changes', 'price');
  const faults = changeFaults(input, codes, sov);
  if (input.number !== was && (await sql.findOne(ChangeOrderTable, { job_id: identity.id, number: input.number })))
    faults.push({ field: 'number', message: `There is a change ${input.number} on job ${job} already; choose another number` });
  assertNoFaults(faults);
  const version = (change?.version ?? 0) + 1;
  const id = change?.id ?? (await nextId(sql, ChangeOrderTable));
  await saveFacts(sql, actor, id, identity.id, input, version);
  await sql.remove(ChangeOrderLineTable, { change_order_id: id });
  await saveLines(sql, id, identity.id, input, codes, sov);
  await dropUnnamedLines(sql, identity.id);
  command.note(`${job}/${input.number}`, { version, was });
  return version;
}

/** A change order that is to make a move of its life, and its job. Throws refused where it cannot. */
export async function movableChange(sql: Reader, move: ChangeMove, job: string, number: string) {
  const change = await loadChange(sql, job, number);
  assertAllowed([changeRefusal(move, change.moving)], { code: 'refused' });
  return change;
}

function changeFaults(input: ChangeInput, codes: ReadonlyMap<string, number>, sov: ReadonlyMap<string, number>): Fault[] {
  const faults: Fault[] = [];
  const named = new Set<string>();
  input.price.forEach((it, i) => {
    if (named.has(it.line))
      faults.push({ field: `price.${i}.line`, message: `Line ${it.line} appears twice; put its amounts into one row` });
    named.add(it.line);
    if (!sov.has(it.line) && it.description === '')
      faults.push({ field: `price.${i}.description`, message: `${it.line} is a new SOV line; say what it is for` });
  });
  input.cost.forEach((it, i) => {
    if (!codes.has(it.costCode))
      faults.push({
        field: `cost.${i}.costCode`,
        message: `There is no cost code ${it.costCode}; add it in Set-up, or choose another`,
      });
    if (it.sovLine !== '' && !sov.has(it.sovLine) && !named.has(it.sovLine))
      faults.push({ field: `cost.${i}.sovLine`, message: `There is no SOV line ${it.sovLine} on this job, nor on this change` });
  });
  return faults;
}

async function saveFacts(sql: Sql, actor: Actor, id: number, jobId: number, it: ChangeInput, version: number): Promise<void> {
  await sql.save(
    ChangeOrderTable,
    [
      {
        id,
        job_id: jobId,
        number: it.number,
        title: it.title,
        status: 'draft',
        raised_on: it.raisedOn,
        reference: it.reference,
        reason: it.reason,
        asked_by: it.askedBy,
        days_asked: it.daysAsked,
        version,
        saved_by: actor.name,
        saved_at: actor.at,
      },
    ],
    ['id'],
  );
}

async function saveLines(
  sql: Sql,
  id: number,
  jobId: number,
  input: ChangeInput,
  codes: ReadonlyMap<string, number>,
  sov: Map<string, number>,
): Promise<void> {
  const last = await sql.get(LAST_POSITION, [jobId]);
  let position = present(last).position;
  let next = await nextId(sql, SovLineTable);
  const fresh = input.price
    .filter((it) => !sov.has(it.line))
    .map((it) => {
      sov.set(it.line, next);
      const { line, section, description, quantity, unit } = it;
      return {
        id: next++,
        jobId,
        line,
        position: ++position,
        original: false,
        section,
        description,
        scheduledValue: 0,
        quantity,
        unit,
        retentionRate: null,
      };
    });
  await insertSovLines(sql, fresh);
  const costLines = await CostLines.open(sql, [jobId]);
  const rows = [
    ...input.price.map(({ line, description, section, quantity, unit, amount }) => ({
      change_order_id: id,
      side: 'price' as const,
      sov_line_id: known(sov, line),
      cost_line_id: null,
      description,
      section,
      quantity,
      unit,
      hours: null,
      amount,
    })),
    ...input.cost.map(({ sovLine, costCode, costType, description, section, quantity, unit, hours, amount }) => ({
      change_order_id: id,
      side: 'cost' as const,
      sov_line_id: sov.get(sovLine) ?? null,
      cost_line_id: costLines.idOf(jobId, section, known(codes, costCode), costType),
      description,
      section,
      quantity,
      unit,
      hours,
      amount,
    })),
  ];
  await costLines.flush();
  await sql.insertAll(ChangeOrderLineTable, rows);
}

/** SOV lines that only a draft brought, and no change names any more, go with it. */
async function dropUnnamedLines(sql: Sql, jobId: number): Promise<void> {
  await sql.run(DELETE_UNNAMED_SOV_LINES, [jobId]);
}

/** Deletes a draft. What was issued is withdrawn instead. */
export async function deleteChange(command: Command, job: string, number: string): Promise<void> {
  const { sql } = command;
  const { id, jobId } = await movableChange(sql, 'delete', job, number);
  await sql.remove(ChangeOrderLineTable, { change_order_id: id });
  await sql.remove(ChangeOrderTable, { id });
  await dropUnnamedLines(sql, jobId);
  command.note(`${job}/${number}`, {});
}
