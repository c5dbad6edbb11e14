import * as v from 'valibot';
import { isEnteredDate, isPeriod, isPlainDate } from '../core/calendar/plainDate';
import { COST_TYPES } from '../core/costs/costType';
import { LARGEST_AMOUNT } from '../core/money/cents';
import { LARGEST_MARKUP, LARGEST_NEEDED, WHOLE } from '../core/money/rate';
import { LARGEST_UNIT_COST } from '../core/prices/unitCost';

/** A line of text, trimmed, of at most `longest` characters. */
export const text = (longest = 200) =>
  v.pipe(v.string('expected text'), v.trim(), v.maxLength(longest, `expected at most ${longest} characters`));
/** Text that must be there. */
export const filled = (longest = 200) => v.pipe(text(longest), v.nonEmpty('expected something here; it is empty'));
export const plainDate = v.pipe(
  v.string('expected a date such as 2031-04-30'),
  v.check(isEnteredDate, ({ input }) =>
    isPlainDate(input) ? 'expected a day of the years 1900 to 2199' : 'expected a date such as 2031-04-30',
  ),
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
  v.number('expected a per cent'),
  v.safeInteger('expected a per cent with at most 4 decimals'),
  v.minValue(0, 'expected 0 to 100 per cent'),
  v.maxValue(WHOLE, 'expected 0 to 100 per cent'),
);
/** Quantity or hours in ten-thousandths. */
export const quantity = v.pipe(
  v.number('expected a number'),
  v.safeInteger('expected at most 4 decimals'),
  v.minValue(-99_999_999_999_999, 'the number is too large'),
  v.maxValue(99_999_999_999_999, 'the number is too large'),
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
  v.number('expected a per cent'),
  v.safeInteger('expected a per cent with at most 4 decimals'),
  v.minValue(-WHOLE, 'expected −100 to 1,000 per cent'),
  v.maxValue(LARGEST_MARKUP, 'expected −100 to 1,000 per cent'),
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
