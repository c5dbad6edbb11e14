import {
  PRICE_LINES,
  COST_LINES,
  DAYS_GRANTED,
  COST_LINES_OF_CHANGES,
  JOBS_BY_NUMBERS,
  TRANSFERS,
  CHANGES_OF_JOB,
  CHANGE_BY_NUMBER,
  CHANGE_REGISTER,
} from './queries';
import { present } from '../../core/errors/known';
import { LedrinError } from '../../core/errors/ledrinError';
import { LAST_DAY, daysBetween } from '../../core/calendar/plainDate';
import type { ChangeStatus } from '../../core/changes/changeLife';
import type { MovingChange } from '../../core/changes/changeRefusals';
import { spentOnPending } from '../../core/changes/changeOrder';
import { revisedBudget } from '../../core/forecast/estimateAtCompletion';
import type { ChangeSummary, ChangeView, RegisteredChange, TransferView } from '../../wire/changes';
import type { Reader } from '../db/sql';
import { loadCostLines } from '../costs/costLineStates';
import { jobByNumber } from '../jobs/jobByNumber';

type Loaded = ChangeSummary & Pick<ChangeView, 'version' | 'savedBy' | 'savedAt'> & { id: number };

/** The changes of a job raised by the date, in the order they were raised. */
export async function jobChanges(sql: Reader, job: string, asOf: string): Promise<ChangeSummary[]> {
  const { id } = await jobByNumber(sql, job, 'job');
  const rows = await sql.all(CHANGES_OF_JOB, [asOf, id]);
  return rows.map(({ id: _id, ...row }) => row);
}

/** A change as it stands now, with what its moves depend on. */
export interface LoadedChange extends Omit<ChangeView, 'effect' | 'refused'> {
  id: number;
  jobId: number;
  moving: MovingChange;
}

/** One change whole; its effect is worked by the command that can try it out. Throws not-found. */
export async function loadChange(sql: Reader, job: string, number: string): Promise<LoadedChange> {
  const identity = await jobByNumber(sql, job, 'job');
  const jobId = identity.id;
  const row = await sql.get(CHANGE_BY_NUMBER, [LAST_DAY, jobId, number]);
  if (!row) throw new LedrinError('not-found', `Job ${job} has no change order ${number}`);
  const priceLines = await sql.all(PRICE_LINES, [row.id]);
  const costLines = await sql.all(COST_LINES, [row.id]);
  const asksNothing = priceLines.length === 0 && costLines.length === 0 && row.daysAsked === null;
  return {
    ...row,
    jobId,
    priceLines: priceLines.map((it) => ({ ...it, isNew: it.isNew === 1 })),
    costLines,
    moving: { number, status: row.status as ChangeStatus, job: identity, asksNothing },
  };
}

/** Extension granted, days by changes approved by the date: how much later the planned finish is. */
export async function daysGranted(sql: Reader, jobId: number, asOf: string): Promise<number> {
  const row = await sql.get(DAYS_GRANTED, [jobId, asOf]);
  return present(row).days;
}

/** Every change of every job raised by the date: open ones with their age and the cost already on them. */
export async function changeRegister(sql: Reader, asOf: string): Promise<RegisteredChange[]> {
  const rows = await sql.all(CHANGE_REGISTER, [asOf]);
  const spent = await spentOnOpen(sql, asOf, rows);
  return rows.map(({ id, ...row }) => ({
    ...row,
    age: row.status === 'issued' && row.issuedOn && row.issuedOn <= asOf ? daysBetween(row.issuedOn, asOf) : null,
    spent: spent.get(id) ?? 0,
  }));
}

async function spentOnOpen(sql: Reader, asOf: string, rows: readonly Loaded[]): Promise<Map<number, number>> {
  const open = rows.filter((it) => it.status === 'draft' || it.status === 'issued');
  if (open.length === 0) return new Map();
  const lines = await sql.all(COST_LINES_OF_CHANGES, [JSON.stringify(open.map((it) => it.id))]);
  const jobs = await sql.all(JOBS_BY_NUMBERS, [JSON.stringify([...new Set(open.map((it) => it.job))])]);
  const beyond = new Map<number, number>();
  const [only] = jobs;
  // Of several jobs all are read at once, rather than one after another.
  for (const line of await loadCostLines(sql, asOf, jobs.length === 1 && only ? only.id : null))
    beyond.set(line.id, line.cost - revisedBudget(line));
  return spentOnPending(
    open.map(({ id }) => ({ id, lines: lines.filter((it) => it.change === id) })),
    beyond,
  );
}

/** The budget transfers of a job by the date, newest first. */
export async function jobTransfers(sql: Reader, job: string, asOf: string): Promise<TransferView[]> {
  const { id } = await jobByNumber(sql, job, 'job');
  const rows = await sql.all(TRANSFERS, [id, asOf]);
  return rows.map((row) => ({ ...row, lines: JSON.parse(row.lines) as TransferView['lines'] }));
}
