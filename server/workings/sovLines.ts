import { inJob } from '../../core/places/place';
import { present } from '../../core/errors/known';
import { lastCertified, valueApplication } from '../../core/billing/application';
import { LedrinError } from '../../core/errors/ledrinError';
import { money, type FigureRef, type Workings } from '../../core/workings/workings';
import type { Reader } from '../db/sql';
import { loadBillingJob } from '../billing/billingJobs';
import type { JobIdentity } from '../jobs/jobByNumber';
import { costBySovLine, earnedByCost, servingLines, type ServedKey } from '../costs/costBySovLine';
import { awardedLine } from './award';
import { lineName } from './lineName';

/** Figures of one SOV line that can be opened, with their names. */
export const SOV_FIGURES = {
  sovLineSigned: 'As signed',
  sovLineScheduled: 'Scheduled value',
  sovLineBilled: 'Billed to date',
  sovLineEarned: 'Earned by cost',
  sovLineRevised: 'Revised budget behind the line',
  sovLineActual: 'Cost behind the line',
  sovLineEstimate: 'Estimate behind the line',
} as const;
type SovFigure = keyof typeof SOV_FIGURES;

const SERVED_FIGURES: Partial<Record<SovFigure, { key: ServedKey; figure: string }>> = {
  sovLineRevised: { key: 'revised', figure: 'lineRevised' },
  sovLineActual: { key: 'actual', figure: 'lineActual' },
  sovLineEstimate: { key: 'estimate', figure: 'lineEstimate' },
};

/** Explains a figure of one line of the schedule of values. */
export async function explainSovLine(sql: Reader, job: JobIdentity, ref: FigureRef, asOf: string): Promise<Workings> {
  if (ref.sovLine === '') return explainServed(sql, job, ref, asOf, `Job ${job.number} ${job.name}, cost with no SOV line`);
  const billing = await loadBillingJob(sql, job.id);
  const line = billing.sovLines.find((it) => it.line === ref.sovLine);
  if (!line) throw new LedrinError('not-found', `Job ${job.number} has no SOV line ${ref.sovLine}`);
  const figure = ref.figure as SovFigure;
  const base = {
    title: SOV_FIGURES[figure],
    subject: `Job ${job.number} ${job.name}, line ${line.line} ${line.description}`,
    unit: 'money' as const,
  };
  const own = (of: SovFigure) => ({ figure: { figure: of, job: job.number, sovLine: line.line } });
  const changes = billing.priceChanges.filter((it) => it.line === line.line && it.approvedOn <= asOf);
  const scheduled = line.scheduledValue + changes.reduce((sum, it) => sum + it.amount, 0);
  if (figure === 'sovLineSigned') {
    const awarded = await awardedLine(sql, job, line.line);
    return {
      ...base,
      rule: awarded?.rule ?? 'As the schedule of values was typed or imported when the job was set up.',
      operands: awarded?.operands ?? [money('As entered', line.scheduledValue, '', { to: inJob(job, 'contract') })],
      result: line.scheduledValue,
    };
  }
  if (figure === 'sovLineScheduled') {
    const operands = changes.map((it) =>
      money(`${it.changeOrder}, approved ${it.approvedOn}`, it.amount, '+', { to: inJob(job, 'change', it.changeOrder) }),
    );
    const rule = 'As signed, plus change orders approved by the date.';
    return {
      ...base,
      rule,
      operands: [money('As signed', line.scheduledValue, '', own('sovLineSigned')), ...operands],
      result: scheduled,
    };
  }
  if (figure === 'sovLineBilled') {
    const last = lastCertified(billing.applications, asOf);
    const billed = last && valueApplication(billing, last, asOf).lines.find((it) => it.line === line.line);
    const to = last ? inJob(job, 'application', last.number) : inJob(job, 'billing');
    return {
      ...base,
      rule: 'Work and materials on site to date of the last application certified by the date.',
      operands: billed
        ? [
            money(`Work, application ${present(last).number}`, billed.work, '', { to }),
            money('Materials on site', billed.materials, '+', { to }),
          ]
        : [],
      result: billed?.toDate ?? 0,
    };
  }
  if (figure === 'sovLineEarned') {
    const served = (await costBySovLine(sql, job, asOf)).get(line.line);
    return {
      ...base,
      rule: 'Scheduled value times cost over estimate of the budget lines that serve the line; never beyond the line.',
      operands: [
        money('Scheduled value', scheduled, '', own('sovLineScheduled')),
        money('Cost behind the line', served?.actual ?? 0, '×', own('sovLineActual')),
        money('Estimate behind the line', served?.estimate ?? 0, '÷', own('sovLineEstimate')),
      ],
      result: earnedByCost(scheduled, served) ?? 0,
    };
  }
  return explainServed(sql, job, ref, asOf, base.subject);
}

/** Budget, cost or estimate behind an SOV line, or behind none: the parts of the cost lines that serve it. */
async function explainServed(sql: Reader, job: JobIdentity, ref: FigureRef, asOf: string, subject: string): Promise<Workings> {
  const figure = ref.figure as SovFigure;
  const served = SERVED_FIGURES[figure];
  if (!served) throw new LedrinError('not-found', `Cost with no SOV line has no figure "${SOV_FIGURES[figure]}"`);
  const lines = (await servingLines(sql, job, asOf)).get(ref.sovLine ?? '') ?? [];
  const operands = lines.map((it) =>
    money(lineName(it.line), it[served.key], '+', { figure: { figure: served.figure, job: job.number, line: it.line.id } }),
  );
  return {
    title: SOV_FIGURES[figure],
    subject,
    unit: 'money',
    operands,
    rule:
      ref.sovLine === ''
        ? 'The cost lines whose budget names no SOV line.'
        : 'The cost lines whose budget or change order names this SOV line; one that serves several is shared by what names each.',
    result: lines.reduce((sum, it) => sum + it[served.key], 0),
  };
}
