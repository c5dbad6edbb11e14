import type { Cents } from '../money/cents';

/**
 * Why something may not be done, as a value: which rule, where (the field of the input, by its name in core), and the facts the
 * message is made of. Whoever asks only places it: a form at its field, the book at file, row and column.
 */
export type Refusal = { [Rule in RefusalRule]: { rule: Rule; at: string; facts: RefusalFacts[Rule] } }[RefusalRule];

/** The facts of each rule. */
export interface RefusalFacts {
  'step-half': Record<never, never>;
  'no-retention-with-rate': Record<never, never>;
  'finish-before-start': { start: string; finish: string };
  'defects-before-finish': { end: string; after: string };
  'labour-uninstalled': Record<never, never>;
  'entry-empty': Record<never, never>;
  'entry-reversed': { entry: string; document: number };
  'entry-reverses': { entry: string; document: number };
  'entry-unmoved': { entry: string };
  'reversed-before-posted': { on: string; posted: string };
  'install-not-uninstalled': { entry: string };
  'install-nothing': Record<never, never>;
  'install-beyond': { amount: Cents; left: Cents };
  'install-beyond-quantity': { quantity: string; left: string };
  'install-no-quantity': { entry: string };
  'install-before-delivery': { on: string; delivered: string };
  'posted-before-dated': { postedOn: string; dated: string };
  'receipt-nothing': Record<never, never>;
  'receipt-too-early': { on: string; since: string };
  'receipt-beyond': { amount: Cents; outstanding: Cents; on: string };
  'receipt-below-zero': { amount: Cents; received: Cents; on: string };
  'release-nothing': Record<never, never>;
  'release-beyond-held': { amount: Cents; held: Cents; on: string };
  'release-named-as-number': { reference: string };
  'certified-below-released': { retention: Cents; released: Cents };
  'change-issued-early': { on: string; raised: string };
  'change-undecided': { status: string; on: string };
  'change-decided-early': { on: string; what: string; after: string };
  'change-agreed-beyond': { asked: Cents; agreed: Cents };
  'certification-stays': { number: number; because: string };
  'job-takes-none': { job: string; why: string };
  'application-without-schedule': { job: string };
  'application-after-open': { number: number; status: string };
  'application-before-award': { dated: string; awardedOn: string };
  'application-out-of-order': { dated: string; number: number; previous: string };
  'certified-on-uncertified': { status: string; on: string };
  'certified-before-dated': { on: string; dated: string };
  'certified-before-previous': { number: number; status: string };
  'certified-out-of-order': { on: string; number: number; previous: string };
  'own-time': { line: string };
  'last-owner': { name: string };
  'day-closed': { on: string; closedTo: string; open: string };
  'closed-already': { to: string | null };
  'closed-ahead': { to: string; today: string };
  'opened-without-reason': Record<never, never>;
  'far-ahead': { on: string; newest: string };
  'job-locked': { job: string };
  'entry-of-time': { entry: string };
  'setup-frozen': { job: string; because: string };
  'not-in-this-state': { what: string; state: string; only: string };
}
export type RefusalRule = keyof RefusalFacts;

/** Makes a refusal; its facts are checked against its rule. */
export function refuse<Rule extends RefusalRule>(rule: Rule, at: string, facts: RefusalFacts[Rule]): Refusal {
  return { rule, at, facts } as Refusal;
}
