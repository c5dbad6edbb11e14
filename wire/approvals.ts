import * as v from 'valibot';
import { APPROVAL_NAMES, APPROVERS, type ApprovalName, type ApprovalState, type Approver } from '../core/approvals/approvals';
import { LARGEST_AMOUNT } from '../core/money/cents';
import { command, query } from './call';
import { filled, list, plainDate, text } from './fields';

const kind = v.picklist(APPROVAL_NAMES, `expected one of ${APPROVAL_NAMES.join(', ')}`);
const above = v.pipe(
  v.number('expected an amount in whole minor units'),
  v.safeInteger('expected an amount in whole minor units'),
  v.minValue(0, 'expected 0 or more'),
  v.maxValue(LARGEST_AMOUNT, 'the amount is too large'),
);
const role = v.picklist(APPROVERS, `expected one of ${APPROVERS.join(', ')}`);

export const approvalRulesInput = v.strictObject({
  /** The digest of the rules as the page showed them. */
  seen: text(64),
  rules: list(v.strictObject({ kind, above, role }), 50, 'rules'),
});
export type ApprovalRulesInput = v.InferOutput<typeof approvalRulesInput>;
export const decisionInput = v.strictObject({ give: v.boolean('expected true or false'), note: text(400) });
export type DecisionInput = v.InferOutput<typeof decisionInput>;
export const absenceInput = v.strictObject({ from: plainDate, to: plainDate, deputy: filled() });
export type AbsenceInput = v.InferOutput<typeof absenceInput>;
/** Of which documents approvals are wanted. */
export const approvalsQuery = v.strictObject({
  kind,
  document: v.optional(text(80), ''),
  job: v.optional(text(40), ''),
});

export interface ApprovalRow {
  id: number;
  /** Null where it is of several jobs. */
  job: string | null;
  jobName: string | null;
  kind: ApprovalName;
  document: string;
  amount: number;
  /** Who is asked, beside an owner. */
  role: Approver;
  facts: readonly (readonly [label: string, text: string])[];
  state: ApprovalState;
  askedBy: string;
  askedAt: string;
  reason: string;
  decidedBy: string;
  /** Whom they stood in for; empty where for nobody. */
  decidedFor: string;
  decidedAt: string;
  decision: string;
  /** What whoever asks may do with it now. */
  can: { decide: boolean; withdraw: boolean; carryOut: boolean; acknowledge: boolean };
}

/** A request as it is to be sent again. */
export interface SentAgain {
  method: 'POST' | 'PUT';
  url: string;
  body: unknown;
}

export interface AbsenceRow {
  id: number;
  from: string;
  to: string;
  deputy: string;
}

export const approvalCalls = {
  approvalRules: query<{ seen: string; rules: ApprovalRulesInput['rules'] }>('manage-users')('/approvals/rules'),
  saveApprovalRules: command('manage-users')('/approvals/rules', { method: 'PUT', input: approvalRulesInput }),
  approvals: query<ApprovalRow[]>('read-jobs')('/approvals', { query: approvalsQuery }),
  approval: query<ApprovalRow & { request: SentAgain | null }>('read-jobs')('/approvals/:id'),
  decideApproval: command('read-jobs')('/approvals/:id/decision', { input: decisionInput }),
  withdrawApproval: command('read-jobs')('/approvals/:id/withdrawal'),
  /** Says that one has read the refusal of what one asked for. */
  acknowledgeApproval: command('read-jobs')('/approvals/:id/acknowledgement'),
  absences: query<{ absences: AbsenceRow[]; deputies: string[] }>('read-jobs')('/account/absences'),
  addAbsence: command('read-jobs')('/account/absences', { input: absenceInput }),
  endAbsence: command('read-jobs')('/account/absences/:id', { method: 'DELETE' }),
};
