import { LABOUR_FIGURES, type LabourFigure } from '../forecast/labourFigures';
import { labourProgress, type LabourLine } from '../forecast/labourProgress';
import { hours, percent, words, type FigureRef, type Operand, type Workings } from './workings';

type Ref = (figure: LabourFigure) => { figure: FigureRef };

/** How a figure of hours of one task is worked (docs/rules.md §7a). `finished`: the job is. */
export function explainLabour(
  figure: LabourFigure,
  subject: string,
  { line, finished, ref }: { line: LabourLine; finished: boolean; ref: Ref },
): Workings {
  const it = labourProgress(line, finished);
  const { title, unit, key } = LABOUR_FIGURES[figure];
  const of = (name: LabourFigure, sign = '') => {
    const { title: label, unit: kind, key: at } = LABOUR_FIGURES[name];
    return kind === 'hours' ? hours(label, it[at], sign, ref(name)) : percent(label, it[at], sign, ref(name));
  };
  const worked = (): Pick<Workings, 'rule' | 'operands'> => {
    switch (figure) {
      case 'labourPercentUsed':
        return { rule: 'Hours used over hours budgeted.', operands: [of('labourUsed'), of('labourBudgeted', '÷')] };
      case 'labourToFinish':
        return { rule: 'Hours at completion less hours used.', operands: [of('labourAtCompletion'), of('labourUsed', '−')] };
      case 'labourOver':
        return {
          rule: 'Hours at completion less hours budgeted: above zero, over; below, under.',
          operands: [of('labourAtCompletion'), of('labourBudgeted', '−')],
        };
      case 'labourDone':
        return finished || !saysDone(line)
          ? {
              rule: finished ? 'The job is finished.' : 'Hours used over hours at completion.',
              operands: [of('labourUsed'), of('labourAtCompletion', '÷')],
            }
          : { rule: 'As the forecast of the line says.', operands: saidOf(line) };
      case 'labourAtCompletion':
        return completion(line, finished, of);
      default:
        return { rule: 'As the line has them.', operands: [] };
    }
  };
  return { title, subject, unit, result: it[key], ...worked() };
}

const saysDone = ({ forecast }: LabourLine) => forecast?.method === 'percent' && forecast.value > 0 && forecast.hoursThen > 0;

function saidOf({ forecast }: LabourLine): Operand[] {
  if (!forecast) return [];
  return [
    words('Forecast of', forecast.asOf),
    forecast.method === 'percent' ? percent('Done', forecast.value) : hours('Hours to go', forecast.value, '+'),
  ];
}

function completion(
  line: LabourLine,
  finished: boolean,
  of: (figure: LabourFigure) => Operand,
): Pick<Workings, 'rule' | 'operands'> {
  if (finished) return { rule: 'The job is finished: the hours that were used.', operands: [of('labourUsed')] };
  const { forecast } = line;
  const since = hours('Hours of changes since', line.hoursChangedSinceForecast, '+');
  const used = { ...of('labourUsed'), label: 'Hours used, compared' };
  if (forecast?.method === 'hours')
    return {
      rule: 'Hours then plus hours to go, plus hours of changes since; never below hours used.',
      operands: [hours('Hours then', forecast.hoursThen), ...saidOf(line), since, used],
    };
  if (forecast && saysDone(line))
    return {
      rule: 'Hours then over the share done, plus hours of changes since; never below hours used.',
      operands: [
        hours('Hours then', forecast.hoursThen),
        { ...percent('Done', forecast.value, '÷') },
        words('Forecast of', forecast.asOf),
        since,
        used,
      ],
    };
  return { rule: 'No forecast of hours: as budgeted; never below hours used.', operands: [of('labourBudgeted'), used] };
}
