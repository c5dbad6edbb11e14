import { addDays } from '../../core/calendar/plainDate';
import { inSheetOrder } from '../../core/labour/sheets';
import { weekBy } from '../../core/labour/overtime';
import { sum } from '../../core/money/cents';
import type { WeekCost } from '../../wire/weekSheets';
import type { Reader } from '../db/sql';
import { TIME_WORKED } from '../labour/queries';
import { loadTerms } from '../labour/terms';
import { planPosting, type TimeToPost } from './postTime';
import { LINES_OF_DAYS } from './queries';
import { LAST_OF_WEEK } from './sheetViews';

/** What the labour of the week a day lies in costs: as posted, and as it will once what waits is approved and posted. */
export async function weekCost(sql: Reader, on: string): Promise<WeekCost> {
  const { rules } = await loadTerms(sql);
  const week = weekBy(rules, on);
  const last = addDays(week, LAST_OF_WEEK);
  const posted = (await sql.all(TIME_WORKED, [week, last])).map((it) => it.payAmount + it.burden);
  const waiting = (await sql.all(LINES_OF_DAYS, [week, last])).filter((it) => it.status !== 'posted').sort(inSheetOrder);
  const plan = await planPosting(
    sql,
    waiting.map((it): TimeToPost => ({ ...it, reverses: null })),
    null,
    true,
  );
  const lines = new Map<number, number>();
  for (const { of, price } of plan.parts)
    if (of.id !== null) lines.set(of.id, (lines.get(of.id) ?? 0) + price.payAmount + price.burden);
  return {
    posted: sum(posted),
    toCome: sum([...lines.values()]),
    unpriced: plan.missing.length,
    lines: [...lines].map(([id, cost]) => ({ id, cost })),
  };
}
