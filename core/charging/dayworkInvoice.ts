import type { PlainDate } from '../calendar/plainDate';
import { COST_TYPES, type CostType } from '../costs/costType';
import { journal, type Journal } from '../ledger/journal';
import { sum, type Cents } from '../money/cents';
import { isNumber } from '../money/decimal';
import { rateOf, type Rate } from '../money/rate';
import { refuse, type Refusal } from '../refusals/refusal';
import type { ChargeMark } from './chargeMark';

/** How the lines of a daywork invoice are shown: one an entry, one a cost type, or one alone. The total is the same. */
export const SHOWN_AS = ['entries', 'cost-types', 'one-line'] as const;
export type ShownAs = (typeof SHOWN_AS)[number];

export interface DayworkFigures {
  /** Before tax. */
  amount: Cents;
  tax: Cents;
  payable: Cents;
}

/** What an invoice asks for: the charges of its entries, and tax at the job's rate on their sum. */
export function dayworkFigures(charges: readonly Cents[], taxRate: Rate): DayworkFigures {
  const amount = sum(charges);
  const tax = rateOf(taxRate, amount);
  return { amount, tax, payable: amount + tax };
}

/** The client owes it, and it is billed beside the contract. docs/rules.md §9. */
export function dayworkJournal(on: PlainDate, { amount, tax }: Pick<DayworkFigures, 'amount' | 'tax'>): Journal {
  return journal(on, [
    ['receivable', amount + tax],
    ['dayworkBillings', -amount],
    ['taxPayable', -tax],
  ]);
}

/** An entry as an invoice shows it. */
export interface EntryShown {
  dated: PlainDate;
  costType: CostType;
  words: string;
  charge: Cents;
}

/** One line of the invoice; its date where it is of one entry. */
export interface InvoiceLine {
  dated: PlainDate | null;
  words: string;
  charge: Cents;
}

const TYPE_WORDS: Readonly<Record<CostType, string>> = {
  labour: 'Labour',
  material: 'Material',
  subcontract: 'Subcontract work',
  equipment: 'Equipment',
  other: 'Other cost',
};

/** The lines as the client reads them; they add up to the charges. Entries of no charge, such as burden in a rate, are left out. */
export function invoiceLines(entries: readonly EntryShown[], shown: ShownAs, wording: string): InvoiceLine[] {
  if (shown === 'one-line') return [{ dated: null, words: wording || 'Daywork', charge: sum(entries.map((it) => it.charge)) }];
  if (shown === 'entries')
    return entries.filter((it) => it.charge !== 0).map(({ dated, words, charge }) => ({ dated, words, charge }));
  return COST_TYPES.flatMap((type) => {
    const own = entries.filter((it) => it.costType === type && it.charge !== 0);
    return own.length === 0 ? [] : [{ dated: null, words: TYPE_WORDS[type], charge: sum(own.map((it) => it.charge)) }];
  });
}

/** An invoice as far as it may be issued. */
export interface InvoiceToIssue {
  job: { number: string; awardedOn: PlainDate | null };
  reference: string;
  dated: PlainDate;
  cutOff: PlainDate;
}

/** Why an invoice cannot be of these days and this reference. */
export function dayworkRefusals({ job, reference, dated, cutOff }: InvoiceToIssue): Refusal[] {
  const refusals: Refusal[] = [];
  if (isNumber(reference)) refusals.push(refuse('invoice-named-as-number', 'reference', { reference }));
  if (job.awardedOn !== null && dated < job.awardedOn)
    refusals.push(refuse('application-before-award', 'dated', { dated, awardedOn: job.awardedOn }));
  if (cutOff > dated) refusals.push(refuse('cut-off-after-date', 'cutOff', { cutOff, dated }));
  return refusals;
}

/** An entry that an invoice would take. `takenBy`: another invoice that is not credited, or null. */
export interface EntryToTake {
  name: string;
  dated: PlainDate;
  countsFrom: PlainDate;
  mark: ChargeMark;
  takenBy: string | null;
}

/** Why an invoice cannot take an entry; null where it can. It is dated, posted and marked by the cut-off, and in no other. */
export function takeRefusal(entry: EntryToTake, cutOff: PlainDate): Refusal | null {
  const { name, mark, takenBy } = entry;
  if (mark !== 'yes') return refuse('entry-not-charged', 'entries', { entry: name, mark });
  if (takenBy !== null) return refuse('entry-taken', 'entries', { entry: name, invoice: takenBy });
  const from = entry.dated > entry.countsFrom ? entry.dated : entry.countsFrom;
  return from > cutOff ? refuse('entry-after-cut-off', 'entries', { entry: name, from, cutOff }) : null;
}
