import * as v from 'valibot';
import { PART_BASES } from '../core/estimates/estimate';
import type { Estimate } from '../core/estimates/estimate';
import { COST_TYPES } from '../core/costs/costType';
import { cents, costType, filled, markup, needed, plainDate, text, unitCost, seen } from './fields';

const partInput = v.strictObject({
  item: text(40),
  description: text(400),
  costCode: filled(40),
  costType,
  basis: v.picklist(PART_BASES, `expected one of ${PART_BASES.join(', ')}`),
  quantity: needed,
  unit: text(20),
  unitCost,
  markup: v.nullable(markup),
});

const lineInput = v.strictObject({
  line: filled(40),
  section: text(80),
  description: filled(400),
  quantity: needed,
  unit: text(20),
  buildUp: text(40),
  markup: v.nullable(markup),
  parts: v.pipe(v.array(partInput), v.maxLength(200, 'expected at most 200 parts on a line')),
});

/** An estimate as typed. `version` is the one it was opened at: another one in the books means somebody saved since. */
export const estimateInput = v.strictObject({
  version: v.pipe(v.number('expected the version that was opened'), v.safeInteger('expected the version that was opened')),
  name: filled(),
  overhead: markup,
  profit: markup,
  rounding: cents,
  typeMarkups: v.pipe(
    v.array(v.strictObject({ costType, rate: markup })),
    v.maxLength(COST_TYPES.length, 'expected each cost type once'),
  ),
  sectionMarkups: v.pipe(
    v.array(v.strictObject({ section: filled(80), rate: markup })),
    v.maxLength(500, 'expected at most 500 sections'),
  ),
  lines: v.pipe(v.array(lineInput), v.maxLength(6000, 'expected at most 6,000 lines')),
});
export type EstimateInput = v.InferOutput<typeof estimateInput>;

/** A new estimate: empty, or a copy of one of this or another job. */
export const newEstimateInput = v.strictObject({
  name: filled(),
  copyOf: v.nullable(
    v.strictObject({
      job: filled(40),
      estimate: v.pipe(v.number('expected the number of an estimate'), v.safeInteger('expected the number of an estimate')),
    }),
  ),
});
export type NewEstimateInput = v.InferOutput<typeof newEstimateInput>;

export const sentInput = v.strictObject({ on: plainDate, reference: text() });

/** The award: what was agreed, when, and how the estimate's lines become a schedule of values. */
export const awardInput = v.strictObject({
  acceptedOn: plainDate,
  acceptance: filled(),
  agreed: cents,
  groups: v.pipe(
    v.array(
      v.strictObject({
        line: filled(40),
        section: text(80),
        description: filled(400),
        members: v.array(filled(40)),
        weight: v.nullable(
          v.pipe(
            v.number('expected a weight'),
            v.safeInteger('expected a whole weight'),
            v.minValue(0, 'expected a weight of 0 or more'),
            v.maxValue(1_000_000_000, 'expected a weight of at most 1,000,000,000'),
          ),
        ),
      }),
    ),
    v.minLength(1, 'expected at least one SOV line'),
    v.maxLength(5000, 'expected at most 5,000 lines'),
  ),
});
export type AwardInput = v.InferOutput<typeof awardInput>;

export interface EstimateListRow {
  number: number;
  name: string;
  status: string;
  chosen: boolean;
  lines: number;
  cost: number;
  hours: number;
  price: number;
  marginRate: number;
  markupRate: number;
  savedBy: string;
  savedAt: string;
  sentOn: string | null;
  acceptedOn: string | null;
}

export interface EstimateView extends Omit<Estimate, 'prices'> {
  job: string;
  jobName: string;
  jobStatus: string;
  number: number;
  name: string;
  status: 'draft' | 'sent' | 'accepted';
  chosen: boolean;
  version: number;
  savedBy: string;
  savedAt: string;
  sentOn: string | null;
  reference: string;
  acceptedOn: string | null;
  acceptance: string;
  /** Unit costs of the build-ups it uses, as they were when it was priced. */
  prices: [
    code: string,
    shares: { costCode: string; costType: (typeof COST_TYPES)[number]; markup: number | null; cost: number; hours: number }[],
  ][];
}

/** What pricing a draft anew with the price book of today would change. */
/** Pricing anew as it was previewed. */
export const repriceInput = v.strictObject({ seen });

export interface Repricing {
  seen: string;
  lines: { line: string; description: string; before: number; after: number; because: string[] }[];
  before: number;
  after: number;
}
