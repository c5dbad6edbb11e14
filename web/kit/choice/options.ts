import type { AriaAttributes } from 'react';

/** A value, with a title of its own where it has one. */
export type Option<V extends string = string> = V | readonly [value: V, title: string];

export interface ChoiceProps<V extends string> extends AriaAttributes {
  value: V;
  options: readonly Option<V>[];
  onChange: (value: V) => void;
  id?: string;
  className?: string;
  disabled?: boolean;
}

/** The title of the option chosen; the value itself where the list does not have it. */
export function titled(options: readonly Option[], value: string): string {
  const option = options.find((it) => (typeof it === 'string' ? it : it[0]) === value);
  return typeof option === 'object' ? option[1] : value;
}
