import * as v from 'valibot';
import type { ApprovalRule } from '../../core/approvals/approvals';
import { transferInput } from '../../wire/changes';
import { transferBudget } from '../budget/transfers';
import type { Database } from '../db/database';
import { JobTable } from '../jobs/models';
import { runCommand } from '../acts/command';
import { DEMO_NAMES } from '../users/demoUsers';
import { askApproval } from './approvals';
import { ApprovalRuleTable, ApprovalTable } from './models';
import { NeedsApproval, rulesOf } from './requireApproval';

const RULES: readonly ApprovalRule[] = [
  { kind: 'change-order', above: 25_000_00, role: 'owner' },
  { kind: 'transfer', above: 10_000_00, role: 'owner' },
  { kind: 'uncertify', above: 0, role: 'owner' },
  { kind: 'past-reversal', above: 0, role: 'owner' },
];

const JOB = '2108';
const line = { section: 'Levels 0–6', costCode: '0420', hours: null };
/** Read as it would be from a page, so that it is the same when it is sent again. */
const TRANSFER = v.parse(transferInput, {
  dated: '2031-04-30',
  reason: 'Panels come cut to size: less labour, more material',
  lines: [
    { ...line, costType: 'labour', amount: -12_000_00 },
    { ...line, costType: 'material', amount: 12_000_00 },
  ],
});

/** The rules of the demo, and a transfer of its manager's that waits for the owner; nothing where the company has rules of its own. */
export async function addDemoApprovals(database: Database): Promise<void> {
  const wanted = await database.read(
    async (sql) =>
      (await rulesOf(sql)).length === 0 &&
      (await sql.findOne(JobTable, { number: JOB, manager: DEMO_NAMES.manager })) !== undefined &&
      (await sql.find(ApprovalTable, {})).length === 0,
  );
  if (!wanted) return;
  const at = new Date().toISOString();
  const demo = { name: 'demo', at };
  await runCommand(database, { name: 'add-demo-approvals', actor: demo }, ({ sql }) => sql.insertAll(ApprovalRuleTable, RULES));
  const actor = { name: DEMO_NAMES.manager, at, role: 'manager' as const };
  try {
    await runCommand(database, { name: 'transfer-budget', actor }, (command) => transferBudget(command, JOB, TRANSFER));
  } catch (error) {
    if (!(error instanceof NeedsApproval)) throw error;
    const sent = { method: 'POST' as const, url: `/jobs/${JOB}/transfers`, body: TRANSFER };
    const reason = 'The works delivers panels cut to size since March';
    await runCommand(database, { name: 'ask-approval', actor }, (command) => askApproval(command, error, sent, reason));
  }
}
