import * as v from 'valibot';
import { command, preview, query } from './call';
import type { CostPreview } from './costs';
import { asOf, cents, costType, filled, list, optionalDate, plainDate, quantity, text } from './fields';
import type { Posted } from './ledger';

/** More entries than this are not corrected one by one. */
export const MOST_CORRECTED = 500;

const entryId = v.pipe(v.number('expected the number of a cost entry'), v.safeInteger('expected the number of a cost entry'));
const entries = v.pipe(
  list(entryId, MOST_CORRECTED, 'entries at once'),
  v.minLength(1, 'expected at least one entry'),
  v.check((ids) => new Set(ids).size === ids.length, 'expected each entry once'),
);

/** Where cost is moved to; null: as it is. To another job without a section it goes to none. */
const moveTarget = v.strictObject({
  job: v.nullable(filled(40)),
  section: v.nullable(text(80)),
  costCode: v.nullable(filled(40)),
  costType: v.nullable(costType),
});
export type MoveTarget = v.InferOutput<typeof moveTarget>;

export const correctionInput = v.strictObject({
  entries,
  /** Null: reversed, and nothing in its place. */
  to: v.nullable(moveTarget),
  /** All on this day; null: each entry on its own. */
  on: optionalDate,
  reason: filled(400),
});
export type CorrectionInput = v.InferOutput<typeof correctionInput>;

export const correctionPreviewInput = v.strictObject({
  ...correctionInput.entries,
  reason: text(400),
  asOf: plainDate,
});
export type CorrectionPreviewInput = v.InferOutput<typeof correctionPreviewInput>;

/** What a correction would do. */
export interface CorrectionPreview extends Omit<CostPreview, 'unusual'> {
  /** Orders that what is moved to another job no longer counts against. */
  ordersLeft: string[];
}

/** Material that lies on site as of a date. */
export interface UninstalledRow {
  entry: number;
  job: string;
  jobName: string;
  section: string;
  costCode: string;
  codeName: string;
  postedOn: string;
  /** Days from its posting to the date. */
  age: number;
  reference: string;
  party: string;
  description: string;
  amount: number;
  quantity: number | null;
  unit: string;
  /** What of it is not installed as of the date. */
  left: number;
  /** What of it is not installed on any day. */
  open: number;
  openQuantity: number | null;
}

export interface InstallationRow {
  id: number;
  entry: number;
  job: string;
  reference: string;
  party: string;
  description: string;
  costCode: string;
  installedOn: string;
  amount: number;
  quantity: number | null;
}

export interface UninstalledView {
  rows: UninstalledRow[];
  /** Newest first, at most 200. */
  installations: InstallationRow[];
}

const uninstalledQuery = v.strictObject({ asOf, job: v.optional(v.string()) });

const installInput = v.strictObject({
  on: plainDate,
  /** Whole entries, but for a part of one: an amount or a quantity. */
  parts: v.pipe(
    list(
      v.strictObject({ entry: entryId, amount: v.nullable(cents), quantity: v.nullable(quantity) }),
      MOST_CORRECTED,
      'entries at once',
    ),
    v.minLength(1, 'expected at least one entry'),
  ),
});
export type InstallInput = v.InferOutput<typeof installInput>;

/** Takes back all of a posting: on the day given, or each entry on its own day. */
const reversalInput = v.strictObject({ on: optionalDate, reason: filled(400) });
export type ReversalInput = v.InferOutput<typeof reversalInput>;

export const correctionCalls = {
  reversePosting: command<Posted>('correct-costs')('/postings/:posting/reverse', { input: reversalInput }),
  previewCorrection: preview<CorrectionPreview>('correct-costs')('/corrections/preview', { input: correctionPreviewInput }),
  correctCosts: command<Posted>('correct-costs')('/corrections', { input: correctionInput }),
  uninstalled: query<UninstalledView>('read-jobs')('/uninstalled', { query: uninstalledQuery }),
  install: command<{ amount: number }>('correct-costs')('/installations', { input: installInput }),
  undoInstallation: command('correct-costs')('/installations/:id/undo'),
};
