import type { PlainDate } from '../calendar/plainDate';

/**
 * Facts of a job that are only kept, shown and handed on: nothing is worked from them. One line here is a fact in the call
 * that saves it, in the job file and on its form; its column stands in the model of the job and in the file of the book.
 */
export const TEXT_FACTS = {
  contractReference: { column: 'contract_reference', title: 'Contract reference', longest: 200 },
  site: { column: 'site', title: 'Site', longest: 400 },
  manager: { column: 'manager', title: 'Manager', longest: 200 },
  estimator: { column: 'estimator', title: 'Estimator', longest: 200 },
} as const;

/** The same, of days; empty where none is agreed. */
export const DAY_FACTS = {
  startsOn: { column: 'starts_on', title: 'Start' },
  finishesOn: { column: 'finishes_on', title: 'Planned finish' },
  defectsEnd: { column: 'defects_end', title: 'Defects liability ends' },
} as const;

export type TextFact = keyof typeof TEXT_FACTS;
export type DayFact = keyof typeof DAY_FACTS;
export type PlainFacts = Record<TextFact, string> & Record<DayFact, PlainDate | null>;
export type FactColumns = Record<(typeof TEXT_FACTS)[TextFact]['column'], string> &
  Record<(typeof DAY_FACTS)[DayFact]['column'], PlainDate | null>;

const FACTS = Object.entries({ ...TEXT_FACTS, ...DAY_FACTS }) as [keyof PlainFacts, { column: keyof FactColumns }][];

/** The facts as the columns of the job hold them. */
export function factColumns(facts: PlainFacts): FactColumns {
  return Object.fromEntries(FACTS.map(([name, { column }]) => [column, facts[name]])) as FactColumns;
}

/** The facts from the columns of the job. */
export function plainFacts(row: FactColumns): PlainFacts {
  return Object.fromEntries(FACTS.map(([name, { column }]) => [name, row[column]])) as PlainFacts;
}
