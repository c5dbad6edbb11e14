import { AlignmentType, Document, HeadingLevel, Packer, Paragraph, Table, TableCell, TableRow, TextRun, WidthType } from 'docx';
import { displayDate } from '../../core/calendar/displayDate';
import { displayExact, displayQuantity } from '../../core/money/display';
import { DOCUMENT_PARTS, extensionText, paymentName, type ClientDocument } from '../../core/offers/clientDocument';
import { formatUnitCost } from '../../core/prices/unitCost';

/** The same document for last edits in a word processor. */
export function clientDocumentDocx(it: ClientDocument): Promise<Buffer> {
  const amount = (value: number) => displayExact(value, it.digits);
  const text = (line: string) => line.split('\n').map((one) => new Paragraph({ text: one }));
  const heading = (line: string) => new Paragraph({ text: line, heading: HeadingLevel.HEADING_2, spacing: { before: 240 } });
  const document = new Document({
    title: `${it.title}, ${it.job.name}`,
    creator: it.company.name,
    styles: { default: { document: { run: { font: 'Source Sans 3', size: 20 } } } },
    sections: [
      {
        children: [
          new Paragraph({ children: [new TextRun({ text: it.company.name, bold: true })] }),
          ...text(it.company.address),
          ...(it.company.lines ?? []).flatMap(text),
          new Paragraph({ text: it.title, heading: HeadingLevel.HEADING_1, spacing: { before: 400 } }),
          ...text(
            [it.reference, displayDate(it.dated), it.validUntil ? `Valid until ${displayDate(it.validUntil)}` : '']
              .filter(Boolean)
              .join(', '),
          ),
          ...text([`To: ${it.client.name}`, it.client.contact].filter(Boolean).join(', ')),
          ...text([`For: ${it.job.name}`, it.job.site, `our job ${it.job.number}`].filter(Boolean).join(', ')),
          ...(it.introduction ? text(it.introduction) : []),
          linesTable(it),
          ...(it.days ? text(extensionText(it.days)) : []),
          ...(it.alternates.length > 0
            ? [heading(DOCUMENT_PARTS.alternates), pairs(it.alternates.map((one) => [one.name, amount(one.amount)]))]
            : []),
          ...(it.payments.length > 0
            ? [heading(DOCUMENT_PARTS.payments), pairs(it.payments.map((one) => [paymentName(one), amount(one.amount)]))]
            : []),
          ...(it.exclusions.length > 0
            ? [
                heading(DOCUMENT_PARTS.exclusions),
                ...it.exclusions.map((line) => new Paragraph({ text: line, bullet: { level: 0 } })),
              ]
            : []),
          ...(it.terms ? [heading(DOCUMENT_PARTS.terms), ...text(it.terms)] : []),
        ],
      },
    ],
  });
  return Packer.toBuffer(document);
}

function row(cells: readonly string[], figuresFrom: number, bold = false): TableRow {
  return new TableRow({
    children: cells.map(
      (text, i) =>
        new TableCell({
          children: [
            new Paragraph({
              alignment: i >= figuresFrom ? AlignmentType.RIGHT : AlignmentType.LEFT,
              children: [new TextRun({ text, bold })],
            }),
          ],
        }),
    ),
  });
}

function linesTable(it: ClientDocument): Table {
  const [quantities, unitPrices, amounts] = [
    it.lines.some((line) => line.quantity !== null),
    it.lines.some((line) => line.unitPrice !== null),
    it.lines.some((line) => line.amount !== null),
  ];
  const pick = (...cells: readonly [boolean, string][]) => cells.filter(([shown]) => shown).map(([, text]) => text);
  const cellsOf = (line: ClientDocument['lines'][number]) => [
    line.line,
    line.section ? `${line.section}: ${line.description}` : line.description,
    ...pick(
      [quantities, line.quantity === null ? '' : `${displayQuantity(line.quantity)} ${line.unit}`],
      [unitPrices, line.unitPrice === null ? '' : formatUnitCost(line.unitPrice, it.digits)],
      [amounts, line.amount === null ? '' : displayExact(line.amount, it.digits)],
    ),
  ];
  const head = ['Line', 'Description', ...pick([quantities, 'Quantity'], [unitPrices, 'Unit price'], [amounts, it.currency])];
  const label = `${it.kind === 'change' ? 'Change to the contract sum' : 'Price'}, ${it.currency} before tax`;
  const total = ['', label, ...head.slice(2).map(() => '')];
  if (head.length > 2) total[total.length - 1] = displayExact(it.total, it.digits);
  else total[1] = `${label}: ${displayExact(it.total, it.digits)}`;
  return new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    rows: [row(head, 2, true), ...it.lines.map((line) => row(cellsOf(line), 2)), row(total, 2, true)],
  });
}

function pairs(rows: readonly (readonly [string, string])[]): Table {
  return new Table({ width: { size: 100, type: WidthType.PERCENTAGE }, rows: rows.map((cells) => row(cells, 1)) });
}
