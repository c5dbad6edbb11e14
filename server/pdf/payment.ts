import type { Content } from 'pdfmake';
import { displayDate } from '../../core/calendar/displayDate';
import type { PlainDate } from '../../core/calendar/plainDate';
import { displayExact } from '../../core/money/display';
import type { Company } from '../company/company';

/** How an invoice is paid: how much, by when, quoting what, and where to. */
export function payment(company: Company, payable: number, { number, dueOn }: { number: number; dueOn: PlainDate }): Content {
  const amount = `${displayExact(payable, company.digits)} ${company.currency}`;
  return {
    stack: [
      { text: `Please pay ${amount} by ${displayDate(dueOn)}, quoting invoice ${number}.`, bold: true },
      ...(company.bankDetails ? [{ text: company.bankDetails, margin: [0, 3, 0, 0] as [number, number, number, number] }] : []),
    ],
    margin: [0, 14, 0, 0],
  };
}
