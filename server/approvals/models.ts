import { APPROVAL_STATES, APPROVERS, type ApprovalName } from '../../core/approvals/approvals';
import { t, table } from '../db/fields';

export const ApprovalRuleTable = table('approval_rule', {
  kind: t.asKey(t.oneOf<ApprovalName>()),
  above: t.asKey(t.cents),
  role: t.oneOf(...APPROVERS),
});

export const ApprovalTable = table('approval', {
  id: t.id,
  /** Null where what is posted is of several jobs. */
  job_id: t.orNull(t.ref('job')),
  kind: t.oneOf<ApprovalName>(),
  /** Its number; empty until it has one. */
  document: t.text,
  amount: t.cents,
  role: t.oneOf(...APPROVERS),
  /** SHA-256 of all that is to be done: given for one thing, it opens no other. */
  digest: t.text,
  /** What whoever decides is shown, as JSON: pairs of a label and a text. */
  facts: t.text,
  /** The request as it was sent, as JSON, so that it can be sent again once it is approved. */
  request: t.text,
  state: t.filled(t.oneOf(...APPROVAL_STATES), 'asked'),
  asked_by: t.text,
  asked_at: t.moment,
  reason: t.text,
  decided_by: t.filled(t.text, ''),
  /** Whom `decided_by` stood in for. */
  decided_for: t.filled(t.text, ''),
  decided_at: t.filled(t.text, ''),
  decision: t.filled(t.text, ''),
  /** When whoever asked had read that it was refused; empty until then. */
  acknowledged_at: t.filled(t.text, ''),
});

export const AbsenceTable = table('absence', {
  id: t.id,
  user_id: t.ref('user'),
  deputy_id: t.ref('user'),
  from_day: t.day,
  to_day: t.day,
});
