import type { PlainDate } from '../calendar/plainDate';
import type { Cents } from '../money/cents';
import { rateOf, type Hours, type Rate } from '../money/rate';
import type { UnitCost } from '../prices/unitCost';
import { ruleOn } from './overtime';
import { payFor } from './payClass';

/** What comes on top of pay, by law or by agreement; of several rows of a burden one holds. */
export interface Burden {
  burden: string;
  from: PlainDate;
  /** The last day; null where it goes on. */
  to: PlainDate | null;
  /** Empty: of any. */
  job: string;
  wageClass: string;
  percent: Rate;
  /** Ten-thousandths of a major unit an hour. */
  perHour: UnitCost;
  /** Its share is of the pay with the premium; else of the hours at the plain rate. */
  onPremium: boolean;
}

/** A burden of a line of time, by the row that held. */
export interface BurdenOfLine {
  burden: string;
  row: Burden;
  amount: Cents;
}

interface Pay {
  job: string;
  wageClass: string;
  dated: PlainDate;
  hours: Hours;
  /** With the premium. */
  pay: Cents;
  /** Hours at the plain rate; of piece work the pay itself. */
  plain: Cents;
}

/** The burdens of a line: of each the row that fits best on its day, the newest of those; its share and its hours are rounded apart. */
export function burdensOf(burdens: readonly Burden[], line: Pay, digits: number): BurdenOfLine[] {
  return [...new Set(burdens.map((it) => it.burden))].flatMap((burden) => {
    const inForce = burdens.filter(
      (it) => it.burden === burden && it.from <= line.dated && (it.to === null || line.dated <= it.to) && fits(it, line),
    );
    const best = Math.max(...inForce.map(closeness));
    const row = ruleOn(
      inForce.filter((it) => closeness(it) === best),
      line.dated,
    );
    if (!row) return [];
    const share = rateOf(row.percent, row.onPremium ? line.pay : line.plain);
    return [{ burden, row, amount: share + payFor(line.hours, row.perHour, 'regular', digits) }];
  });
}

const fits = (it: Burden, { job, wageClass }: Pay) =>
  (it.job === '' || it.job === job) && (it.wageClass === '' || it.wageClass === wageClass);

/** Job and wage class before the job, the job before the wage class, that before neither. */
const closeness = ({ job, wageClass }: Burden) => (job === '' ? 0 : 2) + (wageClass === '' ? 0 : 1);
