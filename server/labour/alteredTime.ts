import { isDeepStrictEqual } from 'node:util';
import { ruleOn, type OvertimeRule } from '../../core/labour/overtime';
import { explainRate } from '../../core/labour/payRates';
import { priceTime } from '../../core/labour/priceTime';
import type { RowOf } from '../db/fields';
import type { POSTED_TIME } from './queries';
import type { Terms } from './terms';

/** A posted line that new terms would cut or price otherwise, and the terms that have a hand in it. */
export interface AlteredLine {
  line: string;
  by: { list: keyof Terms; term: object }[];
}

/** What is posted keeps its price: the posted lines that `after` would alter. */
export function alteredTime(
  posted: readonly RowOf<typeof POSTED_TIME>[],
  before: Terms,
  after: Terms,
  digits: number,
): AlteredLine[] {
  return posted.flatMap((it): AlteredLine[] => {
    if (it.reverses !== null) return [];
    const by: AlteredLine['by'] = [];
    const blame = (list: keyof Terms, term: object | null | undefined) => void (term && by.push({ list, term }));
    const rule = ruleOn(after.rules, it.dated);
    const recut = it.split === 1 && !isDeepStrictEqual(thresholds(ruleOn(before.rules, it.dated)), thresholds(rule));
    if (recut) blame('rules', rule);
    const price = priceTime(it, after, digits);
    const unpriced = typeof price === 'string';
    const repaid = unpriced || price.rate !== it.rate || price.payAmount !== it.payAmount;
    if (!unpriced && repaid) {
      const wageClass = it.wageClass || it.employeeClass;
      const { looked } = explainRate(after.rates, { ...it, wageClass }, it.wageClass !== '', it.dated);
      if (price.found) for (const { found } of looked) blame('rates', found);
      const pieces = after.pieceRates.filter((one) => one.costCode === it.costCode);
      if (it.units !== null) blame('pieceRates', ruleOn(pieces, it.dated));
    }
    const reburdened = !unpriced && price.burden !== it.burden;
    if (reburdened) for (const one of price.burdens) blame('burdens', one.row);
    return recut || repaid || reburdened ? [{ line: `${it.sheet}/${it.line}/${it.pay} of ${it.dated}`, by }] : [];
  });
}

/** What a rule says, whichever row says it. */
function thresholds(rule: OvertimeRule | null) {
  return rule && [rule.dailyAfter, rule.doubleAfter, rule.weeklyAfter, rule.weekStarts];
}

const SHOWN = 5;

/** Why new terms are refused, with the lines they would alter. */
export function wouldAlter(lines: readonly string[]): string {
  const named = [...lines.slice(0, SHOWN), ...(lines.length > SHOWN ? [`${lines.length - SHOWN} more`] : [])].join(', ');
  return `would alter time that is posted: ${named}`;
}
