import { explainRate } from '../../core/labour/payRates';
import { inSheetOrder } from '../../core/labour/sheets';
import { priceTime } from '../../core/labour/priceTime';
import { LedrinError } from '../../core/errors/ledrinError';
import type { ArgsOf, OutputOf } from '../../wire/call';
import type { weekSheetCalls } from '../../wire/weekSheets';
import { newestMonth } from '../approvals/pastReversal';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import { POSTED_LINE } from '../labour/queries';
import { loadTerms } from '../labour/terms';
import { planPosting } from './postTime';
import { APPROVED_LINES } from './queries';
import { sheetRows } from './sheetViews';

/** Approved time by sheet, and the lines that cannot be priced yet: what is missing is known before anything is posted. */
export async function readyTime(sql: Reader): Promise<OutputOf<typeof weekSheetCalls.readyTime>> {
  const lines = (await sql.all(APPROVED_LINES)).sort(inSheetOrder);
  const { rules } = await loadTerms(sql);
  const { missing } = await planPosting(
    sql,
    lines.map((it) => ({ ...it, reverses: null })),
    null,
  );
  return {
    sheets: sheetRows(lines, rules).map((row) => ({ ...row, missing: missing.filter((it) => it.sheet === row.sheet) })),
    newest: await newestMonth(sql),
  };
}

/** How the rate of a posted line was found: what is posted keeps its price, so it is found again the same. */
export async function timeRate(
  sql: Reader,
  { sheet, line, pay }: ArgsOf<typeof weekSheetCalls.timeRate>,
): Promise<OutputOf<typeof weekSheetCalls.timeRate>> {
  const it = await sql.get(POSTED_LINE, [sheet, line, pay]);
  if (!it) throw new LedrinError('not-found', `There is no posted line ${`${sheet}/${line}/${pay}`.slice(0, 80)}`);
  const terms = await loadTerms(sql);
  const price = priceTime(it, terms, await loadDigits(sql));
  const found = typeof price === 'string' ? null : price.found;
  const wageClass = it.wageClass || it.employeeClass;
  const { looked } = found ? explainRate(terms.rates, { ...it, wageClass }, it.wageClass !== '', it.dated) : { looked: [] };
  return { rate: it.rate, rung: it.rung as OutputOf<typeof weekSheetCalls.timeRate>['rung'], looked };
}
