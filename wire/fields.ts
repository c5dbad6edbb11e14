import * as v from 'valibot';
import { isEnteredDate, isPeriod, isPlainDate, lastDay } from '../core/calendar/plainDate';
import { COST_TYPES } from '../core/costs/costType';
import { LARGEST_AMOUNT } from '../core/money/cents';
import { LARGEST_MARKUP, LARGEST_NEEDED, LARGEST_QUANTITY, WHOLE } from '../core/money/rate';
import { LARGEST_UNIT_COST } from '../core/prices/unitCost';

/** Characters no text of ours has: control characters but tab and line breaks, halves of a pair, and what is no character at all. */
const UNREADABLE = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\ufffe\uffff]|\p{Surrogate}/u;

/** A line of text, trimmed, of at most `longest` characters. */
export const text = (longest = 200) =>
  v.pipe(
    v.string('expected text'),
    v.trim(),
    v.maxLength(longest, `expected at most ${longest} characters`),
    v.check((it) => !UNREADABLE.test(it), 'has a character that cannot be read; type it again'),
  );
/** A list of at most `most` items; how many there are is looked at before the items are. */
export const list = <Item extends v.GenericSchema>(item: Item, most: number, what: string) =>
  v.pipe(
    v.array(v.unknown(), 'expected a list'),
    v.maxLength(most, `expected at most ${most.toLocaleString('en')} ${what}`),
    v.array(item),
  ) as unknown as v.GenericSchema<v.InferInput<Item>[], v.InferOutput<Item>[]>;
/** Text that must be there. */
export const filled = (longest = 200) => v.pipe(text(longest), v.nonEmpty('expected something here; it is empty'));
export const plainDate = v.pipe(
  v.string('expected a date such as 2031-04-30'),
  v.check(isEnteredDate, ({ input }) =>
    isPlainDate(input) ? 'expected a day of the years 1900 to 2199' : 'expected a date such as 2031-04-30',
  ),
);
/** The date of a view: a month means its last day. */
export const asOf = v.pipe(
  v.string('expected a month such as 2031-04, or a date'),
  v.transform((it) => (isPeriod(it) ? lastDay(it) : it)),
  v.check(isEnteredDate, 'expected a month or a date of the years 1900 to 2199'),
);
/** The version of a document that was opened; 0 for a new one. */
export const version = v.pipe(
  v.number('expected the version that was opened'),
  v.safeInteger('expected the version that was opened'),
);
/** A number in an address. */
export const wholeText = (largest: number) =>
  v.pipe(
    v.string('expected a whole number'),
    v.regex(/^\d{1,15}$/, 'expected a whole number'),
    v.transform(Number),
    v.maxValue(largest, `expected at most ${largest}`),
  );
export const period = v.pipe(v.string('expected a month such as 2031-04'), v.check(isPeriod, 'expected a month such as 2031-04'));
/** Money in minor units, any sign. */
export const cents = v.pipe(
  v.number('expected an amount in whole minor units'),
  v.safeInteger('expected an amount in whole minor units'),
  v.minValue(-LARGEST_AMOUNT, 'the amount is too large'),
  v.maxValue(LARGEST_AMOUNT, 'the amount is too large'),
);
/** A proportion in millionths, 0 to 100 %. */
export const rate = v.pipe(
  v.number('expected a percentage'),
  v.safeInteger('expected a percentage with at most 4 decimals'),
  v.minValue(0, 'expected 0 to 100 %'),
  v.maxValue(WHOLE, 'expected 0 to 100 %'),
);
/** Quantity or hours in ten-thousandths. */
export const quantity = v.pipe(
  v.number('expected a number'),
  v.safeInteger('expected at most 4 decimals'),
  v.minValue(-LARGEST_QUANTITY, 'the number is too large'),
  v.maxValue(LARGEST_QUANTITY, 'the number is too large'),
);
/** What one unit costs, in ten-thousandths of the currency's main unit. Not below zero. */
export const unitCost = v.pipe(
  v.number('expected a unit cost'),
  v.safeInteger('expected a unit cost with at most 4 decimals'),
  v.minValue(0, 'expected a unit cost of 0 or more'),
  v.maxValue(LARGEST_UNIT_COST, 'the unit cost is too large'),
);
/** A markup in millionths of what it is put on: −100 % to 1,000 %. */
export const markup = v.pipe(
  v.number('expected a percentage'),
  v.safeInteger('expected a percentage with at most 4 decimals'),
  v.minValue(-WHOLE, 'expected −100 to 1,000 %'),
  v.maxValue(LARGEST_MARKUP, 'expected −100 to 1,000 %'),
);
/** A quantity of something needed: not below zero, and small enough that its cost stays exact. */
export const needed = v.pipe(
  v.number('expected a quantity'),
  v.safeInteger('expected at most 4 decimals'),
  v.minValue(0, 'expected a quantity of 0 or more'),
  v.maxValue(LARGEST_NEEDED, 'the quantity is too large; expected at most 9,999,999.9999'),
);
export const days = v.pipe(
  v.number('expected a number of days'),
  v.integer('expected whole days'),
  v.minValue(0, 'expected 0 days or more'),
  v.maxValue(3650, 'expected at most 3650 days'),
);
export const costType = v.picklist(COST_TYPES, `expected one of ${COST_TYPES.join(', ')}`);
/** The digest of what a page was shown, as the server gave it. */
export const seen = filled(64);
export const optionalDate = v.nullable(plainDate);

/** What is retained of a job's applications: rates in parts per million, the cap of the contract sum. */
export const retentionTerms = v.strictObject({
  rate,
  materialsRate: v.nullable(rate),
  stepAt: v.nullable(rate),
  stepTo: v.nullable(rate),
  stepApplies: v.picklist(['all', 'further'], 'expected all or further'),
  cap: v.nullable(rate),
});
