import { present } from '../../core/errors/known';
import { approvalCalls } from '../../wire/approvals';
import type { Database } from '../db/database';
import { actorOf, type Context } from '../http/context';
import { handle, prepared } from '../http/handlers';
import { acknowledgeApproval, approvalsOf, approvalView, decideApproval, withdrawApproval } from './approvals';
import { absencesOf, addAbsence, approvalRules, endAbsence, saveApprovalRules } from './rules';

/** Those of jobs that somebody does not see are not there for them. */
const seen = (database: Database, { id }: { id: number }, context: Context) =>
  database.read((sql) => approvalView(sql, actorOf(context), id));

export const approvalHandlers = handle(approvalCalls, {
  approvalRules: (sql) => approvalRules(sql),
  saveApprovalRules: (command, { body }) => saveApprovalRules(command, body),
  approvals: (sql, args, context) => approvalsOf(sql, actorOf(context), args),
  approval: (sql, { id }, context) => approvalView(sql, actorOf(context), id),
  decideApproval: prepared({ prepare: seen, run: (command, { id, body }) => decideApproval(command, id, body) }),
  withdrawApproval: prepared({ prepare: seen, run: (command, { id }) => withdrawApproval(command, id) }),
  acknowledgeApproval: prepared({ prepare: seen, run: (command, { id }) => acknowledgeApproval(command, id) }),
  absences: (sql, _args, { person }) => absencesOf(sql, present(person ?? undefined)),
  addAbsence: (command, { body }, { person }) => addAbsence(command, body, present(person ?? undefined)),
  endAbsence: (command, { id }, { person }) => endAbsence(command, id, present(person ?? undefined)),
});
