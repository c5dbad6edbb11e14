import { APPROVALS } from '../../core/approvals/approvals';
import { APPROVAL_LIFE, whyNotParty, type ApprovalMove, type ApprovalParty } from '../../core/approvals/approvalLife';
import { movesFrom } from '../../core/life/life';
import { LedrinError } from '../../core/errors/ledrinError';
import { present } from '../../core/errors/known';
import type { ApprovalRow, DecisionInput, SentAgain } from '../../wire/approvals';
import type { Reader } from '../db/sql';
import { assertMove, fieldError } from '../acts/refused';
import type { Actor } from '../acts/audit';
import type { Command } from '../acts/command';
import { ApprovalTable } from './models';
import { APPROVALS_OF, APPROVAL_BY_ID, OPEN_APPROVALS } from './queries';
import { approverFor, askedAlready, type NeedsApproval } from './requireApproval';

/** Asks for the approval of an act that was refused without one. What was sent is saved, to be sent again. Gives back its number. */
export async function askApproval(command: Command, needed: NeedsApproval, request: SentAgain, reason: string): Promise<number> {
  const { sql, actor } = command;
  const { act, role, digest } = needed;
  if (reason === '') throw fieldError('reason', 'Say why, so that it can be decided');
  const [open] = await sql.find(ApprovalTable, { digest, state: 'asked' });
  if (open) throw askedAlready(open);
  const id = await sql.insert(ApprovalTable, {
    job_id: act.jobId,
    kind: act.kind,
    document: act.document,
    amount: act.amount,
    role,
    digest,
    facts: JSON.stringify(act.facts),
    request: JSON.stringify(request),
    asked_by: actor.name,
    asked_at: actor.at,
    reason,
  });
  command.note(`approval ${id}`, { act: APPROVALS[act.kind].act, document: act.document, amount: act.amount, reason });
  return id;
}

type Row = Awaited<ReturnType<typeof openRows>>[number];
const openRows = (sql: Reader) => sql.all(OPEN_APPROVALS);

async function partyOf(sql: Reader, actor: Actor, row: Row): Promise<ApprovalParty> {
  const approver = await approverFor(sql, actor, row.role);
  return {
    isAsker: row.askedBy === actor.name,
    decidesFor: approver === null ? null : approver === actor.name ? 'self' : 'absent',
  };
}

/** An approval as it is shown, without the request that carries it out. */
const shown = ({ facts, request: _, acknowledgedAt: __, ...row }: Row) => ({
  ...row,
  facts: JSON.parse(facts) as ApprovalRow['facts'],
});

async function viewOf(sql: Reader, actor: Actor, row: Row): Promise<ApprovalRow> {
  const party = await partyOf(sql, actor, row);
  const moves = movesFrom(APPROVAL_LIFE, row.state);
  const may = (move: ApprovalMove) => moves[move] && whyNotParty(move, party, row.role) === null;
  return {
    ...shown(row),
    can: {
      decide: may('give'),
      withdraw: may('withdraw'),
      carryOut: may('carryOut'),
      acknowledge: may('acknowledge') && row.acknowledgedAt === '',
    },
  };
}

/** Approvals of documents of a kind, the newest first. */
export async function approvalsOf(
  sql: Reader,
  actor: Actor,
  { kind, document, job }: { kind: ApprovalRow['kind']; document: string; job: string },
): Promise<ApprovalRow[]> {
  const rows = await sql.all(APPROVALS_OF, [kind, document, job]);
  return Promise.all(rows.map((it) => viewOf(sql, actor, it)));
}

/** Approvals that wait for somebody: to be decided, or, given or refused, for whoever asked. */
export async function approvalsWaitingFor(sql: Reader, actor: Actor): Promise<ApprovalRow[]> {
  const rows = await Promise.all((await openRows(sql)).map((it) => viewOf(sql, actor, it)));
  return rows.filter((it) => it.can.decide || it.can.carryOut || it.can.acknowledge);
}

async function approvalRow(sql: Reader, id: number): Promise<Row> {
  const row = await sql.get(APPROVAL_BY_ID, [id]);
  if (!row) throw new LedrinError('not-found', `There is no approval ${id}; reload the page`);
  return row;
}

/** One of them; with the request for whoever asked and has it, to be sent again. */
export async function approvalView(sql: Reader, actor: Actor, id: number): Promise<ApprovalRow & { request: SentAgain | null }> {
  const row = await approvalRow(sql, id);
  const view = await viewOf(sql, actor, row);
  return { ...view, request: view.can.carryOut ? (JSON.parse(row.request) as SentAgain) : null };
}

/** Gives an approval, or refuses it with a reason. */
export async function decideApproval(command: Command, id: number, { give, note }: DecisionInput): Promise<void> {
  const { sql, actor } = command;
  const row = await approvalRow(sql, id);
  await assertMay(sql, actor, row, give ? 'give' : 'refuse');
  const approver = present(await approverFor(sql, actor, row.role));
  if (!give && note === '') throw fieldError('note', 'Say why it is refused');
  await sql.update(
    ApprovalTable,
    { id },
    {
      state: give ? 'given' : 'refused',
      decided_by: actor.name,
      decided_at: actor.at,
      decision: note,
      decided_for: approver === actor.name ? '' : approver,
    },
  );
  command.note(`approval ${id}`, { given: give, note, ...(approver === actor.name ? {} : { standingInFor: approver }) });
}

/** Takes back one's own question, or an approval that is not wanted any more. */
export async function withdrawApproval(command: Command, id: number): Promise<void> {
  const { sql, actor } = command;
  const row = await approvalRow(sql, id);
  await assertMay(sql, actor, row, 'withdraw');
  await sql.update(ApprovalTable, { id }, { state: 'withdrawn' });
  command.note(`approval ${id}`);
}

/** Notes that whoever asked has read the refusal: it waits for them no more. */
export async function acknowledgeApproval(command: Command, id: number): Promise<void> {
  const { sql, actor } = command;
  await assertMay(sql, actor, await approvalRow(sql, id), 'acknowledge');
  await sql.update(ApprovalTable, { id }, { acknowledged_at: actor.at });
  command.note(`approval ${id}`);
}

/** Throws refused where somebody may not make a move of an approval, or its state does not let anybody. */
async function assertMay(sql: Reader, actor: Actor, row: Row, move: ApprovalMove): Promise<void> {
  const why = whyNotParty(move, await partyOf(sql, actor, row), row.role);
  if (why !== null) throw new LedrinError('refused', why);
  assertMove(APPROVAL_LIFE, move, `Approval ${row.id}`, row.state);
}

/** The document an approval was used for, where it has a number only since then. */
export async function nameDocument(
  { sql, actor }: Command,
  kind: ApprovalRow['kind'],
  jobId: number,
  document: string,
): Promise<void> {
  const used = await sql.find(ApprovalTable, { kind, job_id: jobId, document: '', state: 'used', asked_by: actor.name });
  if (used.length > 0) await sql.update(ApprovalTable, { id: present(used.at(-1)).id }, { document });
}
