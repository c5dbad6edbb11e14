/**
 * A number with a unit the compiler can tell apart: cents do not pass for hours.
 * Plain numbers may still enter, so that sums stay readable; the doors (parse, wire) do the checking.
 */
export type Flavour<T, Unit extends string> = T & { readonly __unit?: Unit };
