import { createHash } from 'node:crypto';
import {
  APPROVALS,
  approves,
  ruleFor,
  type ApprovalName,
  type ApprovalRule,
  type Approver,
} from '../../core/approvals/approvals';
import { LedrinError } from '../../core/errors/ledrinError';
import { displayExact } from '../../core/money/display';
import type { Cents } from '../../core/money/cents';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import { dayOf, type Actor } from '../acts/audit';
import type { Command } from '../acts/command';
import { ApprovalRuleTable, ApprovalTable } from './models';
import { STOOD_IN_FOR } from './queries';

/** An act that may have to be approved first. */
export interface Act {
  kind: ApprovalName;
  /** Null where it is of several jobs. */
  jobId: number | null;
  /** The number of its document; empty where it gets one only when it is done. */
  document: string;
  amount: Cents;
  /** All that is to be done; approved for this, it may not be used for anything else. */
  content: unknown;
  /** What whoever decides is shown. */
  facts: readonly (readonly [label: string, text: string])[];
}

/** Thrown where an act has to be approved first. What was begun is undone; it can be asked for with `act`. */
export class NeedsApproval extends LedrinError {
  constructor(
    readonly act: Act,
    readonly role: Approver,
    readonly digest: string,
    message: string,
  ) {
    super('needs-approval', message);
  }
}

/**
 * Lets an act go on where no rule of the company stands against it, where whoever acts approves such acts in their own name,
 * or where it was approved to them; that approval is then used. Else throws NeedsApproval. The command line works on the file itself and is not asked.
 */
export async function requireApproval({ sql, actor }: Pick<Command, 'sql' | 'actor'>, act: Act): Promise<void> {
  if (actor.role === undefined) return;
  const rule = ruleFor(await rulesOf(sql), act.kind, act.amount);
  if (!rule || approves(actor.role, rule.role)) return;
  const digest = createHash('sha256')
    .update(JSON.stringify([act.kind, act.jobId, act.document, act.amount, act.content]))
    .digest('hex');
  const [given] = await sql.find(ApprovalTable, { digest, state: 'given', asked_by: actor.name });
  if (given) return sql.update(ApprovalTable, { id: given.id }, { state: 'used' });
  const [asked] = await sql.find(ApprovalTable, { digest, state: 'asked' });
  if (asked) throw askedAlready(asked);
  const digits = await loadDigits(sql);
  throw new NeedsApproval(act, rule.role, digest, needed(act, rule, digits));
}

/** An act that was asked for is not asked for again: pressed once more, it says whom it waits for. */
export function askedAlready(asked: { id: number; asked_by: string; role: Approver }): LedrinError {
  const who = nameOf(asked.role);
  return new LedrinError('refused', `${asked.asked_by} has asked for this already, approval ${asked.id}; it waits for ${who}`);
}

function needed(act: Act, rule: ApprovalRule, digits: number): string {
  const above = rule.above === 0 ? '' : ` above ${displayExact(rule.above, digits)}`;
  return `${sentence(APPROVALS[act.kind].act)}${above} has to be approved by ${nameOf(rule.role)}; ask for the approval, with a reason`;
}

export const sentence = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
const nameOf = (role: Approver) => (role === 'owner' ? 'an owner' : `${role === 'accountant' ? 'an' : 'a'} ${role} or an owner`);

/** The company's rules. */
export async function rulesOf(sql: Reader): Promise<ApprovalRule[]> {
  return sql.find(ApprovalRuleTable, {}, ['kind', 'above']);
}

/** Whether a rule of the company speaks of a kind of act, so that what it comes to has to be worked out. */
export async function isRuled(sql: Reader, kind: ApprovalName): Promise<boolean> {
  return (await rulesOf(sql)).some((it) => it.kind === kind);
}

/** In whose name somebody approves what is asked of a role: their own, or that of whoever is away and named them. Null: they may not. */
export async function approverFor(
  sql: Reader,
  actor: Pick<Actor, 'name' | 'role' | 'at' | 'day'>,
  asked: Approver,
): Promise<string | null> {
  const { name, role } = actor;
  if (role !== undefined && approves(role, asked)) return name;
  const absent = await sql.all(STOOD_IN_FOR, [dayOf(actor), name]);
  return absent.find((it) => approves(it.role, asked))?.name ?? null;
}
