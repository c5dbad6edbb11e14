import { JOB_OF_CHANGE } from './queries';
import { type RowOf } from '../db/fields';
import { addDays } from '../../core/calendar/plainDate';
import { CHANGE_LIFE } from '../../core/changes/changeLife';
import { changeRefusal } from '../../core/changes/changeRefusals';
import { showIn } from '../../core/refusals/messages';
import { reasonsOf } from '../../core/refusals/reasons';
import type { ChangeEffect, ChangeView } from '../../wire/changes';
import type { Database } from '../db/database';
import type { Reader } from '../db/sql';
import { loadPositions, type LoadedPosition } from '../costs/jobPositions';
import { daysGranted, loadChange } from './changeViews';
import { applyDecision } from './decideChange';

/**
 * A change, and what approving it as asked on `asOf`, or on the day it was raised if that is later, would do to the job: it is
 * approved on copies of the tables and looked at, so that the effect cannot differ from the approval.
 */
export async function viewChange(database: Database, job: string, number: string, asOf: string): Promise<ChangeView> {
  return database.preview(async (sql, copy) => {
    const { id, jobId, moving, ...loaded } = await loadChange(sql, job, number);
    const change = { ...loaded, refused: reasonsOf(CHANGE_LIFE, (move) => changeRefusal(move, moving), showIn(0)) };
    if (change.status !== 'draft' && change.status !== 'issued') return { ...change, effect: null };
    const on = asOf < change.raisedOn ? change.raisedOn : asOf;
    const identity = await jobOfChange(sql, id);
    const before = await snapshotOf(sql, identity, on);
    await copy([
      { table: 'change_order', where: `job_id = ${jobId}`, indexes: ['id', 'job_id'] },
      {
        table: 'change_order_line',
        where: `change_order_id IN (SELECT id FROM main.change_order WHERE job_id = ${identity.id})`,
        indexes: ['change_order_id'],
      },
    ]);
    await applyDecision(sql, { ...change, id }, { status: 'approved', on, by: '', note: '', agreed: null, daysGranted: null });
    return { ...change, effect: effectOf(before, await snapshotOf(sql, identity, on)) };
  });
}

type JobOfChange = RowOf<typeof JOB_OF_CHANGE>;

async function jobOfChange(sql: Reader, changeId: number): Promise<JobOfChange> {
  const [job] = await sql.all(JOB_OF_CHANGE, [changeId]);
  if (!job) throw new Error(`change ${changeId} belongs to no job`);
  return job;
}

interface Snapshot {
  position: LoadedPosition;
  finish: string | null;
}

async function snapshotOf(sql: Reader, job: JobOfChange, asOf: string): Promise<Snapshot> {
  const [position] = await loadPositions(sql, asOf, job.id);
  if (!position) throw new Error(`job ${job.id} has no position`);
  return { position, finish: job.finishes_on && addDays(job.finishes_on, await daysGranted(sql, job.id, asOf)) };
}

function effectOf(before: Snapshot, after: Snapshot): ChangeEffect {
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
