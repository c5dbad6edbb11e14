import { displayExact } from '../../../core/money/display';
import { formatPercentShortest, parsePercent } from '../../../core/money/rate';
import type { Faults } from './readCells';
import { readAmount, tidyAmount } from './tidyAmount';

/** A part of a price: a percent of it, or an amount. */
export interface Part {
  rate: number | null;
  amount: number | null;
}

/** Reads a part of a price: a percent where it ends with %, else an amount. */
export function readPart(faults: Faults, at: string, typed: string | undefined, digits: number): Part {
  const part = (typed ?? '').trim();
  if (part.endsWith('%')) {
    const percent = parsePercent(part.replace(/\s*%$/, ''));
    if (!percent.ok) faults.set(at, `"${part}" is not a percentage from 0 to 100`);
    return { rate: percent.ok ? percent.value : null, amount: null };
  }
  const amount = readAmount(part, digits);
  if (amount === null)
    faults.set(at, part === '' ? 'Expected an amount, or a percentage such as 25 %' : `"${part}" is not a valid amount`);
  return { rate: null, amount: amount ?? 0 };
}

/** A part as its cell shows it: what `readPart` reads. */
export function partText({ rate, amount }: Part, digits: number): string {
  return rate === null ? displayExact(amount ?? 0, digits) : `${formatPercentShortest(rate)} %`;
}

/** Shows a part as it was understood; what is none stays as typed. */
export function tidyPart(digits: number) {
  return (typed: string): string => (typed.trim().endsWith('%') ? typed : tidyAmount(digits)(typed));
}
