import { ruleOn } from '../../core/labour/overtime';
import { priceTime } from '../../core/labour/priceTime';
import type { RowOf } from '../db/fields';
import type { BookCheck } from '../book/bookCheck';
import { MOST_DIGITS } from '../book/cells';
import type { BookFile } from '../book/bookFile';
import { burdens, overtimeRules, payRates, pieceRates } from './bookFiles';
import type { POSTED_TIME } from './queries';
import type { Terms } from './terms';

/** What is posted keeps its price: new terms that would alter it are refused, and name the lines. New ones know their row. */
export function refuseAltered(book: BookCheck, posted: readonly RowOf<typeof POSTED_TIME>[], terms: Terms): void {
  const altered = new Map<string, { file: BookFile; row: number; lines: string[] }>();
  for (const it of posted.filter((line) => line.reverses === null)) {
    const blame = (file: BookFile, one: object | null) => {
      if (!one || !('row' in one)) return;
      const key = `${file.name} ${String(one.row)}`;
      const lines = [...(altered.get(key)?.lines ?? []), `${it.sheet}/${it.line}/${it.pay} of ${it.dated}`];
      altered.set(key, { file, row: Number(one.row), lines });
    };
    if (it.split === 1) blame(overtimeRules, ruleOn(terms.rules, it.dated));
    const price = priceTime(it, terms, book.digits ?? MOST_DIGITS);
    if (typeof price === 'string') continue;
    if (price.rate !== it.rate || price.payAmount !== it.payAmount) {
      for (const looked of price.found?.looked ?? []) blame(payRates, looked.found);
      const pieces = terms.pieceRates.filter((one) => one.costCode === it.costCode);
      if (it.units !== null) blame(pieceRates, ruleOn(pieces, it.dated));
    }
    if (price.burden !== it.burden) for (const one of price.burdens) blame(burdens, one.row);
  }
  for (const { file, row, lines } of altered.values())
    book.fault(file, { row }, 'from', `would alter time that is posted: ${named(lines)}`);
}

const SHOWN = 5;
const named = (lines: readonly string[]) =>
  [...lines.slice(0, SHOWN), ...(lines.length > SHOWN ? [`${lines.length - SHOWN} more`] : [])].join(', ');
