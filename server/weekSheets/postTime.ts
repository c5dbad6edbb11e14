import { addDays, firstDay, periodOf, type PlainDate } from '../../core/calendar/plainDate';
import { at, known } from '../../core/errors/known';
import { LedrinError } from '../../core/errors/ledrinError';
import { UNSAID } from '../../core/charging/chargeMark';
import { grouped } from '../../core/lists/grouped';
import { inSheetOrder } from '../../core/labour/sheets';
import { cutTime, type PostedTime } from '../../core/labour/overtime';
import type { PayClass } from '../../core/labour/payClass';
import { priceTime, whyUnpriced, type PricedTime } from '../../core/labour/priceTime';
import { firstOpenDay } from '../../core/ledger/openDay';
import { closedTo } from '../ledger/closing';
import { LARGEST_AMOUNT } from '../../core/money/cents';
import type { MissingRate, TimePreview } from '../../wire/weekSheets';
import { loadDigits } from '../company/company';
import { CostLines, insertCostEntries } from '../costs/costEntries';
import { COST_LINE_COPY, postingEffect } from '../costs/postingEffect';
import type { Database } from '../db/database';
import { nextId, type Reader, type Sql } from '../db/sql';
import { assertOfTeam } from '../jobs/restricted';
import { TimeLineTable } from '../labour/models';
import { saveTimePostings, timeEntries, timeJournals, type LineToPost } from '../labour/postLines';
import { TIME_WORKED } from '../labour/queries';
import { loadTerms } from '../labour/terms';
import type { Command } from '../acts/command';
import { assertMayPost } from '../ledger/gate';
import { assertAsPreviewed } from '../versions/staleness';
import { digestOf } from '../versions/digest';
import { chargingOf } from './chargingOf';
import { requireOfTime } from './timeApprovals';
import { APPROVED_OF_SHEETS, POST_LINES } from './queries';
import type { LoadedLine } from './sheetViews';

type Price = Pick<PricedTime, 'rate' | 'rung' | 'payAmount' | 'burden'>;

/** A line as it is to be posted: one of a sheet, or one that reverses a posted one and has its price turned. */
export type TimeToPost = Omit<
  LoadedLine,
  'id' | 'reverses' | 'reversedBy' | 'status' | 'returned' | 'postedOn' | 'name' | 'split' | 'chargeFrom' | 'chargeMarkup'
> & {
  /** The row it takes the place of; null for a line that is not saved yet. */
  id: number | null;
  name: string;
  /** Of a line of a sheet as it was brought; left out: none. */
  chargeFrom?: PlainDate | null;
  chargeMarkup?: number | null;
  reverses: { id: number; dated: PlainDate; pay: PayClass; price: Price } | null;
};

/** One part of a line, of one class, with its price. */
export interface PostedPart extends LineToPost {
  of: TimeToPost;
  pay: PayClass;
  price: Price;
}

export interface PlannedTimePosting {
  parts: PostedPart[];
  missing: MissingRate[];
  /** Lines without a rate stay approved, and the others are posted without them. */
  leftOut: boolean;
}

/** Whole weeks around lines: what is posted in them counts first when they are cut. */
const AROUND = 7;

/**
 * Cuts and prices lines; those without a rate are listed. `lateOn`: lines of earlier months count on it. `leaveOut`: the others are cut
 * as if those without a rate were not there; these count once they are posted, after what is posted by then.
 */
export async function planPosting(
  sql: Reader,
  lines: readonly TimeToPost[],
  lateOn: PlainDate | null,
  leaveOut = false,
): Promise<PlannedTimePosting> {
  const whole = await planAll(sql, lines, lateOn);
  if (!leaveOut || whole.missing.length === 0) return whole;
  const out = new Set(whole.missing.map((it) => `${it.sheet}/${it.line}`));
  const rest = await planAll(
    sql,
    lines.filter((it) => !out.has(`${it.sheet}/${it.line}`)),
    lateOn,
  );
  // Cut without them, more of the others may be paid by a rate that is not there: then they are listed too, and nothing is posted.
  return { ...rest, missing: [...whole.missing, ...rest.missing], leftOut: rest.missing.length === 0 };
}

async function planAll(sql: Reader, lines: readonly TimeToPost[], lateOn: PlainDate | null): Promise<PlannedTimePosting> {
  if (lines.length === 0) return { parts: [], missing: [], leftOut: false };
  const terms = await loadTerms(sql);
  const digits = await loadDigits(sql);
  const days = lines.flatMap((it) => [it.dated, it.reverses?.dated ?? it.dated]).sort();
  const people = new Set(lines.map((it) => it.employee));
  const posted = (await sql.all(TIME_WORKED, [addDays(at(days, 0), -AROUND), addDays(at(days, -1), AROUND)])).filter((it) =>
    people.has(it.employee),
  ) satisfies readonly PostedTime[];
  const open = lines.map((of) => ({
    of,
    employee: of.employee,
    dated: of.dated,
    hours: of.hours,
    hasUnits: of.units !== null,
    pay: of.reverses?.pay ?? of.pay,
    reversesOn: of.reverses?.dated ?? null,
  }));
  const planned: PlannedTimePosting = { parts: [], missing: [], leftOut: false };
  const firstOfMonth = lateOn === null ? null : firstDay(periodOf(lateOn));
  const closed = await closedTo(sql);
  for (const [{ of }, cut] of cutTime(open, posted, terms.rules)) {
    const asked = lateOn !== null && firstOfMonth !== null && of.dated < firstOfMonth ? lateOn : of.dated;
    const postedOn = firstOpenDay(asked, closed);
    for (const [pay, hours] of cut) {
      const price = of.reverses?.price ?? priceTime({ ...of, pay, hours }, terms, digits);
      if (typeof price !== 'string') {
        const { sheet, line, dated, employee, jobId, section, costCodeId, description } = of;
        planned.parts.push({
          of,
          id: 0,
          sheet,
          line,
          dated,
          postedOn,
          employee,
          jobId,
          section,
          costCodeId,
          description,
          pay,
          hours,
          price,
        });
        continue;
      }
      planned.missing.push({
        sheet: of.sheet,
        line: of.line,
        name: of.name,
        dated: of.dated,
        message: whyUnpriced(price, of, of.name),
      });
      break;
    }
  }
  return planned;
}

/** Approved lines of sheets, as they are to be posted. */
export async function approvedOf(sql: Reader, sheets: readonly string[]): Promise<TimeToPost[]> {
  const lines = await sql.all(APPROVED_OF_SHEETS, [JSON.stringify(sheets)]);
  // They are cut in the order of sheet and line, whatever order they were saved in.
  return lines.sort(inSheetOrder).map((it): TimeToPost => ({ ...it, reverses: null }));
}

/** What a page is shown of a plan: what would be posted otherwise since is noticed. */
export function shownOfPlan({ parts, missing }: PlannedTimePosting): unknown {
  return [
    parts.map((it) => [
      // A line that is not there yet has its number when it is posted: other sheets may come before it.
      ...(it.of.id === null ? [it.employee, it.dated] : [it.of.id, it.sheet, it.line]),
      ...[it.pay, it.hours, it.postedOn, it.jobId, it.section, it.costCodeId, it.price.payAmount, it.price.burden],
    ]),
    missing,
  ];
}

/** Shows what posting would do; holds up nobody. */
export async function previewPosting(
  database: Database,
  asOf: PlainDate,
  plan: (sql: Reader) => Promise<PlannedTimePosting>,
): Promise<TimePreview> {
  return database.preview(async (sql, copy) => {
    await copy(COST_LINE_COPY);
    const planned = await plan(sql);
    const { parts } = planned;
    const sum = (value: (it: PostedPart) => number) => parts.reduce((total, it) => total + value(it), 0);
    const ofJobs = parts.filter((it) => it.jobId !== null);
    const effect = await postingEffect(
      sql,
      copy,
      {
        jobIds: [...new Set(ofJobs.flatMap((it) => it.jobId ?? []))],
        touched: ofJobs.map(({ of }) => ({ job: of.job, section: of.section, costCode: of.costCode, costType: 'labour' })),
        journals: byDay(parts),
        asOf: parts.reduce((latest, it) => (it.postedOn > latest ? it.postedOn : latest), asOf),
      },
      () => saveEntries(sql, numbered(parts, 1), new Map(parts.map((_, i) => [i + 1, 1]))),
    );
    return {
      ...effect,
      seen: digestOf(shownOfPlan(planned)),
      entries: parts.length,
      missing: planned.missing,
      leftOut: planned.leftOut,
      hours: sum((it) => it.hours),
      pay: sum((it) => it.price.payAmount),
      burden: sum((it) => it.price.burden),
      classes: {
        regular: sum((it) => (it.pay === 'regular' ? it.hours : 0)),
        overtime: sum((it) => (it.pay === 'overtime' ? it.hours : 0)),
        double: sum((it) => (it.pay === 'double' ? it.hours : 0)),
      },
      late: parts.filter((it) => it.postedOn !== it.dated).length,
    };
  });
}

/** The journals of a posting, one an accounting day whatever the sheet: what a page shows of them. */
function byDay(parts: readonly PostedPart[]) {
  const oneSheet = parts.map((it) => ({ ...it, sheet: '' }));
  return (
    timeJournals(oneSheet)
      .map((it) => it.journal)
      // A line and its reversal on one day come to no journal.
      .filter((it) => it.lines.length > 0)
      .sort((a, b) => (a.dated < b.dated ? -1 : 1))
  );
}

/** Lines as they are posted: of those that are there what posting says, the others whole. */
async function savePosted(sql: Sql, lines: readonly PostedPart[], postings: ReadonlyMap<number, number>): Promise<void> {
  const splitOf = (of: TimeToPost) => (of.pay === null && !of.reverses ? 1 : 0);
  const [there, fresh] = [lines.filter((it) => it.id === it.of.id), lines.filter((it) => it.id !== it.of.id)];
  const posted = there.map(({ price, ...it }) => [
    ...[it.id, it.postedOn, it.pay, it.hours, splitOf(it.of), known(postings, it.id)],
    ...[price.rate, price.rung, price.payAmount, price.burden],
  ]);
  await sql.run(POST_LINES, [JSON.stringify(posted)]);
  await sql.insertAll(
    TimeLineTable,
    fresh.map(({ of, price, ...it }) => ({
      id: it.id,
      sheet: it.sheet,
      line: it.line,
      employee_id: of.employeeId,
      dated: it.dated,
      posted_on: it.postedOn,
      job_id: it.jobId,
      section: it.section,
      cost_code_id: it.costCodeId,
      work_kind_id: of.workKindId,
      department_id: of.departmentId,
      wage_class: of.wageClass,
      pay: it.pay,
      hours: it.hours,
      units: of.units,
      status: 'posted' as const,
      description: it.description,
      clock: of.clock,
      charge: of.charge,
      charge_from: of.chargeFrom ?? null,
      charge_markup: of.chargeMarkup ?? null,
      split: splitOf(of),
      posting_id: known(postings, it.id),
      reverses_id: of.reverses?.id ?? null,
      rate: price.rate,
      rung: price.rung,
      pay_amount: price.payAmount,
      burden: price.burden,
    })),
  );
}

/** The first part of a line takes the place of its row, further ones are new. */
function inTheirPlaces(parts: readonly PostedPart[], first: number): PostedPart[] {
  const usedLines = new Set<number>();
  let next = first;
  return parts.map((it) => {
    const own = it.of.id !== null && !usedLines.has(it.of.id) ? it.of.id : null;
    if (own !== null) usedLines.add(own);
    return { ...it, id: own ?? next++ };
  });
}

const numbered = (parts: readonly PostedPart[], first: number) => parts.map((it, i) => ({ ...it, id: first + i }));

/** Posts what was planned: the lines as they are cut, their postings and cost entries. */
export async function saveTime(command: Command, planned: PlannedTimePosting): Promise<{ entries: number; total: number }> {
  const { sql, actor } = command;
  const [first] = planned.leftOut ? [] : planned.missing;
  if (first)
    throw new LedrinError(
      'bad-input',
      first.message,
      planned.missing.map((it) => ({ field: `${it.sheet}/${it.line}`, message: it.message })),
    );
  if (planned.parts.length === 0) throw new LedrinError('refused', 'There is no approved time to post');
  const total = planned.parts.reduce((sum, it) => sum + it.price.payAmount + it.price.burden, 0);
  if (Math.abs(total) > LARGEST_AMOUNT)
    throw new LedrinError('refused', 'The time comes to more than one posting may hold; post it sheet by sheet');
  const jobIds = [...new Set(planned.parts.flatMap((it) => it.jobId ?? []))];
  const days = planned.parts.map((it) => it.postedOn);
  await assertMayPost(sql, actor, { kind: 'time', jobIds, days, dayField: 'lateOn' });
  await assertOfTeam(sql, actor, jobIds);
  await requireOfTime(command, 'post-time', planned, shownOfPlan(planned));
  const lines = inTheirPlaces(planned.parts, await nextId(sql, TimeLineTable));
  const postings = await saveTimePostings(sql, actor, lines);
  await savePosted(sql, lines, postings);
  await saveEntries(sql, lines, postings);
  return { entries: lines.length, total };
}

async function saveEntries(sql: Sql, lines: readonly PostedPart[], postings: ReadonlyMap<number, number>): Promise<void> {
  const jobIds = [...new Set(lines.flatMap((it) => it.jobId ?? []))];
  const costLines = await CostLines.open(sql, jobIds);
  const entries = timeEntries(lines, postings, (it) => costLines.idOf(it.jobId, it.section, it.costCodeId, 'labour'));
  await costLines.flush();
  const charging = await chargingOf(sql, lines);
  await insertCostEntries(
    sql,
    entries.map((it) => ({ ...it, charging: charging.get(it.time_line_id ?? 0) ?? UNSAID })),
  );
}

/** Posts the approved lines of sheets as they were previewed. */
export async function postTime(
  command: Command,
  { sheets, lateOn, leaveOut, seen }: { sheets: readonly string[]; lateOn: PlainDate | null; leaveOut: boolean; seen: string },
): Promise<{ entries: number; total: number }> {
  const planned = await planPosting(command.sql, await approvedOf(command.sql, sheets), lateOn, leaveOut);
  assertAsPreviewed(command, 'The time', shownOfPlan(planned), seen);
  const posted = await saveTime(command, planned);
  for (const [sheet, parts] of grouped(planned.parts, (it) => it.sheet))
    command.note(`week sheet ${sheet}`, { lines: parts.length });
  return posted;
}
