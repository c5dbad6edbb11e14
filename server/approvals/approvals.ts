import { APPROVALS } from '../../core/approvals/approvals';
import { LedrinError } from '../../core/errors/ledrinError';
import { present } from '../../core/errors/known';
import type { ApprovalRow, DecisionInput, SentAgain } from '../../wire/approvals';
import type { Reader } from '../db/sql';
import { fieldError } from '../company/saveCompany';
import type { Actor } from '../ledger/audit';
import type { Command } from '../ledger/command';
import { ApprovalTable } from './models';
import { APPROVALS_OF, APPROVAL_BY_ID, OPEN_APPROVALS } from './queries';
import { approverFor, type NeedsApproval } from './requireApproval';

/** Asks for the approval of an act that was refused without one. What was sent is saved, to be sent again. Gives back its number. */
export async function askApproval(command: Command, needed: NeedsApproval, request: SentAgain, reason: string): Promise<number> {
  const { sql, actor } = command;
  const { act, role, digest } = needed;
  if (reason === '') throw fieldError('reason', 'Say why, so that it can be decided');
  const [open] = await sql.find(ApprovalTable, { digest, state: 'asked' });
  if (open) throw new LedrinError('refused', `${open.asked_by} has asked for this already; it waits for ${open.role}`);
  const id = await sql.insert(ApprovalTable, {
    ...{ job_id: act.jobId, kind: act.kind, document: act.document, amount: act.amount, role, digest },
    ...{ facts: JSON.stringify(act.facts), request: JSON.stringify(request) },
    ...{ asked_by: actor.name, asked_at: actor.at, reason },
  });
  command.note(`approval ${id}`, { act: APPROVALS[act.kind].act, document: act.document, amount: act.amount, reason });
  return id;
}

type Row = Awaited<ReturnType<typeof openRows>>[number];
const openRows = (sql: Reader) => sql.all(OPEN_APPROVALS);

async function viewOf(sql: Reader, actor: Actor, { facts, request: _, ...row }: Row): Promise<ApprovalRow> {
  const [own, approver] = [row.askedBy === actor.name, await approverFor(sql, actor, row.role)];
  return {
    ...{ ...row, facts: JSON.parse(facts) as ApprovalRow['facts'] },
    can: {
      decide: row.state === 'asked' && approver !== null && !(own && approver !== actor.name),
      withdraw: own && (row.state === 'asked' || row.state === 'given'),
      carryOut: own && row.state === 'given',
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

/** Open approvals that wait for somebody: to be decided, or, given, to be carried out. */
export async function approvalsWaitingFor(sql: Reader, actor: Actor): Promise<ApprovalRow[]> {
  const rows = await Promise.all((await openRows(sql)).map((it) => viewOf(sql, actor, it)));
  return rows.filter((it) => it.can.decide || it.can.carryOut);
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
  const approver = await approverFor(sql, actor, row.role);
  if (approver === null) throw new LedrinError('refused', `This waits for ${row.role} or an owner; you cannot decide it`);
  if (row.askedBy === actor.name && approver !== actor.name)
    throw new LedrinError(
      'refused',
      `You asked for this yourself; as deputy of ${approver} you cannot decide it. Somebody else has to`,
    );
  if (row.state !== 'asked') throw new LedrinError('refused', `Approval ${id} is ${row.state} already; reload the page`);
  if (!give && note === '') throw fieldError('note', 'Say why it is refused');
  await sql.update(
    ApprovalTable,
    { id },
    {
      ...{ state: give ? 'given' : 'refused', decided_by: actor.name, decided_at: actor.at, decision: note },
      decided_for: approver === actor.name ? '' : approver,
    },
  );
  command.note(`approval ${id}`, { given: give, note, ...(approver === actor.name ? {} : { standingInFor: approver }) });
}

/** Takes back one's own question, or an approval that is not wanted any more. */
export async function withdrawApproval(command: Command, id: number): Promise<void> {
  const { sql, actor } = command;
  const row = await approvalRow(sql, id);
  if (!(await viewOf(sql, actor, row)).can.withdraw)
    throw new LedrinError(
      'refused',
      `Approval ${id} was asked for by ${row.askedBy} and is ${row.state}; it cannot be withdrawn`,
    );
  await sql.update(ApprovalTable, { id }, { state: 'withdrawn' });
  command.note(`approval ${id}`);
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
