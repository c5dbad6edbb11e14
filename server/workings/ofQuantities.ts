import { LedrinError } from '../../core/errors/ledrinError';
import { contractBudget } from '../../core/forecast/estimateAtCompletion';
import { QUANTITY_FIGURE_NAMES, QUANTITY_FIGURES, type QuantityFigure } from '../../core/forecast/quantities';
import { entriesOf, inJob } from '../../core/places/place';
import { displayQuantity } from '../../core/money/display';
import { money, quantity, type FigureRef, type Operand } from '../../core/workings/workings';
import { quantityLines, type QuantityLine } from '../costs/lineQuantities';
import type { JobIdentity } from '../jobs/jobByNumber';
import { nameOf, ofJob, type Explained } from './figureFamily';
import { lineName } from './lineName';

/** Figures of one cost line by quantity. */
export const quantityFigures = ofJob(QUANTITY_FIGURE_NAMES, async (sql, job, ref, asOf) => {
  const figure = ref.figure as QuantityFigure;
  const line = (await quantityLines(sql, job, asOf)).find((it) => it.id === ref.line);
  if (!line) throw new LedrinError('not-found', `Job ${job.number} has no such line by quantity by ${asOf}`);
  const { title, unit, key } = QUANTITY_FIGURES[figure];
  return {
    title,
    subject: `${nameOf(job)}: ${lineName(line)}, in ${line.quantities.unit}`,
    unit,
    result: line.quantities[key] ?? 0,
    ...EXPLAINED[figure](line, job),
  };
});

type Explain = (line: QuantityLine, job: JobIdentity) => Explained;

const of = (job: JobIdentity, line: QuantityLine, figure: string): { figure: FigureRef } => ({
  figure: { figure, job: job.number, line: line.id },
});

/** A quantity of the line as an operand that opens its own workings. */
function own(job: JobIdentity, line: QuantityLine, figure: QuantityFigure, sign = ''): Operand {
  const { title, key } = QUANTITY_FIGURES[figure];
  return quantity(title, line.quantities[key] ?? 0, sign, of(job, line, figure));
}

function rowsOf(line: QuantityLine, isChange: 0 | 1, ways: Pick<Operand, 'to'>): Operand[] {
  const rows = line.rows.filter((it) => it.isChange === isChange && (it.quantity ?? 0) !== 0);
  return rows.map((it) => quantity(it.title || 'Budget', it.quantity ?? 0, '+', ways));
}

/** The entries of the line, of which those with a quantity are counted. */
const entries = (job: JobIdentity, { section, costCode, costType }: QuantityLine) => ({
  to: entriesOf(job, { section, code: costCode, type: costType }),
});

const EXPLAINED: Record<QuantityFigure, Explain> = {
  quantityBudgeted: (line, job) => ({
    rule: 'The quantities of the budget rows; all that have a unit have this one.',
    operands: rowsOf(line, 0, { to: inJob(job, 'budget') }),
  }),
  quantityChanges: (line, job) => ({
    rule: 'The quantities of change orders approved by the date.',
    operands: rowsOf(line, 1, { to: inJob(job, 'changes') }),
  }),
  quantityRevised: (line, job) => ({
    rule: 'What was budgeted, and what change orders added.',
    operands: [own(job, line, 'quantityBudgeted'), own(job, line, 'quantityChanges', '+')],
  }),
  quantityUsed: (line, job) => ({
    rule: 'The quantities of the entries of the line to date in its unit, without daywork; entries without a quantity are not counted.',
    operands: [quantity('Used by entries with a quantity', line.counted.quantity, '', entries(job, line))],
  }),
  quantityLeft: (line, job) => ({
    rule: 'Revised quantity less what was used; below zero more was used.',
    operands: [own(job, line, 'quantityRevised'), own(job, line, 'quantityUsed', '−')],
  }),
  unitCostBudgeted: (line, job) => ({
    rule: 'Revised budget over revised quantity.',
    operands: [
      money('Revised budget, without daywork', contractBudget(line.state), '', of(job, line, 'lineRevised')),
      own(job, line, 'quantityRevised', '÷'),
    ],
  }),
  unitCostSoFar: (line, job) => ({
    rule: 'Cost of the entries with a quantity over what they used.',
    operands: [
      money('Cost of entries with a quantity', line.counted.cost, '', entries(job, line)),
      own(job, line, 'quantityUsed', '÷'),
    ],
  }),
  priceEffect: (line, job) => ({
    rule: 'Cost of the entries with a quantity, less what they used at the unit cost of the budget: above zero it was dearer. What is over by quantity is not in it.',
    operands: [
      money('Cost of entries with a quantity', line.counted.cost, '', entries(job, line)),
      money(
        `${displayQuantity(line.quantities.used)} ${line.quantities.unit} at the unit cost of the budget`,
        line.counted.cost - (line.quantities.priceEffect ?? 0),
        '−',
        of(job, line, 'unitCostBudgeted'),
      ),
    ],
  }),
};
