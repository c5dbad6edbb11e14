import { COST_TYPES } from '../../core/costs/costType';
import { PART_BASES } from '../../core/estimates/estimate';
import { shared, type BookCheck } from '../bookFormat/bookCheck';
import { bookFile, type BookFileOf } from '../bookFormat/bookFile';
import type { BookSave } from '../bookFormat/bookSave';
import {
  amount,
  date,
  integer,
  longText,
  markup,
  needed,
  oneOf,
  REQUIRED,
  text,
  unitCost,
  yesNo,
  type Columns,
  type ReadRow,
} from '../bookFormat/columns';
import * as v from 'valibot';
import { estimatePattern } from '../../wire/estimates';
import { isNotJson } from '../bookFormat/readJson';
import { joinKey } from '../bookFormat/keys';
import { costCodes } from '../company/book/bookFiles';
import { jobs } from '../jobs/bookFiles';
import { buildUps } from '../prices/bookFiles';
import { loadPriceList } from '../prices/priceList';
import type { NewRow } from '../db/fields';
import {
  EstimateLineTable,
  EstimateMarkupTable,
  EstimatePartTable,
  EstimatePatternTable,
  EstimatePriceTable,
  EstimateTable,
} from './models';

const KEY = { job: text(REQUIRED), estimate: integer(1, 9999)(REQUIRED, '1, 2 …') };

/** The number of each job's accepted estimate, the database's and the book's; and the jobs that have a chosen one. */
const decided = shared(() => ({ accepted: new Map<string, number>(), chosen: new Set<string>() }));

export function acceptedEstimate(book: BookCheck, job: string): number | undefined {
  const there = book.there(jobs, job)?.accepted;
  return book.own(decided).accepted.get(job) ?? (typeof there === 'number' ? there : undefined);
}

export const estimatePatterns = bookFile({
  name: 'estimate_patterns',
  columns: { pattern: text(REQUIRED), content: longText(REQUIRED, 'an estimate as it was saved, as JSON') },
  key: ['pattern'],
  called: 'pattern of an estimate',
  query: 'SELECT id, name AS pattern, content FROM estimate_pattern',
  check(row, book) {
    if (row.content && isNotJson(row.content, (read) => v.is(estimatePattern, read)))
      book.fault(
        estimatePatterns,
        row,
        'content',
        'is not an estimate as Ledrin saves one, JSON with its parts; take it as it was exported',
      );
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      EstimatePatternTable,
      rows.map((row) => ({ name: row.pattern, content: row.content, saved_at: into.actor.at })),
    ),
});

export const estimates = bookFile({
  name: 'estimates',
  columns: {
    ...KEY,
    name: text(REQUIRED),
    status: oneOf(['draft', 'sent', 'accepted'])(),
    chosen: yesNo(),
    overhead_percent: markup(),
    profit_percent: markup(),
    rounding: amount(),
    sent_on: date('required once sent'),
    reference: text(),
    accepted_on: date('required once accepted'),
    acceptance: text(),
  },
  key: ['job', 'estimate'],
  called: 'estimate',
  takenBy: 'unlocked',
  refers: { job: { to: jobs } },
  query: `SELECT e.id, j.number AS job, e.number AS estimate, e.name, e.status, e.chosen, nullif(e.overhead_rate, 0) AS overhead_percent, nullif(e.profit_rate, 0) AS profit_percent,
    nullif(e.rounding, 0) AS rounding, e.sent_on, e.reference, e.accepted_on, e.acceptance FROM estimate e JOIN job j ON j.id = e.job_id`,
  declare(row, book) {
    const { accepted } = book.own(decided);
    if (!row.job || !row.estimate || row.status !== 'accepted') return;
    if (acceptedEstimate(book, row.job) === undefined) accepted.set(row.job, row.estimate);
    else book.fault(estimates, row, 'status', `job ${row.job} has an accepted estimate already`);
  },
  check(row, book) {
    const at = (column: string, message: string) => book.fault(estimates, row, column, message);
    if ((row.status === 'sent' || row.status === 'accepted') && row.sent_on === null)
      at('sent_on', `missing required cell: an estimate that is ${row.status} needs the day it was sent`);
    if (row.status === 'accepted' && row.accepted_on === null)
      at('accepted_on', 'missing required cell: an estimate that is accepted needs the day of it');
    if (row.accepted_on && row.sent_on && row.accepted_on < row.sent_on)
      at('accepted_on', `${row.accepted_on} is before sent_on, ${row.sent_on}`);
    if (!row.job || !row.estimate || !row.chosen) return;
    const { chosen } = book.own(decided);
    if (chosen.has(row.job)) at('chosen', `job ${row.job} has a chosen estimate already`);
    chosen.add(row.job);
  },
  save: (rows, into): Promise<void> =>
    into.keyed(
      estimates,
      EstimateTable,
      rows,
      (row) => [row.job, row.estimate],
      (row) => ({
        job_id: into.id(jobs, row.job),
        number: row.estimate,
        name: row.name,
        status: row.status ?? 'draft',
        chosen: row.chosen ? 1 : 0,
        overhead_rate: row.overhead_percent ?? 0,
        profit_rate: row.profit_percent ?? 0,
        rounding: row.rounding ?? 0,
        sent_on: row.sent_on,
        reference: row.reference ?? '',
        accepted_on: row.accepted_on,
        acceptance: row.acceptance ?? '',
        saved_by: into.actor.name,
        saved_at: into.actor.at,
      }),
    ),
});

const OF_ESTIMATE = {
  job: { to: jobs },
  estimate: { to: estimates, by: ['job', 'estimate'], whole: 'an import brings estimates whole' },
} as const;

export const estimateMarkups = bookFile({
  name: 'estimate_markups',
  columns: { ...KEY, cost_type: oneOf(COST_TYPES)('or section'), section: text(), markup_percent: markup(REQUIRED) },
  key: [],
  takenBy: 'unlocked',
  refers: OF_ESTIMATE,
  query: `SELECT m.id, j.number AS job, e.number AS estimate, m.cost_type, m.section, m.rate AS markup_percent
    FROM estimate_markup m JOIN estimate e ON e.id = m.estimate_id JOIN job j ON j.id = e.job_id`,
  check(row, book) {
    if (row.cost_type !== undefined && (row.cost_type === null) === (row.section === null))
      book.fault(estimateMarkups, row, 'cost_type', 'expected a cost type or a section: one of the two');
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      EstimateMarkupTable,
      rows.map((row) => ({
        estimate_id: into.id(estimates, row.job, row.estimate),
        cost_type: row.cost_type,
        section: row.section,
        rate: row.markup_percent,
      })),
    ),
});

export const estimateLines = bookFile({
  name: 'estimate_lines',
  columns: {
    ...KEY,
    estimate_line: text(REQUIRED),
    section: text(),
    description: text(REQUIRED),
    quantity: needed(REQUIRED),
    unit: text(),
    build_up: text(),
    markup_percent: markup(),
  },
  key: ['job', 'estimate', 'estimate_line'],
  called: 'estimate line',
  existing: null,
  takenBy: 'unlocked',
  refers: OF_ESTIMATE,
  query: `SELECT l.id, j.number AS job, e.number AS estimate, l.line AS estimate_line, l.section, l.description, l.quantity, l.unit, l.build_up, l.markup_rate AS markup_percent
    FROM estimate_line l JOIN estimate e ON e.id = l.estimate_id JOIN job j ON j.id = e.job_id`,
  /** A build-up the book gives no unit costs of is the price list's. */
  checkAll(rows, book) {
    const priced = new Set(book.rowsOf(estimatePrices).map(buildUpKey));
    for (const row of rows)
      if (row.build_up && !priced.has(buildUpKey(row)))
        book.resolves(estimateLines, row, 'build_up', { to: buildUps }, [row.build_up]);
  },
  save: (rows, into): Promise<void> =>
    into.keyed(
      estimateLines,
      EstimateLineTable,
      rows,
      (row) => [row.job, row.estimate, row.estimate_line],
      (row) => ({
        estimate_id: into.id(estimates, row.job, row.estimate),
        line: row.estimate_line,
        section: row.section ?? '',
        description: row.description,
        quantity: row.quantity,
        unit: row.unit ?? '',
        build_up: row.build_up ?? '',
        markup_rate: row.markup_percent,
      }),
    ),
});

type Named = { job?: string | null; estimate?: number | null; build_up?: string | null };

function buildUpKey({ job, estimate, build_up: buildUp }: Named): string {
  return joinKey(job ?? '', estimate ?? 0, buildUp ?? '');
}

export const estimateParts = bookFile({
  name: 'estimate_parts',
  columns: {
    ...KEY,
    estimate_line: text(REQUIRED),
    price_item: text(),
    description: text(),
    cost_code: text(REQUIRED),
    cost_type: oneOf(COST_TYPES)(REQUIRED),
    basis: oneOf(PART_BASES)(),
    quantity: needed(REQUIRED),
    unit: text(),
    unit_cost: unitCost(REQUIRED),
    markup_percent: markup(),
  },
  key: [],
  takenBy: 'unlocked',
  refers: {
    ...OF_ESTIMATE,
    estimate_line: { to: estimateLines, by: ['job', 'estimate', 'estimate_line'] },
    cost_code: { to: costCodes },
  },
  query: `SELECT p.id, j.number AS job, e.number AS estimate, l.line AS estimate_line, p.price_item, p.description, c.code AS cost_code, p.cost_type,
    nullif(p.basis, 'per-unit') AS basis, p.quantity, p.unit, p.unit_cost, p.markup_rate AS markup_percent
    FROM estimate_part p JOIN estimate_line l ON l.id = p.estimate_line_id JOIN estimate e ON e.id = l.estimate_id JOIN job j ON j.id = e.job_id JOIN cost_code c ON c.id = p.cost_code_id`,
  save: (rows, into): Promise<void> =>
    into.insertAll(
      EstimatePartTable,
      rows.map((row) => ({
        estimate_line_id: into.id(estimateLines, row.job, row.estimate, row.estimate_line),
        price_item: row.price_item ?? '',
        description: row.description ?? '',
        cost_type: row.cost_type,
        cost_code_id: into.id(costCodes, row.cost_code),
        basis: row.basis ?? 'per-unit',
        quantity: row.quantity,
        unit: row.unit ?? '',
        unit_cost: row.unit_cost,
        markup_rate: row.markup_percent,
      })),
    ),
});

export const estimatePrices = bookFile({
  name: 'estimate_prices',
  columns: {
    ...KEY,
    build_up: text(REQUIRED, 'what one unit of it cost when the estimate was priced; not there: the price list of today'),
    cost_code: text(REQUIRED),
    cost_type: oneOf(COST_TYPES)(REQUIRED),
    markup_percent: markup(),
    unit_cost: unitCost(REQUIRED),
    hours: needed(),
  },
  key: [],
  takenBy: 'unlocked',
  refers: { ...OF_ESTIMATE, cost_code: { to: costCodes } },
  query: `SELECT p.id, j.number AS job, e.number AS estimate, p.build_up, c.code AS cost_code, p.cost_type, p.markup_rate AS markup_percent, p.unit_cost, nullif(p.hours, 0) AS hours
    FROM estimate_price p JOIN estimate e ON e.id = p.estimate_id JOIN job j ON j.id = e.job_id JOIN cost_code c ON c.id = p.cost_code_id`,
  save: async (rows, into): Promise<void> =>
    into.insertAll(EstimatePriceTable, [
      ...rows.map((row) => ({
        estimate_id: into.id(estimates, row.job, row.estimate),
        build_up: row.build_up,
        cost_type: row.cost_type,
        cost_code_id: into.id(costCodes, row.cost_code),
        markup_rate: row.markup_percent,
        unit_cost: row.unit_cost,
        hours: row.hours ?? 0,
      })),
      ...(await pricesOfToday(rows, into)),
    ]),
});

/** Unit costs of today for the build-ups the book gives none of. */
async function pricesOfToday(given: readonly Named[], into: BookSave): Promise<NewRow<typeof EstimatePriceTable>[]> {
  const priced = new Set(given.map(buildUpKey));
  const wanted = new Map(
    into.book
      .rowsOf(estimateLines)
      .filter((row) => row.build_up && !priced.has(buildUpKey(row)))
      .map((row) => [buildUpKey(row), row]),
  );
  if (wanted.size === 0) return [];
  const book = await loadPriceList(into.sql);
  return [...wanted.values()].flatMap(({ job, estimate, build_up: buildUp }) =>
    book.unitShares(buildUp ?? '').map(({ costCode, costType, markup: markupRate, cost, hours }) => ({
      estimate_id: into.id(estimates, job ?? '', estimate ?? 0),
      build_up: buildUp ?? '',
      cost_type: costType,
      cost_code_id: into.id(costCodes, costCode),
      markup_rate: markupRate,
      unit_cost: cost,
      hours,
    })),
  );
}

/** A row that names a line of its job's accepted estimate. */
export function checkAcceptedLine<C extends Columns>(
  file: BookFileOf<C>,
  row: ReadRow<C> & { job: string | null | undefined; estimate_line: string | null | undefined },
  book: BookCheck,
): void {
  const { job, estimate_line: line } = row;
  if (!job || !line || !book.keysOf(jobs).has(job)) return;
  const estimate = acceptedEstimate(book, job);
  if (estimate === undefined) book.fault(file, row, 'estimate_line', `unknown reference: job ${job} has no accepted estimate`);
  else book.resolves(file, row, 'estimate_line', { to: estimateLines }, [job, estimate, line]);
}
