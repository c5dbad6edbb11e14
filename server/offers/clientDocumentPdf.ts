import type { Content, TableCell } from 'pdfmake';
import { displayDate } from '../../core/calendar/displayDate';
import { displayExact } from '../../core/money/display';
import { DOCUMENT_PARTS, extensionText, paymentName, type ClientDocument } from '../../core/offers/clientDocument';
import { labelled, letterhead } from '../pdf/letterhead';
import { ledgerLayout, makePdf } from '../pdf/pdf';
import { clientTable } from './clientTable';

/** A quotation or a change order on document, from what the client may see and nothing else. */
export function clientDocumentPdf(it: ClientDocument): Promise<Buffer> {
  return makePdf({
    title: `${it.title}, ${it.job.name}`,
    landscape: false,
    foot: `${it.company.name} · ${it.title} · Job ${it.job.number}`,
    content: clientDocumentContent(it),
  });
}

/** The same as pdfmake takes it: apart, so that a test can read every word of it. */
export function clientDocumentContent(it: ClientDocument): Content[] {
  const amount = (value: number) => displayExact(value, it.digits);
  return [
    ...headOf(it),
    ...(it.introduction ? [{ text: it.introduction, margin: [0, 0, 0, 14] } as Content] : []),
    lineTable(it),
    ...(it.days
      ? [
          {
            text: extensionText(it.days),
            margin: [0, 0, 0, 10],
          } as Content,
        ]
      : []),
    ...part(
      DOCUMENT_PARTS.alternates,
      it.alternates.map((one) => [one.name, amount(one.amount)]),
    ),
    ...part(
      DOCUMENT_PARTS.payments,
      it.payments.map((one) => [paymentName(one), amount(one.amount)]),
    ),
    ...(it.exclusions.length > 0
      ? ([
          { text: DOCUMENT_PARTS.exclusions, style: 'part', font: 'Serif', fontSize: 12, margin: [0, 8, 0, 3] },
          { ul: it.exclusions, margin: [0, 0, 0, 8] },
        ] as Content[])
      : []),
    ...(it.terms
      ? ([
          { text: DOCUMENT_PARTS.terms, font: 'Serif', fontSize: 12, margin: [0, 8, 0, 3] },
          { text: it.terms, fontSize: 8 },
        ] as Content[])
      : []),
  ];
}

function headOf(it: ClientDocument): Content[] {
  const until = it.validUntil ? `Valid until ${displayDate(it.validUntil)}.` : '';
  return [
    letterhead(it.company),
    { text: it.title, font: 'Serif', fontSize: 22 },
    { text: [it.reference, displayDate(it.dated), until].filter(Boolean).join('. ').replace('..', '.'), margin: [0, 2, 0, 16] },
    {
      columns: [
        labelled('To', it.client.name, it.client.contact),
        labelled('For', `${it.job.name}`, it.job.site),
        labelled('Our job', it.job.number),
      ],
      columnGap: 18,
      margin: [0, 0, 0, 18],
    },
  ];
}

function lineTable(it: ClientDocument): Content {
  const { head, rows, total } = clientTable(it);
  const cells = (row: readonly string[], bold: boolean) =>
    row.map((text, i): TableCell => (i < 2 ? { text, bold } : { text, alignment: 'right', noWrap: true, bold }));
  const totalCells: TableCell[] = [
    { text: total.label, bold: true, colSpan: Math.max(1, head.length - 1) },
    ...Array<TableCell>(Math.max(0, head.length - 2)).fill(''),
    { text: total.amount, alignment: 'right', noWrap: true, bold: true },
  ];
  return {
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths: head.map((_, i) => (i === 1 ? '*' : 'auto')),
      body: [cells(head, true), ...rows.map((row) => cells(row, false)), totalCells],
    },
    layout: ledgerLayout(1),
    margin: [0, 0, 0, 14],
  };
}

function part(title: string, rows: readonly (readonly [string, string])[]): Content[] {
  if (rows.length === 0) return [];
  return [
    { text: title, font: 'Serif', fontSize: 12, margin: [0, 8, 0, 3] },
    {
      table: {
        widths: ['*', 'auto'],
        body: rows.map(([name, value]): TableCell[] => [name, { text: value, alignment: 'right' }]),
      },
      layout: ledgerLayout(0, 0),
      margin: [0, 0, 0, 8],
    },
  ];
}
