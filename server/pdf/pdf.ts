import pdfmake, { type Content, type CustomTableLayout } from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { breakable } from './breakable';
import { FACES, HAIR, INK, SANS_FOLDER, SERIF_FOLDER } from './typefaces';

pdfmake.setFonts({
  Sans: { normal: FACES.sans, bold: FACES.sansBold, italics: FACES.sansItalic, bolditalics: FACES.sansBold },
  Serif: { normal: FACES.serif, bold: FACES.serifBold, italics: FACES.serif, bolditalics: FACES.serifBold },
});
// Documents are made of our own words and fonts alone.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => path.startsWith(SANS_FOLDER) || path.startsWith(SERIF_FOLDER));

/** Hairlines between rows, a rule under the head and over the total. */
export function ledgerLayout(totalRows: number, headRows: 0 | 1 = 1): CustomTableLayout {
  return {
    hLineWidth: (i, node) =>
      (headRows === 1 && i === 1) || (totalRows > 0 && i === node.table.body.length - totalRows)
        ? 0.8
        : i === 0 || i === node.table.body.length
          ? 0
          : 0.25,
    vLineWidth: () => 0,
    hLineColor: (i) => (headRows === 1 && i === 1 ? INK : HAIR),
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
    content: content.map((it) => breakable(it)),
  };
  return pdfmake.createPdf(definition).getBuffer();
}
