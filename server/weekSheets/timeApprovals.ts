import { sum } from '../../core/money/cents';
import { displayExact, displayQuantity } from '../../core/money/display';
import type { Command } from '../acts/command';
import { requireApproval } from '../approvals/requireApproval';
import { loadDigits } from '../company/company';
import type { PlannedTimePosting } from './postTime';

/**
 * Lets time be approved or posted where no rule of the company has it approved first: measured by what it costs, as it is planned. What a
 * correction reverses is under the rule of past months. `content`: all that is to be done.
 */
export async function requireOfTime(
  command: Command,
  kind: 'approve-time' | 'post-time',
  planned: PlannedTimePosting,
  content: unknown,
): Promise<void> {
  const { sql } = command;
  const digits = await loadDigits(sql);
  const parts = planned.parts.filter((it) => it.of.reverses === null);
  const amount = sum(parts.map((it) => it.price.payAmount + it.price.burden));
  const jobs = [...new Set(parts.map((it) => it.jobId))];
  const list = (values: readonly string[]) => [...new Set(values)].sort().join(', ');
  const sheets = [...new Set(parts.map((it) => it.sheet))];
  await requireApproval(command, {
    kind,
    jobId: jobs.length === 1 ? (jobs[0] ?? null) : null,
    document: sheets.length === 1 ? (sheets[0] ?? '') : '',
    amount,
    content,
    facts: [
      ['Week sheets', list(sheets)],
      ['People', list(parts.map((it) => it.of.name))],
      ['Jobs', list(parts.map((it) => it.of.job || 'overhead'))],
      ['Hours', displayQuantity(parts.reduce((total, it) => total + it.hours, 0))],
      ['Cost', displayExact(amount, digits)],
      ...(planned.missing.length > 0 ? [['Lines without a rate, not counted', String(planned.missing.length)] as const] : []),
    ],
  });
}
