import type { BookCheck } from '../../bookFormat/bookCheck';
import { isWhole, type ReadRow } from '../../bookFormat/columns';
import { burdens, overtimeRules, payRates, pieceRates } from '../bookFiles';
import type { Terms } from '../terms';

/** Terms of rows as they were read; each knows its row. Rows that could not be read in full are left out. */
export const TERMS_OF_ROWS = {
  rates: (rows: readonly ReadRow<typeof payRates.columns>[]) =>
    rows.filter(isWhole).map((it) => ({
      row: it.row,
      from: it.from ?? '',
      job: it.job ?? '',
      section: it.section ?? '',
      workKind: it.work_kind ?? '',
      wageClass: it.wage_class ?? '',
      employee: it.employee ?? '',
      rate: it.rate ?? 0,
      atLeast: it.at_least === true,
    })),
  pieceRates: (rows: readonly ReadRow<typeof pieceRates.columns>[]) =>
    rows.filter(isWhole).map((it) => ({
      row: it.row,
      from: it.from ?? '',
      costCode: it.cost_code ?? '',
      workKind: it.work_kind ?? '',
      rate: it.rate ?? 0,
      topsUp: it.tops_up === true,
    })),
  burdens: (rows: readonly ReadRow<typeof burdens.columns>[]) =>
    rows.filter(isWhole).map((it) => ({
      row: it.row,
      burden: it.burden ?? '',
      from: it.from ?? '',
      to: it.to ?? null,
      job: it.job ?? '',
      wageClass: it.wage_class ?? '',
      percent: it.percent ?? 0,
      perHour: it.per_hour ?? 0,
      onPremium: it.on_premium === true,
    })),
  rules: (rows: readonly ReadRow<typeof overtimeRules.columns>[]) =>
    rows.filter(isWhole).map((it) => ({
      row: it.row,
      from: it.from ?? '',
      dailyAfter: it.daily_after ?? null,
      doubleAfter: it.double_after ?? null,
      weeklyAfter: it.weekly_after ?? null,
      weekStarts: it.week_starts ?? ('monday' as const),
    })),
} satisfies Record<keyof Terms, unknown>;

/** Which file of the book each of the terms is in. */
export const TERM_FILES = { rates: payRates, pieceRates, burdens, rules: overtimeRules } as const;

/** Terms with those of a book beside them. */
export function withTermsOf(book: BookCheck, there: Terms): Terms {
  return {
    rates: [...there.rates, ...TERMS_OF_ROWS.rates(book.rowsOf(payRates))],
    pieceRates: [...there.pieceRates, ...TERMS_OF_ROWS.pieceRates(book.rowsOf(pieceRates))],
    burdens: [...there.burdens, ...TERMS_OF_ROWS.burdens(book.rowsOf(burdens))],
    rules: [...there.rules, ...TERMS_OF_ROWS.rules(book.rowsOf(overtimeRules))],
  };
}
