import { isEnded } from '../../core/jobs/jobStatus';
import { CEILING_WARNING, isNearCeiling } from '../../core/charging/ceiling';
import { inJob, type JobPlace } from '../../core/places/place';
import { periodOf } from '../../core/calendar/plainDate';
import type { JobView, NextStep } from '../../wire/jobs';
import type { LoadedBillingJob } from '../billing/billingJobs';
import type { LoadedPosition } from '../costs/jobPositions';
import type { WaitingAnswer } from '../offers/waitingAnswers';
import type { EstimatedLine } from '../costs/estimatedLines';

/** The estimate a tender is to be offered with. */
export interface ChosenEstimate {
  number: number;
  status: string;
  /** Who accepted a quotation made from it; null where nobody did. */
  acceptedBy: string | null;
}

function tenderSteps(job: LoadedBillingJob, chosen: ChosenEstimate | undefined): NextStep[] {
  if (!chosen) return [{ text: 'A tender without an estimate: price it', to: inJob(job, 'estimates') }];
  const to = inJob(job, 'estimate', chosen.number);
  const award = inJob(job, 'award', chosen.number);
  if (chosen.status === 'draft') return [{ text: `Finish estimate ${chosen.number}, and mark it as sent when it goes out`, to }];
  if (chosen.acceptedBy)
    return [{ text: `${chosen.acceptedBy} accepted the quotation: award the job from estimate ${chosen.number}`, to: award }];
  return [{ text: `Award the job from estimate ${chosen.number} when the client accepts`, to: award }];
}

/** Clients first: what they ask, and what they answered that is not noted yet. */
export function answerSteps(job: string, waiting: readonly WaitingAnswer[]): NextStep[] {
  return waiting.map(({ kind, number, what, by }) => ({
    text:
      what === 'asks'
        ? `${by} asks about ${kind === 'change' ? number : `quotation ${number}`}: answer`
        : `${by} ${what} ${number}: note the decision`,
    to: inJob({ number: job }, kind, number),
  }));
}

/** What the accountant should do next on a job, most pressing first. */
export function nextSteps(
  job: LoadedBillingJob,
  { position, progress, status }: LoadedPosition,
  lines: readonly EstimatedLine[],
  overdue: number,
  changes: JobView['changeOrders'],
  chosen: ChosenEstimate | undefined,
  /** What the billing schedule says is still to be billed; null where the job has none. */
  bySchedule: number | null,
  asOf: string,
): NextStep[] {
  const steps: NextStep[] = [];
  const add = (text: string, place: JobPlace, document?: number) => steps.push({ text, to: inJob(job, place, document) });
  if (status === 'tender') return tenderSteps(job, chosen);
  if (isEnded(status)) return [];
  const last = job.applications.filter((it) => it.dated <= asOf).at(-1);
  const isBudgeted = lines.some((line) => line.state.budgeted);
  if (!position.charged && job.sovLines.length === 0) add('Enter the schedule of values', 'set-up');
  if (!position.charged && !isBudgeted) add('Enter the budget', 'set-up');
  if (last?.status === 'draft') add(`Finish and submit application ${last.number}`, 'application', last.number);
  if (last?.status === 'submitted') add(`Application ${last.number}: awaiting certificate`, 'application', last.number);
  if (bySchedule !== null && bySchedule > 0 && (!last || last.status === 'certified'))
    add('An instalment of the billing schedule is due: start an application', 'billing');
  else if (
    bySchedule === null &&
    !position.finished &&
    status !== 'closed' &&
    job.sovLines.length > 0 &&
    progress.cost > 0 &&
    (!last || periodOf(last.dated) < periodOf(asOf))
  )
    add('Application due this month', 'billing');
  if (position.daywork.charge > position.daywork.billed) add('Charged cost is on no invoice yet', 'charging');
  const ceiling = position.charged?.ceiling ?? null;
  if (ceiling !== null && position.daywork.charge > ceiling) add('More is charged than the ceiling', 'charging');
  else if (isNearCeiling(position.daywork.charge, ceiling, CEILING_WARNING)) add('The ceiling is nearly charged', 'charging');
  if (overdue > 0) add('Overdue payment: chase', position.charged ? 'charging' : 'billing');
  const unbudgeted = lines.filter((line) => !line.state.budgeted && line.state.cost !== 0).length;
  if (unbudgeted > 0 && (isBudgeted || !position.charged))
    add(`${unbudgeted} ${unbudgeted === 1 ? 'line has' : 'lines have'} cost and no budget: check coding`, 'budget');
  const over = lines.filter((line) => line.state.budgeted && line.variance < 0).length;
  if (over > 0) add(`${over} budget ${over === 1 ? 'line runs' : 'lines run'} over`, 'budget');
  const count = (status: string) => changes.filter((it) => it.status === status).length;
  const [drafts, issued] = [count('draft'), count('issued')];
  if (drafts > 0) add(`${drafts} ${drafts === 1 ? 'change is a draft' : 'changes are drafts'}: issue or discard`, 'changes');
  if (issued > 0) add(`${issued} ${issued === 1 ? 'change order' : 'change orders'} awaiting approval`, 'changes');
  if (position.finished && !position.charged && progress.billed < progress.contractSum)
    add('Finished, and not billed in full', 'billing');
  return steps;
}
