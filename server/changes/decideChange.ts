import { requireApproval, type Act } from '../approvals/requireApproval';
import { at } from '../../core/errors/known';
import { APPLICATION_SINCE, PRICE_AMOUNTS } from './queries';
import { ChangeOrderLineTable, ChangeOrderTable } from './models';
import type { Command } from '../acts/command';
import { agreedRefusal, approvedBeforeRefusal, changeDayRefusals } from '../../core/changes/changeRefusals';
import { assertAllowed } from '../acts/refused';
import { agreedLines } from '../../core/changes/changeOrder';
import { displayExact } from '../../core/money/display';
import type { AgreeChangeInput, DecideChangeInput } from '../../wire/changes';
import type { Reader, Sql } from '../db/sql';
import { loadDigits } from '../company/company';
import { assertOpenDays } from '../ledger/closing';
import type { LoadedChange } from './changeViews';
import { movableChange, saveChange } from './changes';

/** The one day a call gives. */
const DAYS = { issuedOn: 'on', decidedOn: 'on' };

/** Sends a change out: from then on what it asks for stands. */
export async function issueChange(command: Command, job: string, number: string, on: string): Promise<void> {
  const { sql } = command;
  const change = await movableChange(sql, 'issue', job, number);
  assertAllowed(changeDayRefusals({ status: 'issued', raisedOn: change.raisedOn, issuedOn: on, decidedOn: null }), {
    fields: DAYS,
  });
  await sql.update(ChangeOrderTable, { id: change.id }, { status: 'issued', issued_on: on });
  command.note(`${job}/${number}`, { on });
}

/** Raises, issues and approves a change in one step, as it was asked for: all of it, or nothing. Gives back its version. */
export async function agreeChange(command: Command, job: string, { change, was, on, by }: AgreeChangeInput): Promise<number> {
  const version = await saveChange(command, job, change, was);
  await issueChange(command, job, change.number, on);
  const decision = { status: 'approved' as const, on, by, note: '', agreed: null, daysGranted: change.daysAsked };
  await decideChange(command, job, change.number, decision);
  return version;
}

/** Notes the decision on an issued change. Approved, it counts from its day on, and never before. */
export async function decideChange(command: Command, job: string, number: string, input: DecideChangeInput): Promise<void> {
  const { sql } = command;
  const change = await movableChange(sql, input.status, job, number);
  const { raisedOn, issuedOn } = change;
  assertAllowed(changeDayRefusals({ status: input.status, raisedOn, issuedOn, decidedOn: input.on }), { fields: DAYS });
  if (input.status === 'approved') {
    await assertOpenDays(sql, [input.on], 'on');
    await assertApprovable(sql, change, input);
    await requireApproval(command, await approvalAct(sql, change, input));
  }
  await applyDecision(sql, change, input);
  command.note(`${job}/${number}`, input);
}

/** What is to be approved: the larger of what the client pays for it and what it costs. */
async function approvalAct(sql: Reader, change: Asked, input: DecideChangeInput): Promise<Act> {
  const digits = await loadDigits(sql);
  const price = input.agreed ?? change.asked;
  const cost = change.costLines.reduce((sum, it) => sum + it.amount, 0);
  return {
    kind: 'change-order',
    jobId: change.jobId,
    document: change.number,
    amount: Math.max(Math.abs(price), Math.abs(cost)),
    content: { input, priceLines: change.priceLines, costLines: change.costLines },
    facts: [
      ['Change order', `${change.number} ${change.title}`],
      ['Price', displayExact(price, digits)],
      ['Cost', displayExact(cost, digits)],
      ['Approved on', input.on],
    ],
  };
}

type Asked = Pick<LoadedChange, 'id' | 'jobId' | 'number' | 'title' | 'daysAsked' | 'asked' | 'priceLines' | 'costLines'>;

async function assertApprovable(sql: Reader, change: Asked, input: DecideChangeInput): Promise<void> {
  const later = await sql.get(APPLICATION_SINCE, [change.jobId, input.on]);
  assertAllowed([approvedBeforeRefusal(change.number, later)], { fields: DAYS });
  if (input.agreed !== null) assertAllowed([agreedRefusal(change.asked, input.agreed)], { digits: await loadDigits(sql) });
}

/** What a decision does to a change and its lines; a preview of an approval calls the same on copies of the tables. */
export async function applyDecision(
  sql: Sql,
  change: Pick<Asked, 'id' | 'asked' | 'daysAsked'>,
  input: DecideChangeInput,
): Promise<void> {
  const approved = input.status === 'approved';
  if (approved && input.agreed !== null && input.agreed !== change.asked) await agreeLines(sql, change.id, input.agreed);
  await sql.update(
    ChangeOrderTable,
    { id: change.id },
    {
      status: input.status,
      decided_on: input.on,
      decided_by: input.by,
      decision: input.note,
      days_granted: approved ? (input.daysGranted ?? change.daysAsked) : null,
    },
  );
}

/** Spreads what was agreed over the price lines in proportion to what was asked. */
async function agreeLines(sql: Sql, changeId: number, agreed: number): Promise<void> {
  const lines = await sql.all(PRICE_AMOUNTS, [changeId]);
  const amounts = agreedLines(
    lines.map((it) => it.amount),
    agreed,
  );
  for (const [i, line] of lines.entries())
    await sql.update(ChangeOrderLineTable, { id: line.id }, { asked: line.amount, amount: at(amounts, i) });
}
