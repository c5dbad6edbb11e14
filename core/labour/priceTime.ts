import type { PlainDate } from '../calendar/plainDate';
import { LARGEST_AMOUNT, type Cents } from '../money/cents';
import type { Hours, Quantity } from '../money/rate';
import { extend, type UnitCost } from '../prices/unitCost';
import { burdensOf, type Burden, type BurdenOfLine } from './burdens';
import { ruleOn } from './overtime';
import { payFor, type PayClass } from './payClass';
import { rateOn, type PayRate, type RateFound, type Rung } from './payRates';

/** Pay for what is installed, of a cost code and perhaps a kind of work. */
export interface PieceRate {
  from: PlainDate;
  costCode: string;
  /** Empty: of any. */
  workKind: string;
  /** Ten-thousandths of a major unit for one unit. */
  rate: UnitCost;
  /** Where the hours would pay more, they do. */
  topsUp: boolean;
}

/** All that labour is priced by. */
export interface LabourTerms {
  rates: readonly PayRate[];
  pieceRates: readonly PieceRate[];
  burdens: readonly Burden[];
}

/** A line of time of one pay class. */
export interface TimeToPrice {
  employee: string;
  dated: PlainDate;
  /** Empty: overhead. */
  job: string;
  section: string;
  costCode: string;
  workKind: string;
  /** The line's own; empty: the employee's. */
  wageClass: string;
  employeeClass: string;
  pay: PayClass;
  hours: Hours;
  /** Of piece work; null for hours. */
  units: Quantity | null;
}

/** What a line of time costs, and by which rate. */
export interface PricedTime {
  /** Of an hour before the multiplier, or of a piece. */
  rate: UnitCost;
  rung: Rung | 'piece';
  payAmount: Cents;
  burdens: readonly BurdenOfLine[];
  burden: Cents;
  total: Cents;
  /** How the rate of an hour was found; null where none was looked for. */
  found: RateFound | null;
}

/** Why a line cannot be priced. */
export type Unpriced = 'no-rate' | 'no-piece-rate' | 'too-large';

/** Why a line cannot be priced, in words: nothing is posted while there is one. */
export function whyUnpriced(why: Unpriced, { costCode, dated }: Pick<TimeToPrice, 'costCode' | 'dated'>, name: string): string {
  if (why === 'no-rate') return `there is no pay rate for ${name} on ${dated}`;
  if (why === 'no-piece-rate') return `there is no piece rate of ${costCode} for ${name} on ${dated}`;
  return `the cost of ${name} on ${dated} is larger than an amount may be`;
}

/** Prices a line of time (docs/rules.md §10): pay by the hour or by the piece, and its burdens. */
export function priceTime(line: TimeToPrice, terms: LabourTerms, digits: number): PricedTime | Unpriced {
  const paid = line.units === null ? payByHour(line, terms, digits) : payByPiece(line, terms, digits);
  if (typeof paid === 'string') return paid;
  const wageClass = line.wageClass || line.employeeClass;
  const { job, dated, hours } = line;
  const burdens = burdensOf(terms.burdens, { job, wageClass, dated, hours, pay: paid.payAmount, plain: paid.plain }, digits);
  const burden = burdens.reduce((sum, it) => sum + it.amount, 0);
  const { rate, rung, payAmount, found } = paid;
  if (Math.abs(payAmount) + Math.abs(burden) > LARGEST_AMOUNT) return 'too-large';
  return { rate, rung, payAmount, burdens, burden, total: payAmount + burden, found };
}

type Paid = Pick<PricedTime, 'rate' | 'rung' | 'payAmount' | 'found'> & { plain: Cents };

function payByHour(line: TimeToPrice, { rates }: LabourTerms, digits: number): Paid | 'no-rate' {
  const wageClass = line.wageClass || line.employeeClass;
  const found = rateOn(rates, { ...line, wageClass }, line.wageClass !== '', line.dated);
  if (!found) return 'no-rate';
  const { rate, rung } = found;
  return {
    rate,
    rung,
    found,
    payAmount: payFor(line.hours, rate, line.pay, digits),
    plain: payFor(line.hours, rate, 'regular', digits),
  };
}

/** What the pieces of a line alone come to; null without a piece rate. Of a kind of work before any. */
export function piecePay(
  { costCode, workKind, dated, units }: Pick<TimeToPrice, 'costCode' | 'workKind' | 'dated' | 'units'>,
  pieceRates: readonly PieceRate[],
  digits: number,
): { piece: PieceRate; payAmount: Cents } | null {
  const of = (kind: string) =>
    ruleOn(
      pieceRates.filter((it) => it.costCode === costCode && it.workKind === kind),
      dated,
    );
  const piece = (workKind === '' ? null : of(workKind)) ?? of('');
  return piece && { piece, payAmount: extend(units ?? 0, piece.rate, digits) };
}

function payByPiece(line: TimeToPrice, terms: LabourTerms, digits: number): Paid | Unpriced {
  const paid = piecePay(line, terms.pieceRates, digits);
  if (!paid) return 'no-piece-rate';
  const { piece, payAmount } = paid;
  const byPiece: Paid = { rate: piece.rate, rung: 'piece', payAmount, plain: payAmount, found: null };
  if (!piece.topsUp) return byPiece;
  const byHour = payByHour(line, terms, digits);
  if (byHour === 'no-rate') return byHour;
  return byHour.payAmount > payAmount ? { ...byHour, plain: byHour.payAmount } : { ...byPiece, found: byHour.found };
}
