import type { Cents } from '../money/cents';
import type { Role } from '../rights/rights';

interface ApprovalKind {
  /** The act, as it stands in a list and after "approval for". */
  act: string;
  /** What the amount of a rule is compared with. */
  measured: string;
}

/** What a company can have approved before it is done, one line a kind. */
export const APPROVALS = {
  'change-order': { act: 'approving a change order', measured: 'its price, or its cost where that is more' },
  transfer: { act: 'moving budget between lines', measured: 'what is moved' },
  uncertify: { act: 'reversing a certification', measured: 'the gross amount certified' },
  'past-reversal': { act: 'reversing or moving what was posted, in a past month', measured: 'what is reversed in past months' },
  'approve-time': { act: 'approving time', measured: 'what the hours cost, pay and burden' },
  'post-time': { act: 'posting time', measured: 'the labour cost that is posted, pay and burden' },
  'hand-over': { act: 'handing time over to payroll', measured: 'the gross pay that is handed over' },
  overbilling: { act: 'billing above a scheduled value', measured: 'what is billed above it, over all lines' },
} as const satisfies Record<string, ApprovalKind>;

export type ApprovalName = keyof typeof APPROVALS;
export const APPROVAL_NAMES = Object.keys(APPROVALS) as ApprovalName[];

/** Roles that can be asked for an approval. */
export const APPROVERS = ['owner', 'accountant', 'manager'] as const satisfies readonly Role[];
export type Approver = (typeof APPROVERS)[number];

/** An act of more than `above`, in minor units, is approved by somebody of `role`, or by an owner. */
export interface ApprovalRule {
  kind: ApprovalName;
  above: Cents;
  role: Approver;
}

/** Where an approval stands. Given, it is used once: by the act it was asked for. */
export const APPROVAL_STATES = ['asked', 'given', 'refused', 'withdrawn', 'used'] as const;
export type ApprovalState = (typeof APPROVAL_STATES)[number];

/** What holds of an act for which the company has laid down nothing: billing above a scheduled value is never one person's own affair. */
const UNLESS_SAID: readonly ApprovalRule[] = [{ kind: 'overbilling', above: 0, role: 'accountant' }];

/** The rule an act of `amount` falls under: of those it is above, the one with the largest limit. Null: nobody is asked. */
export function ruleFor(rules: readonly ApprovalRule[], kind: ApprovalName, amount: Cents): ApprovalRule | null {
  const own = rules.filter((it) => it.kind === kind);
  const holding = own.length > 0 ? own : UNLESS_SAID.filter((it) => it.kind === kind);
  const met = holding.filter((it) => Math.abs(amount) > it.above);
  return met.reduce<ApprovalRule | null>((most, it) => (most === null || it.above > most.above ? it : most), null);
}

/** Whether somebody of a role approves what is asked of `asked`: an owner always does. */
export function approves(role: Role, asked: Approver): boolean {
  return role === 'owner' || role === asked;
}
