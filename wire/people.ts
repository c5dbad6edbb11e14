import * as v from 'valibot';
import { command, download } from './call';

/** How many years, by the law of the company's country, records stand with the name of whoever made them. */
export const anonymousInput = v.strictObject({
  years: v.pipe(
    v.number('expected a number of years'),
    v.integer('expected a whole number of years'),
    v.minValue(0, 'expected 0 or more'),
    v.maxValue(50, 'expected at most 50'),
  ),
});
export type AnonymousInput = v.InferOutput<typeof anonymousInput>;

export const peopleCalls = {
  /** All that is saved of a person, as JSON. */
  personalData: download('manage-users')('/people/:name/data.json'),
  /** Puts a name of nobody's in the place of a former employee's, everywhere; it cannot be taken back. */
  makeAnonymous: command<{ name: string }>('manage-users')('/people/:name/anonymous', { input: anonymousInput }),
};
