import type { Content, TableCell } from 'pdfmake';
import { displayDate } from '../../core/calendar/displayDate';
import { chargedEntries, type DaySheet, type DaySignature } from '../../core/daySheets/daySheet';
import { PART_TITLES } from '../../core/daySheets/dayWords';
import { displayQuantity } from '../../core/money/display';
import type { DaySheetView } from '../../wire/daySheets';
import { companyLetterhead, labelled } from '../pdf/letterhead';
import { ledgerLayout, makePdf } from '../pdf/pdf';
import { QUIET } from '../pdf/typefaces';
import type { DayDocument } from './dayDocument';

const right = (text: string, bold = false): TableCell => ({ text, alignment: 'right', noWrap: true, bold });
const head = (text: string): TableCell => ({ text, bold: true });
const h = (hours: number) => displayQuantity(hours);

/** Day sheets of a day or a week as one document, a sheet a page. No money. */
export function dayPdf(document: DayDocument): Promise<Buffer> {
  const { company, logo, job, from, to, sheets } = document;
  const days = from === to ? displayDate(from) : `${displayDate(from)} to ${displayDate(to)}`;
  const title = from === to ? `Day sheet, ${days}` : `Day sheets, ${days}`;
  return makePdf({
    title: `${title}, job ${job.number}`,
    landscape: false,
    foot: `${company.name} · Job ${job.number} · ${title}`,
    content: [
      companyLetterhead(company, logo),
      { text: title, font: 'Serif', fontSize: 16 },
      { text: `Job ${job.number} ${job.name}, for ${job.client}. ${job.site}`, margin: [0, 2, 0, 6] },
      ...sheets.flatMap((sheet, i) => oneSheet(document, sheet, i > 0)),
    ],
  });
}

function oneSheet(document: DayDocument, sheet: DaySheetView, breaks: boolean): Content[] {
  const { dated, crew, day, writtenBy, leftOut } = sheet;
  return [
    {
      text: `${displayDate(dated)}, crew of ${crew}`,
      font: 'Serif',
      fontSize: 13,
      margin: [0, 8, 0, 2] as [number, number, number, number],
      ...(breaks ? { pageBreak: 'before' as const } : {}),
    },
    { text: [`Written by ${writtenBy}`, day.weather && `Weather: ${day.weather}`].filter(Boolean).join('. '), color: QUIET },
    ...hoursTable(document, day.hours),
    ...quantitiesTable(document, day.quantities),
    ...listOf(
      'equipment',
      day.equipment.map((it) => [it.name, it.hours ? `${h(it.hours)} h` : '', it.description, it.charged ? 'to be charged' : '']),
    ),
    ...listOf(
      'subcontractors',
      day.subcontractors.map((it) => [it.name, `${it.headcount} people`, it.description]),
    ),
    ...listOf(
      'deliveries',
      day.deliveries.map((it) => [
        it.name,
        it.reference && `note ${it.reference}`,
        it.description,
        it.charged ? 'to be charged' : '',
      ]),
    ),
    ...(['visitors', 'incidents', 'instructions'] as const).flatMap((part) =>
      listOf(
        part,
        day[part].map((it) => [it.name, it.description]),
      ),
    ),
    ...(day.notes === '' ? [] : [titled(PART_TITLES.notes), { text: day.notes }]),
    ...(leftOut === '' ? [] : [titled('Left out when two versions met'), { text: leftOut, color: QUIET }]),
    ...photosOf(document, sheet),
    ...day.signatures.flatMap((it) => [titled(`Signature ${it.number}, for what is to be charged`), signatureOf(it)]),
  ];
}

const titled = (text: string): Content => ({ text, bold: true, margin: [0, 10, 0, 3] });

/** Rows of a part in words, one a line. */
function listOf(part: keyof typeof PART_TITLES, rows: readonly (readonly string[])[]): Content[] {
  if (rows.length === 0) return [];
  return [titled(PART_TITLES[part]), { ul: rows.map((row) => row.filter(Boolean).join(', ')) }];
}

/** `marked`: says which hours are to be charged. */
function hoursTable(document: DayDocument, hours: DaySheet['hours'], marked = true): Content[] {
  if (hours.length === 0) return [];
  return [
    titled(PART_TITLES.hours),
    {
      fontSize: 8.5,
      table: {
        headerRows: 1,
        dontBreakRows: true,
        widths: ['*', '*', 'auto', 'auto', '*'],
        body: [
          [head('Person'), head('Task'), head('Pay class'), right('Hours', true), head('Remark')],
          ...hours.map((it): TableCell[] => [
            ...[
              document.employees[it.employee] ?? it.employee,
              taskOf(document, it),
              { text: it.pay ?? 'by the rule', noWrap: true },
              right(h(it.hours)),
            ],
            [it.description, marked && it.charged ? 'to be charged' : ''].filter(Boolean).join(', '),
          ]),
          [head('Total'), '', '', right(h(hours.reduce((sum, it) => sum + it.hours, 0)), true), ''],
        ],
      },
      layout: ledgerLayout(1),
    },
  ];
}

function taskOf({ costCodes }: DayDocument, { section, costCode }: { section: string; costCode: string }): string {
  return [section, `${costCode} ${costCodes[costCode] ?? ''}`.trim()].filter(Boolean).join(' · ');
}

function quantitiesTable(document: DayDocument, quantities: DaySheet['quantities']): Content[] {
  if (quantities.length === 0) return [];
  return [
    titled(PART_TITLES.quantities),
    {
      fontSize: 8.5,
      table: {
        headerRows: 1,
        dontBreakRows: true,
        widths: ['*', 'auto', 'auto', '*'],
        body: [
          [head('Task'), right('Quantity', true), head('Unit'), head('Remark')],
          ...quantities.map((it): TableCell[] => [taskOf(document, it), right(h(it.quantity)), it.unit, it.description]),
        ],
      },
      layout: ledgerLayout(0),
    },
  ];
}

/** Two pictures a row. */
function photosOf({ pictures }: DayDocument, { day, arrived }: DaySheetView): Content[] {
  const all = [
    ...day.photos,
    ...day.deliveries.flatMap(({ photo, name, reference }) =>
      photo ? [{ photo, description: `${name} ${reference}`.trim() }] : [],
    ),
  ];
  if (all.length === 0) return [];
  const cells = all.map(({ photo, description }): Content => {
    const image = pictures[photo];
    const said: Content = { text: description, fontSize: 8, margin: [0, 2, 0, 8] };
    return {
      stack: [
        image
          ? { image, fit: [245, 190] }
          : {
              text: arrived.includes(photo)
                ? 'This photo cannot be printed; open it on its page'
                : 'This photo has not arrived yet',
              color: QUIET,
            },
        said,
      ],
    };
  });
  const rows: Content[] = [];
  for (let i = 0; i < cells.length; i += 2) {
    const row = { columns: [cells[i] as Content, cells[i + 1] ?? ''], columnGap: 12 };
    // The title stays with the first row.
    rows.push({ stack: [...(i === 0 ? [titled(PART_TITLES.photos)] : []), row], unbreakable: true });
  }
  return rows;
}

/** Width of a printed signature, of a field of 1000 × 400. */
const SIGNATURE_SCALE = 0.18;

function signatureOf({ name, office, signedOn, strokes }: DaySignature): Content {
  const canvas = strokes.split(';').map((stroke) => ({
    type: 'polyline' as const,
    lineWidth: 1,
    points: stroke.split(' ').map((point) => {
      const [x = 0, y = 0] = point.split(',').map(Number);
      return { x: x * SIGNATURE_SCALE, y: y * SIGNATURE_SCALE };
    }),
  }));
  return {
    unbreakable: true,
    stack: [{ canvas }, { text: `${[name, office].filter(Boolean).join(', ')}, ${displayDate(signedOn)}`, margin: [0, 4, 0, 0] }],
  };
}

/** What is to be charged of a day, for the client to sign or as signed. No money. */
export function dayworkPdf(document: DayDocument, signature: number): Promise<Buffer> {
  const { company, logo, job, from, sheets } = document;
  const [sheet] = sheets as [DaySheetView];
  const { hours, equipment, deliveries } = chargedEntries(sheet.day, signature);
  const signed = sheet.day.signatures.find((it) => it.number === signature);
  const title = `Daywork sheet, ${displayDate(from)}`;
  return makePdf({
    title: `${title}, job ${job.number}`,
    landscape: false,
    foot: `${company.name} · Job ${job.number} · ${title}`,
    content: [
      companyLetterhead(company, logo),
      { text: `${title}${signed ? `, number ${signed.number}` : ''}`, font: 'Serif', fontSize: 16 },
      {
        margin: [0, 6, 0, 6],
        columnGap: 20,
        columns: [
          labelled('For', job.client),
          labelled('Job', `${job.number} ${job.name}`, job.site),
          labelled('Crew', sheet.crew),
        ],
      },
      {
        text: 'Work outside the schedule of values. The times and materials below are confirmed; prices follow with the invoice.',
      },
      ...hoursTable(document, hours, false),
      ...listOf(
        'equipment',
        equipment.map((it) => [it.name, it.hours ? `${h(it.hours)} h` : '', it.description]),
      ),
      ...listOf(
        'deliveries',
        deliveries.map((it) => [it.name, it.reference && `note ${it.reference}`, it.description]),
      ).map((it, i) => (i === 0 ? titled('Materials') : it)),
      { text: '', margin: [0, 12, 0, 0] },
      signed ? signatureOf(signed) : signatureLines(),
    ],
  });
}

function signatureLines(): Content {
  return {
    margin: [0, 30, 0, 0],
    columns: ['Day', 'Name and office', 'Signature of the client'].map((label) => ({
      stack: [
        { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 150, y2: 0, lineWidth: 0.5 }] },
        { text: label, fontSize: 8, color: QUIET },
      ],
    })),
  };
}
