import * as v from 'valibot';
import { asOf } from './fields';
import type { FigureRef } from '../core/workings/workings';

export type { FigureRef, FigureUnit, Operand, Workings } from '../core/workings/workings';

const wholeNumber = v.pipe(v.string(), v.regex(/^\d{1,15}$/, 'expected a whole number'), v.transform(Number));

/** A figure to be explained, as it stands in an address. */
export const figureQuery = v.strictObject({
  asOf,
  figure: v.string('expected the name of a figure'),
  job: v.optional(v.string()),
  line: v.optional(wholeNumber),
  application: v.optional(wholeNumber),
  sovLine: v.optional(v.string()),
  release: v.optional(v.string()),
  on: v.optional(asOf),
});

/** A figure's reference as query parameters. */
export function figureParams({ figure, ...of }: FigureRef): { figure: string } & Partial<Record<keyof FigureRef, string>> {
  const named = Object.entries(of).filter(([, value]) => value !== undefined);
  return { figure, ...Object.fromEntries(named.map(([key, value]) => [key, String(value)])) };
}
