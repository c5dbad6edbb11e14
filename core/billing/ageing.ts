import { daysBetween, type PlainDate } from '../calendar/plainDate';
import { comparePlain } from '../costs/costType';
import type { Cents } from '../money/cents';
import type { Invoice } from './invoice';

/** The age bands, in days late. */
export const AGE_BANDS = ['notDue', 'days1To30', 'days31To60', 'days61To90', 'daysOver90'] as const;
export type AgeBand = (typeof AGE_BANDS)[number];

/** An invoice with what was received on it. Amounts include tax. */
export interface OpenInvoice extends Pick<Invoice, 'kind' | 'dated' | 'dueOn' | 'payable'> {
  client: string;
  job: string;
  /** Its reference. */
  invoice: string;
  received: Cents;
  /** Retention held on the job where this is its last certified application, else 0. */
  retentionHeld: Cents;
}

export type AgedInvoice = OpenInvoice & { open: Cents; total: Cents } & Record<AgeBand, Cents>;

/** Invoices with something open or held, aged as of `asOf` from the day after they fall due; retention is never aged. */
export function ageInvoices(invoices: readonly OpenInvoice[], asOf: PlainDate): AgedInvoice[] {
  return invoices
    .map((invoice) => ageInvoice(invoice, asOf))
    .filter((it) => it.open !== 0 || it.retentionHeld !== 0)
    .sort(compareInvoices);
}

function ageInvoice(invoice: OpenInvoice, asOf: PlainDate): AgedInvoice {
  const open = invoice.payable - invoice.received;
  const aged = {
    ...invoice,
    open,
    total: open + invoice.retentionHeld,
    notDue: 0,
    days1To30: 0,
    days31To60: 0,
    days61To90: 0,
    daysOver90: 0,
  };
  aged[bandOf(daysBetween(invoice.dueOn, asOf))] = open;
  return aged;
}

/** The due day itself is not late. */
function bandOf(daysLate: number): AgeBand {
  if (daysLate <= 0) return 'notDue';
  if (daysLate <= 30) return 'days1To30';
  if (daysLate <= 60) return 'days31To60';
  return daysLate <= 90 ? 'days61To90' : 'daysOver90';
}

/** By client, job, date; on one day applications first, by number, then the others by reference. */
function compareInvoices(a: OpenInvoice, b: OpenInvoice): number {
  return (
    comparePlain(a.client, b.client) ||
    comparePlain(a.job, b.job) ||
    comparePlain(a.dated, b.dated) ||
    Number(b.kind === 'application') - Number(a.kind === 'application') ||
    (a.kind === 'application' ? Number(a.invoice) - Number(b.invoice) : comparePlain(a.invoice, b.invoice))
  );
}
