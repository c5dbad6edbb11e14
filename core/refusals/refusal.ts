import type { RefusalFacts } from './messages';

/**
 * Why something may not be done, as a value: which rule, where (the field of the input, by its name in core), and the facts the
 * message is made of. Whoever asks only places it: a form at its field, the book at file, row and column.
 */
export type Refusal = { [Rule in RefusalRule]: { rule: Rule; at: string; facts: RefusalFacts[Rule] } }[RefusalRule];

export type RefusalRule = keyof RefusalFacts;

/** Makes a refusal; its facts are checked against its rule. */
export function refuse<Rule extends RefusalRule>(rule: Rule, at: string, facts: RefusalFacts[Rule]): Refusal {
  return { rule, at, facts } as Refusal;
}
