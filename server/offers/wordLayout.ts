import {
  AlignmentType,
  BorderStyle,
  Footer,
  ImageRun,
  PageNumber,
  Paragraph,
  TabStopType,
  Table,
  TableCell,
  TableLayoutType,
  TableRow,
  TextRun,
  WidthType,
  type IBorderOptions,
} from 'docx';
import { sizeOfPng } from '../company/png';
import { svgOf } from '../company/safeLogo';
import { HAIR, INK, QUIET } from '../pdf/typefaces';

// How a document looks in a word processor: the page, type and rules of our PDFs. Lengths are twips, twenty to a point.

export const SANS = 'Source Sans 3';
export const SERIF = 'Source Serif 4';
const POINT = 20;
const WIDTH = 11906 - 2 * 40 * POINT;
const plain = (colour: string) => colour.slice(1);

export const PAGE = {
  page: {
    size: { width: 11906, height: 16838 },
    margin: { left: 40 * POINT, right: 40 * POINT, top: 44 * POINT, bottom: 48 * POINT, footer: 24 * POINT },
  },
};

const serif = (points: number) => ({ font: SERIF, size: points * 2, color: plain(INK), bold: false });

export const STYLES = {
  default: {
    document: { run: { font: SANS, size: 18, color: plain(INK) } },
    heading1: { run: serif(22), paragraph: { spacing: { after: 2 * POINT } } },
    heading2: { run: serif(12), paragraph: { spacing: { before: 14 * POINT, after: 3 * POINT }, keepNext: true } },
  },
};

/** Paragraphs of a text, one a line; `before`, `after` and `size` in points. */
export function words(text: string, more: { quiet?: boolean; size?: number; before?: number; after?: number } = {}): Paragraph[] {
  const lines = text.split('\n');
  const { quiet = false, size = quiet ? 8 : 9, before = 0, after = 0 } = more;
  return lines.map(
    (line, i) =>
      new Paragraph({
        children: [new TextRun({ text: line, size: size * 2, color: plain(quiet ? QUIET : INK) })],
        spacing: { before: i === 0 ? before * POINT : 0, after: i === lines.length - 1 ? after * POINT : 0 },
      }),
  );
}

/** A point of a list. */
export function point(text: string): Paragraph {
  return new Paragraph({ text, bullet: { level: 0 }, indent: { left: 8 * POINT, hanging: 8 * POINT } });
}

/** The head of every document: the company at the left, its logo at the right. */
export function letterhead(company: {
  name: string;
  address: string;
  lines?: readonly string[] | undefined;
  logo?: string | undefined;
}): (Paragraph | Table)[] {
  const sender = [
    new Paragraph({ children: [new TextRun({ text: company.name, ...serif(11) })] }),
    ...words(company.address),
    ...(company.lines ?? []).flatMap((line) => words(line, { quiet: true })),
  ];
  const logo = company.logo ? [new Paragraph({ alignment: AlignmentType.RIGHT, children: [logoRun(company.logo)] })] : [];
  return [sideBySide(logo.length > 0 ? [sender, logo] : [sender], 0), ...words('', { after: 10 })];
}

/** A logo within 120 by 48 points, its shape kept. */
function logoRun(url: string): ImageRun {
  const svg = svgOf(url);
  const data = Buffer.from(url.slice(url.indexOf(',') + 1), 'base64');
  const { width, height } = (svg === null ? sizeOfPng(data) : sizeOfSvg(svg)) ?? { width: 120, height: 48 };
  // The package measures pictures in pixels, of which three are as long as four points.
  const scale = Math.min(160 / width, 64 / height);
  const transformation = { width: Math.round(width * scale), height: Math.round(height * scale) };
  return svg === null
    ? new ImageRun({ type: 'png', data, transformation })
    : new ImageRun({ type: 'svg', data, transformation, fallback: { type: 'png', data: EMPTY_PNG } });
}

function sizeOfSvg(svg: string): { width: number; height: number } | null {
  const box = /viewBox\s*=\s*["']\s*[\d.-]+[\s,]+[\d.-]+[\s,]+([\d.]+)[\s,]+([\d.]+)/.exec(svg);
  const side = (name: string) => new RegExp(`<svg[^>]*\\s${name}\\s*=\\s*["']([\\d.]+)`).exec(svg)?.[1];
  const [width, height] = [Number(box?.[1] ?? side('width')), Number(box?.[2] ?? side('height'))];
  return width > 0 && height > 0 ? { width, height } : null;
}

/** For programs that cannot draw an SVG: one clear pixel. */
const EMPTY_PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAAC0lEQVR4nGNgAAIAAAUAAXpeqz8AAAAASUVORK5CYII=',
  'base64',
);

export function footer(left: string): Footer {
  const page = ['\tPage ', PageNumber.CURRENT, ' of ', PageNumber.TOTAL_PAGES];
  return new Footer({
    children: [
      new Paragraph({
        tabStops: [{ type: TabStopType.RIGHT, position: WIDTH }],
        children: [new TextRun({ children: [left, ...page], size: 16 })],
      }),
    ],
  });
}

const NONE: IBorderOptions = { style: BorderStyle.NONE, size: 0, color: 'auto' };
const NO_RULES = { top: NONE, bottom: NONE, left: NONE, right: NONE, insideHorizontal: NONE, insideVertical: NONE };
/** Widths of rules are eighths of a point. */
const hairline: IBorderOptions = { style: BorderStyle.SINGLE, size: 2, color: plain(HAIR) };
const rule: IBorderOptions = { style: BorderStyle.SINGLE, size: 6, color: plain(INK) };

/** Blocks beside each other, of one width, `gap` apart. */
export function sideBySide(blocks: readonly Paragraph[][], gap = 9 * POINT): Table {
  const width = Math.floor(WIDTH / blocks.length);
  return new Table({
    columnWidths: blocks.map(() => width),
    width: { size: WIDTH, type: WidthType.DXA },
    layout: TableLayoutType.FIXED,
    borders: NO_RULES,
    margins: { left: 0, right: gap },
    rows: [
      new TableRow({
        children: blocks.map((children) => new TableCell({ children, width: { size: width, type: WidthType.DXA } })),
      }),
    ],
  });
}

/** Rows with hairlines between them, a rule under the head and over the total; from column `wordsIn` on, figures stand at the right. */
export function ledgerTable(table: {
  head?: string[];
  rows: readonly string[][];
  total?: { label: string; amount: string };
  wordsIn: number;
}): Table {
  const { head, rows, total, wordsIn } = table;
  const columns = rows[0]?.length ?? head?.length ?? 1;
  const narrow = (i: number) => (i >= wordsIn ? 85 : 40) * POINT;
  const wide = wordsIn - 1;
  const others = Array.from({ length: columns }, (_, i) => (i === wide ? 0 : narrow(i)));
  const widths = others.map((width, i) => (i === wide ? WIDTH - others.reduce((sum, it) => sum + it, 0) : width));
  const cell = (text: string, i: number, bold: boolean, borders = {}) =>
    new TableCell({
      borders,
      width: { size: widths[i] ?? 0, type: WidthType.DXA },
      children: [
        new Paragraph({
          alignment: i >= wordsIn ? AlignmentType.RIGHT : AlignmentType.LEFT,
          children: [new TextRun({ text, bold })],
        }),
      ],
    });
  const row = (cells: readonly string[]) =>
    new TableRow({ cantSplit: true, children: cells.map((text, i) => cell(text, i, false)) });
  return new Table({
    columnWidths: widths,
    width: { size: WIDTH, type: WidthType.DXA },
    layout: TableLayoutType.FIXED,
    margins: { top: 50, bottom: 50, left: 60, right: 60 },
    borders: { ...NO_RULES, insideHorizontal: hairline },
    rows: [
      ...(head
        ? [
            new TableRow({
              cantSplit: true,
              tableHeader: true,
              children: head.map((text, i) => cell(text, i, true, { bottom: rule })),
            }),
          ]
        : []),
      ...rows.map(row),
      ...(total ? [totalRow(total, columns)] : []),
    ],
  });
}

/** One cell over the whole width, its amount set to the right edge. */
function totalRow({ label, amount }: { label: string; amount: string }, columns: number): TableRow {
  const text = new Paragraph({
    tabStops: [{ type: TabStopType.RIGHT, position: WIDTH - 120 }],
    children: [new TextRun({ children: [label, '\t', amount], bold: true })],
  });
  return new TableRow({
    cantSplit: true,
    children: [new TableCell({ columnSpan: columns, borders: { top: rule }, children: [text] })],
  });
}
