import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake, { type Content, type CustomTableLayout } from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';

const require = createRequire(import.meta.url);
const sans = dirname(require.resolve('@expo-google-fonts/source-sans-3/package.json'));
const serif = dirname(require.resolve('@expo-google-fonts/source-serif-4/package.json'));
const face = (folder: string, weight: string, file: string) => join(folder, weight, `${file}.ttf`);

pdfmake.setFonts({
  Sans: {
    normal: face(sans, '400Regular', 'SourceSans3_400Regular'),
    bold: face(sans, '600SemiBold', 'SourceSans3_600SemiBold'),
    italics: face(sans, '400Regular_Italic', 'SourceSans3_400Regular_Italic'),
    bolditalics: face(sans, '600SemiBold', 'SourceSans3_600SemiBold'),
  },
  Serif: {
    normal: face(serif, '400Regular', 'SourceSerif4_400Regular'),
    bold: face(serif, '600SemiBold', 'SourceSerif4_600SemiBold'),
    italics: face(serif, '400Regular', 'SourceSerif4_400Regular'),
    bolditalics: face(serif, '600SemiBold', 'SourceSerif4_600SemiBold'),
  },
});
// Documents are made of our own words and fonts alone.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => path.startsWith(sans) || path.startsWith(serif));

const INK = '#26221c';
const HAIR = '#b9b0a0';

/** Hairlines between rows, a rule under the head and over the total. */
export function ledgerLayout(totalRows: number): CustomTableLayout {
  return {
    hLineWidth: (i, node) =>
      i === 1 || (totalRows > 0 && i === node.table.body.length - totalRows)
        ? 0.8
        : i === 0 || i === node.table.body.length
          ? 0
          : 0.25,
    vLineWidth: () => 0,
    hLineColor: (i) => (i === 1 ? INK : HAIR),
    paddingTop: () => 2.5,
    paddingBottom: () => 2.5,
    paddingLeft: () => 3,
    paddingRight: () => 3,
  };
}

export interface Document {
  title: string;
  landscape: boolean;
  /** Stands at the left foot of every page. */
  foot: string;
  content: Content[];
}

/** Makes a PDF with our type, and `page x of y` on every page. */
export async function makePdf({ title, landscape, foot, content }: Document): Promise<Buffer> {
  const definition: TDocumentDefinitions = {
    info: { title, producer: 'Ledrin', creator: 'Ledrin' },
    pageSize: 'A4',
    pageOrientation: landscape ? 'landscape' : 'portrait',
    pageMargins: [40, 44, 40, 48],
    defaultStyle: { font: 'Sans', fontSize: 9, color: INK },
    footer: (page, pages) => ({
      margin: [40, 14, 40, 0],
      fontSize: 8,
      columns: [{ text: foot }, { text: `Page ${page} of ${pages}`, alignment: 'right' }],
    }),
    content,
  };
  return pdfmake.createPdf(definition).getBuffer();
}
