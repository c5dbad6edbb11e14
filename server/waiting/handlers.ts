import { APPROVALS } from '../../core/approvals/approvals';
import { hasRight } from '../../core/rights/rights';
import { WAITING, WAITING_NAMES, type WaitingName } from '../../core/waiting/waiting';
import { waitingCalls, type WaitingRow } from '../../wire/waiting';
import { approvalsWaitingFor } from '../approvals/approvals';
import type { Reader } from '../db/sql';
import { actorOf } from '../http/context';
import { handle } from '../http/handlers';
import type { Actor } from '../acts/audit';
import { WEEKS_REMINDED } from '../weekSheets/queries';
import { SHEETS_WAITING, WAITING_ROWS } from './queries';

type Waits = (sql: Reader, actor: Actor) => Promise<Omit<WaitingRow, 'kind'>[]>;

/** An approval waits for whom it is asked of, and, given or refused, for whoever asked. */
const ofApprovals =
  (act: 'decide' | 'carryOut' | 'acknowledge'): Waits =>
  async (sql, actor) =>
    (await approvalsWaitingFor(sql, actor))
      .filter((it) => it.can[act])
      .map((it) => ({
        job: it.job ?? '',
        jobName: it.jobName ?? 'several jobs',
        document: String(it.id),
        about: APPROVALS[it.kind].act,
        since: (it.decidedAt || it.askedAt).slice(0, 10),
      }));

const asStored =
  (kind: keyof typeof WAITING_ROWS): Waits =>
  (sql) =>
    sql.all(WAITING_ROWS[kind]);

const ofPeople =
  (of: (typeof SHEETS_WAITING)[keyof typeof SHEETS_WAITING] | typeof WEEKS_REMINDED): Waits =>
  async (sql, actor) =>
    (await sql.all(of, [actor.name])).map(({ document, people, since }) => ({
      job: '',
      jobName: '',
      document,
      since,
      about: people.replaceAll(',', ', '),
    }));

const WAITS: Record<WaitingName, Waits> = {
  ...(Object.fromEntries(Object.keys(WAITING_ROWS).map((kind) => [kind, asStored(kind as keyof typeof WAITING_ROWS)])) as Record<
    keyof typeof WAITING_ROWS,
    Waits
  >),
  approve: ofApprovals('decide'),
  carryOut: ofApprovals('carryOut'),
  refused: ofApprovals('acknowledge'),
  returnedTime: ofPeople(SHEETS_WAITING.returnedTime),
  remindedTime: ofPeople(WEEKS_REMINDED),
  approveTime: ofPeople(SHEETS_WAITING.approveTime),
  postTime: ofPeople(SHEETS_WAITING.postTime),
};

/** What waits for somebody: of the jobs they see, what they may do. */
export async function waitingFor(sql: Reader, actor: Actor): Promise<WaitingRow[]> {
  const rows: WaitingRow[] = [];
  const { role } = actor;
  for (const kind of WAITING_NAMES)
    if (role !== undefined && hasRight({ role }, WAITING[kind].who))
      rows.push(...(await WAITS[kind](sql, actor)).map((row) => ({ kind, ...row })));
  return rows;
}

export const waitingHandlers = handle(waitingCalls, { waiting: (sql, _args, context) => waitingFor(sql, actorOf(context)) });
