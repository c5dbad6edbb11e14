import type { BillingJob, ValuedApplication } from '../billing/application';
import { ratio } from '../money/rate';
import { describeRetention } from '../billing/describeRetention';
import { summaryFigure, type SummaryFigure } from '../billing/summaryFigures';
import { money, percent, words, type FigureRef, type Operand, type Workings } from './workings';

/** What an application's figures are explained from. */
interface Explaining {
  jobNumber: string;
  job: BillingJob;
  it: ValuedApplication;
}
type ValuedOf = ValuedApplication['lines'][number];

/** Another figure of an application as an operand that opens its own workings; of the application itself unless one is named. */
function named({ jobNumber, it }: Explaining, figure: SummaryFigure, sign = '', application = it.number): Operand {
  const { title, value } = summaryFigure(figure);
  const of = { figure, job: jobNumber, application } satisfies FigureRef;
  if (application === it.number) return money(title, value(it), sign, { figure: of });
  return money(`${title} of application ${application}`, it.previouslyCertified, sign, { figure: of });
}

function perLine(it: ValuedApplication, value: (line: ValuedOf) => number): Operand[] {
  return it.lines.filter((line) => value(line) !== 0).map((line) => money(`${line.line} ${line.description}`, value(line), '+'));
}

const EXPLAINED: Record<SummaryFigure, (of: Explaining) => Pick<Workings, 'rule' | 'operands'>> = {
  originalContractSum: ({ job }) => ({
    rule: 'The schedule of values as signed.',
    operands: job.sovLines
      .filter((line) => line.original)
      .map((line) => money(`${line.line} ${line.description}`, line.scheduledValue, '+')),
  }),
  changeOrders: ({ it }) => ({
    rule: 'Price lines of change orders approved by the date of the application.',
    operands: it.lines
      .filter((line) => line.scheduledToDate !== line.scheduledValue)
      .map((line) => money(`${line.line} ${line.description}`, line.scheduledToDate - line.scheduledValue, '+')),
  }),
  contractSum: (of) => ({
    rule: 'Original contract sum plus change orders, as it stood on the date of the application.',
    operands: [named(of, 'originalContractSum'), named(of, 'changeOrders', '+')],
  }),
  work: ({ it }) => ({ rule: 'Work done to date, line by line.', operands: perLine(it, (line) => line.work) }),
  materials: ({ it }) => ({
    rule: 'Materials delivered and not yet built in, line by line.',
    operands: perLine(it, (line) => line.materials),
  }),
  gross: (of) => ({
    rule: 'Work done to date plus materials on site.',
    operands: [named(of, 'work'), named(of, 'materials', '+')],
  }),
  retention: explainedRetention,
  retentionReleased: ({ job, it }) => ({
    rule: 'Releases of retention invoiced by the date of the application, before tax.',
    operands: job.releases
      .filter((release) => release.amount !== 0 && release.dated <= it.dated)
      .map((release) => money(`${release.reference}, ${release.dated}`, release.amount, '+')),
  }),
  net: (of) => ({
    rule: 'Gross to date less retention to date.',
    operands: [named(of, 'gross'), named(of, 'retention', '−')],
  }),
  previouslyCertified: (of) =>
    of.it.previousNumber === null
      ? { rule: 'Nothing was certified before.', operands: [] }
      : {
          rule: 'Net to date of the last application certified before this one.',
          operands: [named(of, 'net', '', of.it.previousNumber)],
        },
  due: (of) => ({
    rule: 'Net to date less what was certified before.',
    operands: [named(of, 'net'), named(of, 'previouslyCertified', '−')],
  }),
  tax: (of) => ({
    rule: "The job's tax on what is due, rounded to the penny.",
    operands: [named(of, 'due'), percent('Tax', of.job.taxRate, '×')],
  }),
  payable: (of) => ({ rule: 'Amount due plus tax.', operands: [named(of, 'due'), named(of, 'tax', '+')] }),
  balanceToComplete: (of) => ({
    rule: 'Contract sum less net to date, less retention released.',
    operands: [named(of, 'contractSum'), named(of, 'net', '−'), named(of, 'retentionReleased', '−')],
  }),
};

function explainedRetention(of: Explaining): Pick<Workings, 'rule' | 'operands'> {
  const { jobNumber, job, it } = of;
  const lineRef = (sovLine: string) => ({
    figure: { figure: 'sovLineRetention', job: jobNumber, application: it.number, sovLine },
  });
  return {
    rule: describeRetention(job.retention),
    operands: [
      named(of, 'work'),
      named(of, 'materials'),
      named(of, 'contractSum'),
      ...(it.retention.stepApplied ? [words('Step', 'reached')] : []),
      ...(it.retention.capApplied ? [words('Cap', 'applied')] : []),
      ...it.lines
        .filter((line) => line.retention !== 0)
        .map((line) => money(`On ${line.line} ${line.description}`, line.retention, '+', lineRef(line.line))),
    ],
  };
}

/** Explains one figure of a valued application. */
export function explainApplication(
  figure: SummaryFigure,
  subject: string,
  jobNumber: string,
  job: BillingJob,
  it: ValuedApplication,
): Workings {
  const { title, value } = summaryFigure(figure);
  return { title, subject, unit: 'money', result: value(it), ...EXPLAINED[figure]({ jobNumber, job, it }) };
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
