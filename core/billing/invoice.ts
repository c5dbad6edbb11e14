import { addDays, type PlainDate } from '../calendar/plainDate';
import type { Cents } from '../money/cents';

/** Days after which an invoice is due where neither job nor client says. docs/rules.md §6. */
export const USUAL_TERMS_DAYS = 30;

/**
 * What asks a client for money: a certified application under its number, a release of retention or a daywork invoice under its
 * reference.
 */
export type InvoiceKind = 'application' | 'release' | 'daywork';

/** An invoice as it is posted; what it asks for and when never changes. */
export interface Invoice {
  kind: InvoiceKind;
  /** Unique in the job, over all kinds. */
  reference: string;
  /** The document's own date. */
  dated: PlainDate;
  /** From this day on it asks for money. */
  postedOn: PlainDate;
  dueOn: PlainDate;
  /** With tax. */
  payable: Cents;
}

/** The day an invoice falls due: `termsDays` after it is posted, or the usual days where that is null. */
export function dueDay(postedOn: PlainDate, termsDays: number | null): PlainDate {
  return addDays(postedOn, termsDays ?? USUAL_TERMS_DAYS);
}
