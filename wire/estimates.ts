import * as v from 'valibot';
import type { EstimateMove } from '../core/estimates/estimateLife';
import type { Reasons } from '../core/refusals/reasons';
import { PART_BASES } from '../core/estimates/estimate';
import type { Estimate } from '../core/estimates/estimate';
import { COST_TYPES } from '../core/costs/costType';
import { cents, costType, filled, list, markup, needed, plainDate, seen, text, unitCost, version } from './fields';
import { command, query } from './call';

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
  parts: list(partInput, 200, 'parts on a line'),
});

/** An estimate as typed. `version` is the one it was opened at: another one in the books means somebody saved since. */
export const estimateInput = v.strictObject({
  version,
  name: filled(),
  overhead: markup,
  profit: markup,
  rounding: cents,
  typeMarkups: list(v.strictObject({ costType, rate: markup }), COST_TYPES.length, 'cost types'),
  sectionMarkups: list(v.strictObject({ section: filled(80), rate: markup }), 500, 'sections'),
  lines: list(lineInput, 6000, 'lines'),
});
export type EstimateInput = v.InferOutput<typeof estimateInput>;

/** An estimate kept under a name: what it is made of, and the unit costs of its build-ups. */
export const estimatePattern = v.strictObject({
  overhead: markup,
  profit: markup,
  rounding: cents,
  typeMarkups: v.record(v.string(), markup),
  sectionMarkups: v.record(v.string(), markup),
  lines: list(lineInput, 6000, 'lines'),
  prices: v.array(
    v.tuple([
      v.string(),
      v.array(
        v.strictObject({
          costCode: filled(40),
          costType,
          markup: v.nullable(markup),
          cost: v.pipe(v.number(), v.safeInteger()),
          hours: v.pipe(v.number(), v.safeInteger()),
        }),
      ),
    ]),
  ),
});
export type EstimatePattern = v.InferOutput<typeof estimatePattern>;

const estimateNumber = v.pipe(
  v.number('expected the number of an estimate'),
  v.safeInteger('expected the number of an estimate'),
);
export const savePatternInput = v.strictObject({ name: filled(80), job: filled(40), estimate: estimateNumber });
export type SavePatternInput = v.InferOutput<typeof savePatternInput>;

export interface EstimatePatternRow {
  name: string;
  lines: number;
  savedAt: string;
}

/** A new estimate: empty, a copy of one of this or another job, or begun from a pattern; at the prices it has, or those of today. */
export const newEstimateInput = v.strictObject({
  name: filled(),
  copyOf: v.nullable(v.strictObject({ job: filled(40), estimate: estimateNumber })),
  pattern: v.optional(v.nullable(filled(80)), null),
  reprice: v.optional(v.boolean('expected yes or no'), false),
});
export type NewEstimateInput = v.InferOutput<typeof newEstimateInput>;

export const sentInput = v.strictObject({ on: plainDate, reference: text() });

/** The award: what was agreed, when, and how the estimate's lines become a schedule of values. */
export const awardInput = v.strictObject({
  acceptedOn: plainDate,
  acceptance: filled(),
  agreed: cents,
  groups: v.pipe(
    list(
      v.strictObject({
        line: filled(40),
        section: text(80),
        description: filled(400),
        members: list(filled(40), 6000, 'lines'),
        weight: v.nullable(
          v.pipe(
            v.number('expected a weight'),
            v.safeInteger('expected a whole weight'),
            v.minValue(0, 'expected a weight of 0 or more'),
            v.maxValue(1_000_000_000, 'expected a weight of at most 1,000,000,000'),
          ),
        ),
      }),
      5000,
      'lines',
    ),
    v.minLength(1, 'expected at least one SOV line'),
  ),
});
export type AwardInput = v.InferOutput<typeof awardInput>;

export interface EstimateListRow {
  number: number;
  name: string;
  status: string;
  /** Why each move of its life cannot be made; null where it can. */
  refused: Reasons<EstimateMove>;
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
  /** Why each move of its life cannot be made; null where it can. */
  refused: Reasons<EstimateMove>;
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

/** What pricing a draft again with the price list of today would change. */
/** Pricing again as it was previewed. */
export const repriceInput = v.strictObject({ seen });

export interface Repricing {
  seen: string;
  lines: { line: string; description: string; before: number; after: number; because: string[] }[];
  before: number;
  after: number;
}

const estimate = '/jobs/:job/estimates/:estimate';

export const estimateCalls = {
  estimateList: query<EstimateListRow[]>('read-tenders')('/jobs/:job/estimates'),
  estimate: query<EstimateView>('read-tenders')(estimate),
  startEstimate: command<{ number: number }>('estimate')('/jobs/:job/estimates', { input: newEstimateInput }),
  estimatePatterns: query<EstimatePatternRow[]>('read-tenders')('/estimate-patterns'),
  saveEstimatePattern: command('estimate')('/estimate-patterns', { method: 'PUT', input: savePatternInput }),
  removeEstimatePattern: command('estimate')('/estimate-patterns/:name', { method: 'DELETE' }),
  saveEstimate: command<{ version: number }>('estimate')(estimate, { method: 'PUT', input: estimateInput, quiet: true }),
  deleteEstimate: command('estimate')(estimate, { method: 'DELETE' }),
  chooseEstimate: command('estimate')(`${estimate}/choose`),
  sendEstimate: command('estimate')(`${estimate}/sent`, { input: sentInput }),
  repricing: query<Repricing>('read-tenders')(`${estimate}/reprice`),
  repriceEstimate: command<{ version: number }>('estimate')(`${estimate}/reprice`, { input: repriceInput }),
  awardJob: command('manage-jobs')(`${estimate}/award`, { input: awardInput }),
};
