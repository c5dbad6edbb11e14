import { nameDocument } from '../approvals/approvals';
import { requireApproval, type Act } from '../approvals/requireApproval';
import type { Reader } from '../db/sql';
import { LAST_TRANSFER } from './queries';
import { transferRefusals } from '../../core/budget/transferRefusals';
import { assertNoFaults, faultsOf } from '../acts/refused';
import { known } from '../../core/errors/known';
import { BudgetTransferLineTable, BudgetTransferTable } from './models';
import type { Command } from '../acts/command';
import type { Fault } from '../../core/errors/ledrinError';
import { displayExact } from '../../core/money/display';
import type { TransferInput } from '../../wire/changes';
import { costCodeIds } from '../costs/costCodes';
import { loadDigits } from '../company/company';
import { assertOpenDays } from '../ledger/closing';
import { jobThatTakes } from '../jobs/jobByNumber';
import { CostLines } from '../costs/costEntries';

/** Moves budget between lines of one job, for good. Gives back its number in the job. */
export async function transferBudget(command: Command, job: string, input: TransferInput): Promise<number> {
  const { sql, actor } = command;
  const identity = await jobThatTakes(sql, job, 'transfers');
  await assertOpenDays(sql, [input.dated]);
  const codes = await costCodeIds(sql);
  const faults: Fault[] = input.lines.flatMap((it, i) =>
    codes.has(it.costCode)
      ? []
      : [
          {
            field: `lines.${i}.costCode`,
            message: `There is no cost code ${it.costCode}; add it in Set-up, or choose another`,
          },
        ],
  );
  const refusals = transferRefusals({ dated: input.dated, awardedOn: identity.awarded_on, lines: input.lines });
  faults.push(...faultsOf(refusals, await loadDigits(sql)));
  assertNoFaults(faults);
  await requireApproval(command, await approvalAct(sql, identity.id, input));
  const last = await sql.get(LAST_TRANSFER, [identity.id]);
  const number = (last?.number ?? 0) + 1;
  const id = await sql.insert(BudgetTransferTable, {
    job_id: identity.id,
    number,
    dated: input.dated,
    reason: input.reason,
    actor: actor.name,
    recorded_at: actor.at,
  });
  const costLines = await CostLines.open(sql, [identity.id]);
  const rows = input.lines.map(({ section, costCode, costType, amount, hours }) => ({
    transfer_id: id,
    cost_line_id: costLines.idOf(identity.id, section, known(codes, costCode), costType),
    amount,
    hours,
  }));
  await costLines.flush();
  await sql.insertAll(BudgetTransferLineTable, rows);
  await nameDocument(command, 'transfer', identity.id, String(number));
  command.note(`${job}/${number}`, input);
  return number;
}

async function approvalAct(sql: Reader, jobId: number, input: TransferInput): Promise<Act> {
  const digits = await loadDigits(sql);
  return {
    kind: 'transfer',
    jobId,
    document: '',
    amount: input.lines.reduce((sum, it) => sum + Math.max(0, it.amount), 0),
    content: input,
    facts: [
      ['Day', input.dated],
      ['Why', input.reason],
      ...input.lines.map(
        (it) => [[it.section, it.costCode, it.costType].filter(Boolean).join(' '), displayExact(it.amount, digits)] as const,
      ),
    ],
  };
}
