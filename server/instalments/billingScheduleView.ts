import { LAST_SAVED, RETENTION_DAY, ACCEPTED_ESTIMATE } from './queries';
import { present } from '../../core/errors/known';
import { LAST_DAY } from '../../core/calendar/plainDate';
import { USUAL_TERMS_DAYS } from '../../core/billing/invoice';
import { scheduleAt } from '../../core/contract/contract';
import { revisedBudget } from '../../core/forecast/estimateAtCompletion';
import { sum } from '../../core/money/cents';
import { spreadByMonth } from '../../core/plan/planned';
import type { BillingScheduleView, StageView } from '../../wire/instalments';
import type { Reader } from '../db/sql';
import { loadBillingJob } from '../billing/billingJobs';
import { digestOf } from '../versions/digest';
import { jobByNumber } from '../jobs/jobByNumber';
import { loadQuotations } from '../offers/quotationList';
import { estimatedLines } from '../costs/estimatedLines';
import { appliedFor, billedBySchedule, changesOf, loadInstalments } from '../billing/billedBySchedule';
import { costSpans } from '../plan/plannedDates';
import { loadWorkDates } from '../plan/workDates';

/** Why a job's billing schedule is not changed any more; null where it is. */
export function scheduleClosed(status: string, locked: number): string | null {
  if (locked) return 'The job is locked';
  return status === 'closed' ? 'The job is closed; it takes no more bills' : null;
}

/** The billing schedule of a job, with all that the page values and previews it by. Budget and bills as of a date. */
export async function billingScheduleView(sql: Reader, number: string, asOf: string): Promise<BillingScheduleView> {
  const identity = await jobByNumber(sql, number, 'job');
  const job = await loadBillingJob(sql, identity.id);
  const [instalments, dates, costLines, quotations, kept, facts] = [
    await loadInstalments(sql, identity.id),
    await loadWorkDates(sql, identity.id),
    await estimatedLines(sql, identity, asOf),
    await loadQuotations(sql, number),
    await sql.get(LAST_SAVED, [number]),
    await sql.get(RETENTION_DAY, [identity.id]),
  ];
  // Where the acceptance was noted by hand, what was sent of the estimate that was accepted is what was agreed.
  const accepted = await sql.get(ACCEPTED_ESTIMATE, [identity.id]);
  const offered = quotations.findLast((it) => it.status === 'sent' && it.estimate === accepted?.number);
  const lines = scheduleAt(job.sovLines, job.priceChanges, LAST_DAY);
  const names = [...new Set([...dates.stages.keys(), ...lines.map((it) => it.section), ...costLines.map((it) => it.section)])];
  const spans = await costSpans(sql, identity.id, costLines, dates);
  return {
    seen: digestOf(instalments),
    savedBy: kept?.savedBy ?? null,
    savedAt: kept?.savedAt ?? null,
    instalments,
    job: dates.job,
    stages: names.filter(Boolean).map((name): StageView => ({
      name,
      ...(dates.stages.get(name) ?? { startsOn: null, finishesOn: null, startedOn: null, finishedOn: null }),
      costs: byType(costLines.filter((it) => it.section === name)),
    })),
    lines: lines.map((it) => ({
      line: it.line,
      section: it.section,
      scheduled: it.scheduledToDate,
      retentionRate: it.retentionRate,
      changes: changesOf(job, it.line, LAST_DAY),
    })),
    retentionRule: job.retention,
    termsDays: job.termsDays ?? USUAL_TERMS_DAYS,
    retentionOn: present(facts).retentionOn,
    costs: byMonth(spans.flatMap(({ amount, span }) => (span ? spreadByMonth(amount, span) : []))),
    payments: (quotations.findLast((it) => it.status === 'accepted') ?? offered)?.payments ?? [],
    due: sum([...((await billedBySchedule(sql, job, asOf)) ?? new Map<string, number>()).values()]),
    billed: appliedFor(job, asOf),
    closed: scheduleClosed(identity.status, identity.locked),
  };
}

function byType(lines: Awaited<ReturnType<typeof estimatedLines>>): StageView['costs'] {
  const costs: StageView['costs'] = {};
  for (const it of lines) costs[it.costType] = (costs[it.costType] ?? 0) + revisedBudget(it.state);
  return costs;
}

function byMonth(list: readonly { month: string; amount: number }[]): BillingScheduleView['costs'] {
  const months = new Map<string, number>();
  for (const { month, amount } of list) months.set(month, (months.get(month) ?? 0) + amount);
  return [...months].sort().map(([month, amount]) => ({ month, amount }));
}
