import { COST_LINE_KEYS, STAGES_WITHOUT_SECTION } from './queries';
import { assertNoFaults } from '../acts/refused';
import { known } from '../../core/errors/known';
import { CostLinePlanTable, JobSectionTable } from './models';
import type { Command } from '../acts/command';
import type { Fault } from '../../core/errors/ledrinError';
import type { PlanInput } from '../../wire/plan';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';
import { plannedDates } from './plannedDates';
import { assertUnchanged } from '../versions/staleness';

/** Saves the sections of a job with their dates, and the dates of single cost lines. A section that is in use stays. */
export async function savePlan(command: Command, number: string, input: PlanInput): Promise<void> {
  const { sql } = command;
  const { id } = await jobByNumber(sql, number, 'job');
  await assertUnchanged(command, 'This plan', { subject: number, now: await plannedDates(sql, id), seen: input.seen });
  const lines = await sql.all(COST_LINE_KEYS, [id]);
  const ids = new Map(lines.map((row) => [row.key, row.id]));
  const keyOf = (it: PlanInput['lines'][number]) => `${it.section}\u001f${it.costCode}\u001f${it.costType}`;
  const faults = planFaults(input, (it) => ids.has(keyOf(it)));
  faults.push(...(await stagesGone(sql, id, input)));
  assertNoFaults(faults);
  await sql.remove(JobSectionTable, { job_id: id });
  await sql.remove(CostLinePlanTable, { cost_line_id: [...ids.values()] });
  await sql.insertAll(
    JobSectionTable,
    input.sections.map((it) => ({
      job_id: id,
      name: it.name,
      starts_on: it.startsOn,
      finishes_on: it.finishesOn,
      started_on: it.startedOn,
      finished_on: it.finishedOn,
    })),
  );
  await sql.insertAll(
    CostLinePlanTable,
    input.lines.map((it) => ({ cost_line_id: known(ids, keyOf(it)), starts_on: it.startsOn, finishes_on: it.finishesOn })),
  );
  command.note(number, input);
}

/** A section that the billing schedule waits for is not taken out. */
async function stagesGone(sql: Reader, jobId: number, { sections }: PlanInput): Promise<Fault[]> {
  const waited = await sql.all(STAGES_WITHOUT_SECTION, [jobId]);
  const names = new Set(sections.map((it) => it.name));
  return waited
    .filter((it) => !names.has(it.section))
    .map(({ section, instalment }) => ({
      field: 'sections',
      message: `Section ${section} is waited for by the instalment ${instalment}; take it out of the billing schedule first`,
    }));
}

function planFaults(input: PlanInput, known: (it: PlanInput['lines'][number]) => boolean): Fault[] {
  const faults: Fault[] = [];
  const names = new Set<string>();
  const seen = new Set<string>();
  input.sections.forEach((it, i) => {
    if (names.has(it.name)) faults.push({ field: `sections.${i}.name`, message: `Section ${it.name} appears twice` });
    names.add(it.name);
    if (it.startsOn && it.finishesOn && it.finishesOn < it.startsOn)
      faults.push({ field: `sections.${i}.finishesOn`, message: `${it.name} would finish ${it.finishesOn}, before it starts` });
    if (it.finishedOn && (!it.startedOn || it.finishedOn < it.startedOn))
      faults.push({
        field: `sections.${i}.${it.startedOn ? 'finishedOn' : 'startedOn'}`,
        message: `${it.name} was finished ${it.finishedOn}; expected the day it started, not after that`,
      });
  });
  input.lines.forEach((it, i) => {
    const key = `${it.section}\u001f${it.costCode}\u001f${it.costType}`;
    if (!known(it))
      faults.push({
        field: `lines.${i}.costCode`,
        message: `The job has no line ${[it.section, it.costCode, it.costType].filter(Boolean).join(' ')}`,
      });
    if (seen.has(key)) faults.push({ field: `lines.${i}.costCode`, message: 'This line appears twice' });
    seen.add(key);
    if (it.finishesOn < it.startsOn)
      faults.push({ field: `lines.${i}.finishesOn`, message: `It would finish ${it.finishesOn}, before it starts` });
  });
  return faults;
}
