import { inJob } from '../../core/places/place';
import { known, present } from '../../core/errors/known';
import { lastCertified, valueApplication } from '../../core/billing/application';
import { LedrinError } from '../../core/errors/ledrinError';
import type { LineFigure } from '../../core/forecast/lineFigures';
import type { Cents } from '../../core/money/cents';
import { money, type FigureRef } from '../../core/workings/workings';
import type { Reader } from '../db/sql';
import { loadBillingJob, type LoadedBillingJob } from '../billing/billingJobs';
import type { JobIdentity } from '../jobs/jobByNumber';
import { costBySovLine, earnedByCost, servingLines, type ServedKey } from '../costs/costBySovLine';
import { awardedLine } from './award';
import { nameOf, ofJob, type Explained } from './figureFamily';
import { lineName } from './lineName';

/** A line of the schedule of values as its figures are explained from it. */
interface SovContext {
  sql: Reader;
  job: JobIdentity;
  billing: LoadedBillingJob;
  line: LoadedBillingJob['sovLines'][number];
  /** Price lines of it in change orders approved by the date. */
  changes: LoadedBillingJob['priceChanges'];
  scheduled: Cents;
  asOf: string;
  /** Opens another figure of the line. */
  own: (figure: string) => { figure: FigureRef };
}

type ExplainSov = (it: SovContext) => Promise<Explained & { result: Cents }>;

/** Figures of one SOV line that can be opened, with their titles, and how each is explained; or what of its cost lines it adds up. */
const SOV_FIGURES: Readonly<Record<string, { title: string; explain: ExplainSov } | { title: string; adds: Served }>> = {
  sovLineSigned: { title: 'As signed', explain: explainSigned },
  sovLineScheduled: { title: 'Scheduled value', explain: explainScheduled },
  sovLineBilled: { title: 'Billed to date', explain: explainBilled },
  sovLineEarned: { title: 'Earned by cost', explain: explainEarned },
  sovLineRevised: { title: 'Revised budget behind the line', adds: { key: 'revised', figure: 'lineRevised' } },
  sovLineActual: { title: 'Cost behind the line', adds: { key: 'actual', figure: 'lineActual' } },
  sovLineEstimate: { title: 'Estimate behind the line', adds: { key: 'estimate', figure: 'lineEstimate' } },
};

interface Served {
  key: ServedKey;
  figure: LineFigure;
}

/** Figures of one line of the schedule of values, or of cost that serves none. */
export const sovLineFigures = ofJob(Object.keys(SOV_FIGURES), async (sql, job, ref, asOf) => {
  const figure = known(new Map(Object.entries(SOV_FIGURES)), ref.figure);
  const { title } = figure;
  if (ref.sovLine === '') {
    if (!('adds' in figure)) throw new LedrinError('not-found', `Cost with no SOV line has no figure "${title}"`);
    const subject = `${nameOf(job)}, cost with no SOV line`;
    return { title, subject, unit: 'money', ...(await explainServed(sql, job, '', figure.adds, asOf)) };
  }
  const billing = await loadBillingJob(sql, job.id);
  const line = billing.sovLines.find((it) => it.line === ref.sovLine);
  if (!line) throw new LedrinError('not-found', `Job ${job.number} has no SOV line ${ref.sovLine}`);
  const changes = billing.priceChanges.filter((it) => it.line === line.line && it.approvedOn <= asOf);
  const scheduled = line.scheduledValue + changes.reduce((sum, it) => sum + it.amount, 0);
  const own = (of: string) => ({ figure: { figure: of, job: job.number, sovLine: line.line } });
  const context: SovContext = { sql, job, billing, line, changes, scheduled, asOf, own };
  return {
    title,
    subject: `${nameOf(job)}, line ${line.line} ${line.description}`,
    unit: 'money',
    ...('adds' in figure ? await explainServed(sql, job, line.line, figure.adds, asOf) : await figure.explain(context)),
  };
});

async function explainSigned({ sql, job, line }: SovContext) {
  const awarded = await awardedLine(sql, job, line.line);
  return {
    rule: awarded?.rule ?? 'As the schedule of values was typed or imported when the job was set up.',
    operands: awarded?.operands ?? [money('As entered', line.scheduledValue, '', { to: inJob(job, 'contract') })],
    result: line.scheduledValue,
  };
}

function explainScheduled({ job, line, changes, scheduled, own }: SovContext) {
  const operands = changes.map((it) =>
    money(`${it.changeOrder}, approved ${it.approvedOn}`, it.amount, '+', { to: inJob(job, 'change', it.changeOrder) }),
  );
  return Promise.resolve({
    rule: 'As signed, plus change orders approved by the date.',
    operands: [money('As signed', line.scheduledValue, '', own('sovLineSigned')), ...operands],
    result: scheduled,
  });
}

function explainBilled({ job, billing, line, asOf }: SovContext) {
  const last = lastCertified(billing.applications, asOf);
  const billed = last && valueApplication(billing, last, asOf).lines.find((it) => it.line === line.line);
  const to = last ? inJob(job, 'application', last.number) : inJob(job, 'billing');
  return Promise.resolve({
    rule: 'Work and materials on site to date of the last application certified by the date.',
    operands: billed
      ? [
          money(`Work, application ${present(last).number}`, billed.work, '', { to }),
          money('Materials on site', billed.materials, '+', { to }),
        ]
      : [],
    result: billed?.toDate ?? 0,
  });
}

async function explainEarned({ sql, job, line, scheduled, asOf, own }: SovContext) {
  const served = (await costBySovLine(sql, job, asOf)).get(line.line);
  return {
    rule: 'Scheduled value times cost over estimate of the budget lines that serve the line; never beyond the line.',
    operands: [
      money('Scheduled value', scheduled, '', own('sovLineScheduled')),
      money('Cost behind the line', served?.actual ?? 0, '×', own('sovLineActual')),
      money('Estimate behind the line', served?.estimate ?? 0, '÷', own('sovLineEstimate')),
    ],
    result: earnedByCost(scheduled, served) ?? 0,
  };
}

/** Budget, cost or estimate behind an SOV line, or behind none: the parts of the cost lines that serve it. */
async function explainServed(sql: Reader, job: JobIdentity, sovLine: string, { key, figure }: Served, asOf: string) {
  const lines = (await servingLines(sql, job, asOf)).get(sovLine) ?? [];
  return {
    operands: lines.map((it) =>
      money(lineName(it.line), it[key], '+', { figure: { figure, job: job.number, line: it.line.id } }),
    ),
    rule:
      sovLine === ''
        ? 'The cost lines whose budget names no SOV line.'
        : 'The cost lines whose budget or change order names this SOV line; one that serves several is shared by what names each.',
    result: lines.reduce((sum, it) => sum + it[key], 0),
  };
}
