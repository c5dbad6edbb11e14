import type { Content, TableCell } from 'pdfmake';
import { displayDate } from '../../core/calendar/displayDate';
import { LAST_DAY } from '../../core/calendar/plainDate';
import { creditedOn } from '../../core/charging/credit';
import { displayExact } from '../../core/money/display';
import { formatPercentShortest } from '../../core/money/rate';
import { LedrinError } from '../../core/errors/ledrinError';
import type { DayworkView } from '../../wire/charging';
import { PARTIES } from '../billing/queries';
import { type Company, companyLogo, loadCompany } from '../company/company';
import type { RowOf } from '../db/fields';
import type { Reader } from '../db/sql';
import { companyLetterhead, labelled } from '../pdf/letterhead';
import { payment } from '../pdf/payment';
import { ledgerLayout, makePdf } from '../pdf/pdf';
import { dayworkView } from './dayworkView';
import { jobToInvoice } from './planRun';

/** All that the document of a daywork invoice is made from. */
export interface DayworkDocument {
  company: Company;
  logo: string;
  parties: RowOf<typeof PARTIES>;
  taxRate: number;
  invoice: DayworkView;
}

/** Reads what the document of a daywork invoice is made from. Throws not-found. */
export async function dayworkDocument(sql: Reader, number: string, reference: string): Promise<DayworkDocument> {
  const job = await jobToInvoice(sql, number);
  const [parties] = await sql.all(PARTIES, [job.id]);
  if (!parties) throw new LedrinError('not-found', `Job ${number} has no client`);
  return {
    company: await loadCompany(sql),
    logo: await companyLogo(sql),
    parties,
    taxRate: job.taxRate,
    invoice: await dayworkView(sql, number, reference, LAST_DAY),
  };
}

/** A daywork invoice as the client reads it: what was done, and what it comes to; what it cost is nowhere on it. */
export function dayworkInvoicePdf({ company, logo, parties, taxRate, invoice }: DayworkDocument): Promise<Buffer> {
  const title = invoice.status === 'draft' ? `Draft of invoice ${invoice.reference}` : `Invoice ${invoice.reference}`;
  const { number, dueOn } = invoice;
  return makePdf({
    title: `${title}, job ${invoice.job}`,
    landscape: false,
    foot: `${company.name} · Job ${invoice.job} · ${title}`,
    content: [
      companyLetterhead(company, logo),
      { text: title, font: 'Serif', fontSize: 22 },
      { text: `Work charged to ${displayDate(invoice.cutOff)}.`, margin: [0, 2, 0, 16] },
      {
        columns: [
          labelled('To', parties.client_name, parties.client_address),
          labelled('For', `Job ${invoice.job} ${invoice.jobName}`, parties.site),
          labelled('Dated', displayDate(invoice.dated), parties.contract_reference),
          ...(number !== null && dueOn !== null ? [labelled('Number', String(number), `Due ${displayDate(dueOn)}`)] : []),
        ],
        columnGap: 18,
        margin: [0, 0, 0, 22],
      },
      ...(invoice.wording !== '' && invoice.shown !== 'one-line'
        ? [{ text: invoice.wording, margin: [0, 0, 0, 10] as [number, number, number, number] }]
        : []),
      lines(invoice, company, taxRate),
      ...(number !== null && dueOn !== null && creditedOn(invoice.credits) === null
        ? [payment(company, invoice.open, { number, dueOn })]
        : []),
    ],
  });
}

function lines(invoice: DayworkView, company: Company, taxRate: number): Content {
  const money = (value: number, bold = false): TableCell => ({
    text: displayExact(value, company.digits),
    alignment: 'right',
    noWrap: true,
    bold,
  });
  const total = (text: string, value: number, bold = true): TableCell[] => ['', { text, bold }, money(value, bold)];
  const credits = invoice.credits.map((it) =>
    total(`Less credit note ${it.creditNote} of ${displayDate(it.dated)}`, -it.amount - it.tax, false),
  );
  const received = invoice.receipts.reduce((sum, it) => sum + it.amount, 0);
  return {
    table: {
      headerRows: 1,
      widths: ['auto', '*', 'auto'],
      body: [
        [
          { text: 'Date', bold: true },
          { text: 'Description', bold: true },
          { text: company.currency, bold: true, alignment: 'right' },
        ],
        ...invoice.lines.map((it): TableCell[] => [it.dated === null ? '' : displayDate(it.dated), it.words, money(it.charge)]),
        total('Total', invoice.amount),
        total(`${company.taxName || 'Tax'} at ${formatPercentShortest(taxRate)} %`, invoice.tax, false),
        total('Payable', invoice.payable),
        ...credits,
        ...(received === 0 ? [] : [total('Less received', -received, false)]),
        ...(credits.length > 0 || received !== 0 ? [total('Still payable', invoice.open)] : []),
      ],
    },
    layout: ledgerLayout(1),
  };
}
