import { displayExact } from '../../core/money/display';
import type { AboveInput } from '../../wire/billing';
import { requireApproval } from '../approvals/requireApproval';
import type { Command } from '../acts/command';
import { movableApplication } from './applications';
import { ApplicationTable } from './models';

/**
 * Says by how much the lines of a draft may pass their scheduled values, together, and why (docs/rules.md §6). Whoever does not bill
 * has it approved, whatever the company's rules.
 */
export async function billAbove(command: Command, jobNumber: string, number: number, { by, reason }: AboveInput): Promise<void> {
  const { sql } = command;
  const { job, digits, application } = await movableApplication(sql, 'edit', jobNumber, number);
  const { id, above = 0 } = application;
  if (by > above)
    await requireApproval(command, {
      kind: 'overbilling',
      jobId: job.id,
      document: String(number),
      amount: by,
      content: { by },
      facts: [
        ['Application', String(number)],
        ['Above scheduled values', displayExact(by, digits)],
        ['Why', reason],
      ],
    });
  await sql.update(ApplicationTable, { id }, { above_scheduled: by, above_reason: by === 0 ? '' : reason });
  command.note(`${jobNumber}/${number}`, { was: { above }, now: { above: by }, reason });
}
