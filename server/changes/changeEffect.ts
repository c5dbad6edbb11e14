import { addDays } from '../../core/calendar/plainDate';
import type { ChangeEffect, ChangeView } from '../../wire/changes';
import type { Database } from '../db/database';
import type { Sql } from '../db/sql';
import { daysGranted, loadChange } from './changeViews';
import { loadPositions, type LoadedPosition } from '../jobs/jobPositions';

const withoutId = <T extends { id: number }>({ id: _id, ...rest }: T) => rest;

class NothingKept extends Error {
  constructor(readonly effect: ChangeEffect) {
    super('effect');
  }
}

/** A change with what approving it on `asOf`, or the day it was raised if that is later, would do to the job: it is approved, looked at and taken back in one transaction. */
export async function viewChange(database: Database, job: string, number: string, asOf: string): Promise<ChangeView> {
  const change = await database.consistent((sql) => loadChange(sql, job, number).then(withoutId));
  if (change.status !== 'draft' && change.status !== 'issued') return { ...change, effect: null };
  try {
    await database.write(async (sql) => {
      const { id } = await loadChange(sql, job, number);
      const day = asOf < change.raisedOn ? change.raisedOn : asOf;
      const identity = (await sql.get<{ id: number; finishes_on: string | null }>(
        'SELECT j.id, j.finishes_on FROM job j JOIN change_order o ON o.job_id = j.id WHERE o.id = $1',
        [id],
      ))!;
      const before = await standing(sql, identity, day);
      await sql.run(`UPDATE change_order SET status = 'approved', decided_on = $1, days_granted = days_asked WHERE id = $2`, [
        day,
        id,
      ]);
      const after = await standing(sql, identity, day);
      throw new NothingKept(effectOf(before, after));
    });
  } catch (error) {
    if (error instanceof NothingKept) return { ...change, effect: error.effect };
    throw error;
  }
  return { ...change, effect: null };
}

interface Standing {
  position: LoadedPosition;
  finish: string | null;
}

async function standing(sql: Sql, job: { id: number; finishes_on: string | null }, asOf: string): Promise<Standing> {
  const [position] = await loadPositions(sql, asOf, job.id);
  return { position: position!, finish: job.finishes_on && addDays(job.finishes_on, await daysGranted(sql, job.id, asOf)) };
}

function effectOf(before: Standing, after: Standing): ChangeEffect {
  const both = (key: 'contractSum' | 'estimate' | 'estimatedProfit' | 'margin'): [number, number] => [
    before.position.progress[key],
    after.position.progress[key],
  ];
  return {
    contractSum: both('contractSum'),
    estimate: both('estimate'),
    profit: both('estimatedProfit'),
    margin: both('margin'),
    finish: [before.finish, after.finish],
  };
}
