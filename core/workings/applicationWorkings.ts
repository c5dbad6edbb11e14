import type { BillingJob, ValuedApplication } from '../billing/application';
import { ratio } from '../money/rate';
import { describeRetention } from '../billing/describeRetention';
import { money, percent, words, type FigureRef, type Operand, type Workings } from './workings';

/** Figures of an application that can be opened, with their names. */
export const APPLICATION_FIGURES = {
  originalContractSum: 'Original contract sum',
  changeOrders: 'Change orders',
  appContractSum: 'Contract sum',
  work: 'Work done to date',
  materials: 'Materials on site',
  gross: 'Gross to date',
  retention: 'Retention to date',
  retentionReleased: 'Retention released',
  net: 'Net to date',
  previouslyCertified: 'Previously certified',
  due: 'Due',
  tax: 'Tax',
  payable: 'Payable',
  balanceToComplete: 'Balance to complete',
} as const;
export type ApplicationFigure = keyof typeof APPLICATION_FIGURES;

/** Explains one figure of a valued application. */
export function explainApplication(
  figure: ApplicationFigure,
  subject: string,
  jobNumber: string,
  job: BillingJob,
  it: ValuedApplication,
): Workings {
  const ref = (of: ApplicationFigure, application = it.number) => ({
    figure: { figure: of, job: jobNumber, application } satisfies FigureRef,
  });
  const lineRef = (sovLine: string) => ({
    figure: { figure: 'sovLineRetention', job: jobNumber, application: it.number, sovLine },
  });
  const perLine = (value: (line: ValuedApplication['lines'][number]) => number): Operand[] =>
    it.lines.filter((line) => value(line) !== 0).map((line) => money(`${line.line} ${line.description}`, value(line), '+'));
  const explained: Record<ApplicationFigure, { rule: string; operands: Operand[]; result: number }> = {
    originalContractSum: {
      rule: 'The schedule of values as signed.',
      operands: job.sovLines
        .filter((line) => line.original)
        .map((line) => money(`${line.line} ${line.description}`, line.scheduledValue, '+')),
      result: it.originalContractSum,
    },
    changeOrders: {
      rule: 'Price lines of change orders approved by the date of the application.',
      operands: it.lines
        .filter((line) => line.scheduledToDate !== line.scheduledValue)
        .map((line) => money(`${line.line} ${line.description}`, line.scheduledToDate - line.scheduledValue, '+')),
      result: it.contractSum - it.originalContractSum,
    },
    appContractSum: {
      rule: 'Original contract sum plus change orders, as it stood on the date of the application.',
      operands: [
        money('Original contract sum', it.originalContractSum, '', ref('originalContractSum')),
        money('Change orders', it.contractSum - it.originalContractSum, '+', ref('changeOrders')),
      ],
      result: it.contractSum,
    },
    work: { rule: 'Work done to date, line by line.', operands: perLine((line) => line.work), result: it.work },
    materials: {
      rule: 'Materials delivered and not yet built in, line by line.',
      operands: perLine((line) => line.materials),
      result: it.materials,
    },
    gross: {
      rule: 'Work done to date plus materials on site.',
      operands: [
        money('Work done to date', it.work, '', ref('work')),
        money('Materials on site', it.materials, '+', ref('materials')),
      ],
      result: it.gross,
    },
    retention: {
      rule: describeRetention(job.retention),
      operands: [
        money('Work done to date', it.work, '', ref('work')),
        money('Materials on site', it.materials, '', ref('materials')),
        money('Contract sum', it.contractSum, '', ref('appContractSum')),
        ...(it.retention.stepApplied ? [words('Step', 'reached')] : []),
        ...(it.retention.capApplied ? [words('Cap', 'applied')] : []),
        ...it.lines
          .filter((line) => line.retention !== 0)
          .map((line) => money(`On ${line.line} ${line.description}`, line.retention, '+', lineRef(line.line))),
      ],
      result: it.retention.total,
    },
    retentionReleased: {
      rule: 'Releases of retention invoiced by the date of the application, before tax.',
      operands: job.releases
        .filter((release) => release.amount !== 0 && release.dated <= it.dated)
        .map((release) => money(`${release.reference}, ${release.dated}`, release.amount, '+')),
      result: it.retentionReleased,
    },
    net: {
      rule: 'Gross to date less retention to date.',
      operands: [
        money('Gross to date', it.gross, '', ref('gross')),
        money('Retention to date', it.retention.total, '−', ref('retention')),
      ],
      result: it.net,
    },
    previouslyCertified: {
      rule:
        it.previousNumber === null
          ? 'Nothing was certified before.'
          : 'Net to date of the last application certified before this one.',
      operands:
        it.previousNumber === null
          ? []
          : [money(`Net to date of application ${it.previousNumber}`, it.previouslyCertified, '', ref('net', it.previousNumber))],
      result: it.previouslyCertified,
    },
    due: {
      rule: 'Net to date less what was certified before.',
      operands: [
        money('Net to date', it.net, '', ref('net')),
        money('Previously certified', it.previouslyCertified, '−', ref('previouslyCertified')),
      ],
      result: it.due,
    },
    tax: {
      rule: "The job's tax on what is due, rounded to the penny.",
      operands: [money('Due', it.due, '', ref('due')), percent('Tax', job.taxRate, '×')],
      result: it.tax,
    },
    payable: {
      rule: 'Due plus tax.',
      operands: [money('Due', it.due, '', ref('due')), money('Tax', it.tax, '+', ref('tax'))],
      result: it.payable,
    },
    balanceToComplete: {
      rule: 'Contract sum less net to date, less retention released.',
      operands: [
        money('Contract sum', it.contractSum, '', ref('appContractSum')),
        money('Net to date', it.net, '−', ref('net')),
        money('Retention released', it.retentionReleased, '−', ref('retentionReleased')),
      ],
      result: it.balanceToComplete,
    },
  };
  return { title: APPLICATION_FIGURES[figure], subject, unit: 'money', ...explained[figure] };
}

/** Explains the retention of one SOV line. */
export function explainLineRetention(sovLine: string, subject: string, job: BillingJob, it: ValuedApplication): Workings | null {
  const line = it.lines.find((candidate) => candidate.line === sovLine);
  if (!line) return null;
  const spread = it.retention.capApplied || (it.retention.stepApplied && job.retention.step?.applies === 'further');
  const rate =
    it.retention.stepApplied && job.retention.step?.applies === 'all'
      ? job.retention.step.to
      : (line.retentionRate ?? job.retention.rate);
  const rule = spread
    ? 'The step or the cap sets the total; it is spread over the lines in proportion to their own retention, to the penny.'
    : 'The rate on work done to date, and the rate for materials on materials on site; rounded once for the line.';
  const operands = [
    money('Work done to date', line.work),
    percent('Rate on work', rate, '×'),
    money('Materials on site', line.materials),
    percent('Rate on materials', job.retention.materialsRate ?? line.retentionRate ?? job.retention.rate, '×'),
    ...(spread
      ? [
          money('Total to spread', it.retention.total),
          percent('This line, share of the total', ratio(line.retention, it.retention.total), '×'),
        ]
      : []),
  ];
  return {
    title: 'Retention to date',
    subject: `${subject}, line ${sovLine}`,
    rule,
    operands,
    result: line.retention,
    unit: 'money',
  };
}
