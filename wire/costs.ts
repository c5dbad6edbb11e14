import * as v from 'valibot';
import { cents, costType, filled, optionalDate, plainDate, quantity, text } from './fields';

const costLineInput = v.strictObject({
  dated: plainDate,
  job: filled(40),
  section: text(80),
  costCode: filled(40),
  costType,
  party: text(),
  reference: filled(80),
  hours: v.nullable(quantity),
  amount: cents,
  description: text(400),
  /** Commitment and its line as `PO-7/1`; empty where the cost is against none. */
  commitment: text(120),
  uninstalled: v.boolean('expected true or false'),
});

/** A batch of costs as entered. */
export const costBatchInput = v.strictObject({
  lines: v.pipe(
    v.array(costLineInput),
    v.minLength(1, 'expected at least one line'),
    v.maxLength(5000, 'expected at most 5,000 lines in one batch'),
  ),
  asOf: plainDate,
});
export type CostBatchInput = v.InferOutput<typeof costBatchInput>;
export type CostLineInput = CostBatchInput['lines'][number];

export const reversalInput = v.strictObject({ on: optionalDate, reason: filled(400) });
export type ReversalInput = v.InferOutput<typeof reversalInput>;

export interface JournalView {
  dated: string;
  lines: { account: string; name: string; debit: number; credit: number }[];
}

/** What posting a batch would do. */
export interface CostPreview {
  total: number;
  lines: {
    job: string;
    section: string;
    costCode: string;
    costType: string;
    revised: number;
    before: number;
    after: number;
    remaining: number;
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

export interface Posted {
  postingId: number;
  entries: number;
  total: number;
}

export interface CostRow {
  id: number;
  postingId: number;
  dated: string;
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
  uninstalled: boolean;
  installedOn: string | null;
}

export interface CostPage {
  rows: CostRow[];
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

export interface PostingRow {
  id: number;
  kind: string;
  kindName: string;
  job: string | null;
  reference: string;
  dated: string;
  actor: string;
  recordedAt: string;
  total: number;
  reverses: number | null;
  reversedBy: number | null;
}

/** One posting with its journals. */
export interface PostingView extends PostingRow {
  note: string;
  journals: JournalView[];
  entryCount: number;
  /** Why it cannot be reversed; null where it can. */
  fixed: string | null;
}
