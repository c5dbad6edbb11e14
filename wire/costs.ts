import * as v from 'valibot';
import { CHARGE_MARKS } from '../core/charging/chargeMark';
import { COST_TYPES } from '../core/costs/costType';
import { asOf, cents, costType, filled, list, markup, plainDate, quantity, text, wholeText } from './fields';
import type { JournalView, Posted } from './ledger';
import { command, dated, download, preview, query } from './call';

const costLineInput = v.strictObject({
  dated: plainDate,
  /** The accounting date, where it is not the document's own. */
  postedOn: v.optional(v.nullable(plainDate), null),
  job: filled(40),
  section: text(80),
  costCode: filled(40),
  costType,
  party: text(),
  reference: filled(80),
  hours: v.nullable(quantity),
  /** In the unit of the cost line; labour has hours instead. */
  quantity: v.optional(v.nullable(quantity), null),
  amount: cents,
  description: text(400),
  /** Commitment and its line as `PO-7/1`; empty where the cost is against none. */
  commitment: text(120),
  uninstalled: v.boolean('expected true or false'),
  /** Of the quantity; empty: that of the cost line. */
  unit: v.optional(text(40), ''),
  /** Whether the client is charged for it; empty: by the job. */
  charge: v.optional(v.picklist(['', ...CHARGE_MARKS], `expected nothing, ${CHARGE_MARKS.join(', ')}`), ''),
  /** Charged from this day on; null: from its accounting date. */
  chargeFrom: v.optional(v.nullable(plainDate), null),
  /** Its own markup; null: the job's for its cost type. */
  markup: v.optional(v.nullable(markup), null),
});

/** A batch of costs as entered. */
export const costBatchInput = v.strictObject({
  lines: v.pipe(list(costLineInput, 5000, 'lines in one batch'), v.minLength(1, 'expected at least one line')),
  asOf: plainDate,
  /** The jobs as the preview showed them before the batch, amounts in minor units; null where nothing was previewed. */
  shown: v.optional(
    v.nullable(list(v.strictObject({ job: filled(40), estimate: cents, profit: cents, overUnder: cents }), 5000, 'jobs')),
    null,
  ),
});
export type CostBatchInput = v.InferInput<typeof costBatchInput>;
export type CostLineInput = CostBatchInput['lines'][number];

/** What posting a batch would do. */
export interface CostPreview {
  total: number;
  /** What has to be seen before it is posted, by line of the batch and field. */
  unusual: { line: number; field: string; message: string }[];
  lines: {
    job: string;
    section: string;
    costCode: string;
    costType: string;
    revised: number;
    before: number;
    after: number;
    remaining: number;
    /** Of its quantity, once it is posted; below zero more was used. Null: it is not counted by quantity. */
    quantityLeft: { left: number; unit: string } | null;
    budgeted: boolean;
    warning: string | null;
  }[];
  jobs: {
    job: string;
    name: string;
    margin: [number, number];
    profit: [number, number];
    overUnder: [number, number];
    estimate: [number, number];
    warning: string | null;
  }[];
  journals: JournalView[];
}

export interface CostRow {
  id: number;
  postingId: number;
  /** The document's own date. */
  dated: string;
  /** The accounting date: every report counts it. */
  postedOn: string;
  job: string;
  section: string;
  costCode: string;
  costType: string;
  reference: string;
  party: string;
  description: string;
  quantity: number | null;
  hours: number | null;
  amount: number;
  commitment: string | null;
  /** The line of the commitment, as it is typed: PO-1/2. */
  commitmentLine: string | null;
  uninstalled: boolean;
  /** The day the last of it was installed; null while something is not. */
  installedOn: string | null;
  /** What of it lies uninstalled. */
  notInstalled: number;
  /** The document whose entry this one reverses. */
  reverses: number | null;
  /** The document whose entry this one stands in place of, where cost was moved. */
  replaces: number | null;
  /** The document that reversed this one, or moved it. */
  reversedBy: number | null;
  /** It was moved, not only reversed. */
  moved: boolean;
  /** Whose time it is, as what, at which rate (ten-thousandths of a major unit) and on which week sheet; null for cost that is no time. */
  worked: { name: string; wageClass: string; rate: number; sheet: string } | null;
}

export interface CostPage {
  rows: CostRow[];
  /** Where the next page begins; null on the last. */
  next: string | null;
}

/** How cost was coded lately; the newest first. */
export interface RecentCoding {
  job: string;
  section: string;
  costCode: string;
  costType: string;
  party: string;
}

/** A line of a job that has a budget, with the unit it is counted in; empty where it has none, or several. */
export interface BudgetedLine {
  job: string;
  section: string;
  costCode: string;
  costType: string;
  unit: string;
}

/** All entries that match, whatever the page. */
export interface CostTotals {
  count: number;
  amount: number;
  hours: number;
}

export interface CostSubtotalRow {
  key: string;
  name: string;
  count: number;
  hours: number;
  amount: number;
}

export const COST_SORTS = ['dated', 'job', 'amount', 'party', 'cost-code'] as const;
export const SUBTOTALS = ['month', 'job', 'section', 'code', 'type', 'party'] as const;
const flag = v.pipe(
  v.picklist(['yes', 'no'], 'expected yes or no'),
  v.transform((it) => it === 'yes'),
);

/** Where a page begins: the last row of the page before, as its reply gave it. */
const pageStart = v.pipe(
  v.string(),
  v.maxLength(1000),
  v.transform((text): unknown => {
    try {
      return JSON.parse(text);
    } catch {
      return null;
    }
  }),
  v.pipe(
    v.array(v.union([v.string(), v.pipe(v.number(), v.safeInteger())]), 'expected where a page begins'),
    v.minLength(2, 'expected where a page begins'),
    v.maxLength(3, 'expected where a page begins'),
  ),
);

/** Ids of entries with commas between. */
const entryIds = v.pipe(
  v.string('expected numbers of cost entries'),
  v.regex(/^\d{1,15}(,\d{1,15}){0,499}$/, 'expected at most 500 numbers of cost entries, with commas between'),
  v.transform((it) => it.split(',').map(Number)),
);

/** What part of the cost ledger is asked for. `after` reads on from the page before; `offset` jumps to any place. */
export const ledgerQuery = v.strictObject({
  asOf,
  job: v.optional(v.string()),
  section: v.optional(v.string()),
  costCode: v.optional(v.string()),
  costType: v.optional(v.picklist(COST_TYPES, `expected one of ${COST_TYPES.join(', ')}`)),
  party: v.optional(v.string()),
  from: v.optional(plainDate),
  to: v.optional(plainDate),
  search: v.optional(v.pipe(v.string(), v.maxLength(100, 'expected at most 100 characters'))),
  posting: v.optional(wholeText(Number.MAX_SAFE_INTEGER)),
  commitment: v.optional(v.string()),
  /** Entries by their ids. */
  ids: v.optional(entryIds),
  sort: v.optional(v.picklist(COST_SORTS, `expected one of ${COST_SORTS.join(', ')}`)),
  descending: v.optional(flag),
  after: v.optional(pageStart),
  offset: v.optional(wholeText(100_000_000)),
  limit: v.optional(wholeText(1000)),
});
export type LedgerParams = v.InferInput<typeof ledgerQuery>;
const subtotalQuery = v.strictObject({
  ...ledgerQuery.entries,
  by: v.picklist(SUBTOTALS, `expected one of ${SUBTOTALS.join(', ')}`),
});

export const costCalls = {
  costPage: query<CostPage>('read-jobs')('/costs', { query: ledgerQuery, part: 'report:cost-ledger' }),
  costTotals: query<CostTotals>('read-jobs')('/costs/totals', { query: ledgerQuery, part: 'report:cost-ledger' }),
  costSubtotals: query<CostSubtotalRow[]>('read-jobs')('/costs/subtotals', { query: subtotalQuery, part: 'report:cost-ledger' }),
  recentCodings: query<RecentCoding[]>('post-costs')('/costs/recent-codings'),
  /** Of jobs by their numbers, apart by commas; those that are not seen are left out. */
  budgetedLines: query<BudgetedLine[]>('post-costs')('/costs/budgeted-lines', {
    query: v.strictObject({ ...dated.entries, jobs: text(4000) }),
  }),
  costLedgerCsv: download('read-jobs')('/costs.csv', { query: ledgerQuery, part: 'report:cost-ledger' }),
  previewCosts: preview<CostPreview>('post-costs')('/costs/preview', { input: costBatchInput }),
  postCosts: command<Posted>('post-costs')('/costs', { input: costBatchInput }),
};
