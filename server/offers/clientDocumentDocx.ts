import { readFileSync } from 'node:fs';
import { Document, Packer, Paragraph, type Table } from 'docx';
import { displayDate } from '../../core/calendar/displayDate';
import { displayExact } from '../../core/money/display';
import { DOCUMENT_PARTS, extensionText, paymentName, type ClientDocument } from '../../core/offers/clientDocument';
import { FACES } from '../pdf/typefaces';
import { clientTable } from './clientTable';
import { footer, ledgerTable, letterhead, PAGE, point, SANS, SERIF, sideBySide, STYLES, words } from './wordLayout';

/** The document as the PDF has it, for last edits in a word processor. */
export function clientDocumentDocx(it: ClientDocument): Promise<Buffer> {
  const document = new Document({
    title: `${it.title}, ${it.job.name}`,
    creator: it.company.name,
    styles: STYLES,
    fonts: [
      { name: SANS, data: readFileSync(FACES.sans) },
      { name: SERIF, data: readFileSync(FACES.serif) },
    ],
    sections: [
      {
        properties: PAGE,
        footers: { default: footer(`${it.company.name} · ${it.title} · Job ${it.job.number}`) },
        children: [...headOf(it), ...bodyOf(it)],
      },
    ],
  });
  return Packer.toBuffer(document);
}

function headOf(it: ClientDocument): (Paragraph | Table)[] {
  const block = (label: string, ...lines: string[]) => [
    ...words(label, { quiet: true }),
    ...lines.filter(Boolean).flatMap((line) => words(line)),
  ];
  const until = it.validUntil ? `Valid until ${displayDate(it.validUntil)}.` : '';
  return [
    ...letterhead(it.company),
    new Paragraph({ text: it.title, heading: 'Heading1' }),
    ...words([it.reference, displayDate(it.dated), until].filter(Boolean).join('. ').replace('..', '.'), { after: 16 }),
    sideBySide([
      block('To', it.client.name, it.client.contact),
      block('For', it.job.name, it.job.site),
      block('Our job', it.job.number),
    ]),
    ...words('', { after: 8 }),
  ];
}

function bodyOf(it: ClientDocument): (Paragraph | Table)[] {
  const { head, rows, total } = clientTable(it);
  const amount = (value: number) => displayExact(value, it.digits);
  const heading = (text: string) => new Paragraph({ text, heading: 'Heading2' });
  const part = (title: string, lines: [string, string][]) =>
    lines.length > 0 ? [heading(title), ledgerTable({ rows: lines, wordsIn: 1 })] : [];
  return [
    ...(it.introduction ? words(it.introduction, { after: 14 }) : []),
    ledgerTable({ head, rows, total, wordsIn: 2 }),
    ...(it.days ? words(extensionText(it.days), { before: 10 }) : []),
    ...part(
      DOCUMENT_PARTS.alternates,
      it.alternates.map((one) => [one.name, amount(one.amount)]),
    ),
    ...part(
      DOCUMENT_PARTS.payments,
      it.payments.map((one) => [paymentName(one), amount(one.amount)]),
    ),
    ...(it.exclusions.length > 0 ? [heading(DOCUMENT_PARTS.exclusions), ...it.exclusions.map(point)] : []),
    ...(it.terms ? [heading(DOCUMENT_PARTS.terms), ...words(it.terms, { size: 8 })] : []),
  ];
}
