import { periodOf } from '../../../core/calendar/plainDate';
import type { JobView, NextStep } from '../../../wire/jobs';
import type { LoadedBillingJob } from '../billing/billingJobs';
import type { LoadedPosition } from '../jobs/jobPositions';
import type { EstimatedLine } from '../reports/estimateVsActualReport';

/** The estimate a tender is to be offered with. */
export interface ChosenEstimate {
  number: number;
  status: string;
  /** Who accepted a quotation made from it; null where nobody did. */
  acceptedBy: string | null;
}

function tenderSteps(at: string, chosen: ChosenEstimate | undefined): NextStep[] {
  if (!chosen) return [{ text: 'A tender without an estimate: price it', to: `${at}/estimates` }];
  const to = `${at}/estimates/${chosen.number}`;
  if (chosen.status === 'draft') return [{ text: `Finish estimate ${chosen.number}, and mark it as sent when it goes out`, to }];
  if (chosen.acceptedBy)
    return [
      { text: `${chosen.acceptedBy} accepted the quotation: award the job from estimate ${chosen.number}`, to: `${to}/award` },
    ];
  return [{ text: `Award the job from estimate ${chosen.number} when the client accepts`, to: `${to}/award` }];
}

/** What the accountant should do next on a job, most pressing first. */
export function nextSteps(
  job: LoadedBillingJob,
  { position, progress, status, pendingChanges }: LoadedPosition,
  lines: readonly EstimatedLine[],
  overdue: number,
  changes: JobView['changeOrders'],
  chosen: ChosenEstimate | undefined,
  /** What the billing schedule says is still to be billed; null where the job has none. */
  bySchedule: number | null,
  asOf: string,
): NextStep[] {
  const at = `/jobs/${encodeURIComponent(job.number)}`;
  const steps: NextStep[] = [];
  const add = (text: string, to: string) => steps.push({ text, to: at + to });
  if (status === 'tender') return tenderSteps(at, chosen);
  const last = job.applications.filter((it) => it.dated <= asOf).at(-1);
  if (job.sovLines.length === 0) add('Enter the schedule of values', '/contract');
  if (lines.every((line) => !line.state.budgeted)) add('Enter the budget', '/budget');
  if (last?.status === 'draft') add(`Finish and submit application ${last.number}`, `/billing/${last.number}`);
  if (last?.status === 'submitted') add(`Certify application ${last.number} when the client agrees`, `/billing/${last.number}`);
  if (bySchedule !== null && bySchedule > 0 && (!last || last.status === 'certified'))
    add('An instalment of the billing schedule is due: start an application', '/billing');
  else if (
    bySchedule === null &&
    !position.finished &&
    status !== 'closed' &&
    progress.cost > 0 &&
    (!last || periodOf(last.dated) < periodOf(asOf))
  )
    add('No application this month yet: start one', '/billing');
  if (overdue > 0) add('Money is overdue: chase it', '/billing');
  const unbudgeted = lines.filter((line) => !line.state.budgeted && line.state.cost !== 0).length;
  if (unbudgeted > 0)
    add(`${unbudgeted} ${unbudgeted === 1 ? 'line has' : 'lines have'} cost and no budget: look at the coding`, '/budget');
  const over = lines.filter((line) => line.state.budgeted && line.variance < 0).length;
  if (over > 0) add(`${over} budget ${over === 1 ? 'line runs' : 'lines run'} over`, '/budget');
  if (pendingChanges !== 0)
    add(
      `${changes.filter((it) => it.status === 'issued' || it.status === 'draft').length} change waits for approval`,
      '/changes',
    );
  if (position.finished && progress.billed < progress.contractSum) add('Finished, and not billed in full', '/billing');
  return steps;
}
