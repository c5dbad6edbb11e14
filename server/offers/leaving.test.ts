import { query } from '../db/query';
import { AT, input, message } from '../quotations/quotationFixture';
import { shape, t } from '../db/fields';
import { act, reading } from '../test/act';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import { priceEstimate } from '../../core/estimates/estimate';
import { displayExact } from '../../core/money/display';
import { PRESENTATIONS } from '../../core/offers/clientDocument';
import { formatUnitCost } from '../../core/prices/unitCost';
import type { QuotationInput } from '../../wire/quotations';
import type { Database } from '../db/database';
import { clientTable } from './clientTable';
import { clientDocumentDocx } from './clientDocumentDocx';
import { clientDocumentContent, clientDocumentPdf } from './clientDocumentPdf';
import { changeDocument } from './clientDocuments';
import { loadEstimate } from '../estimates/estimateViews';
import { answerView, messages, offersOf } from './offerViews';
import { jobView } from '../screens/jobView';
import { quotationView } from '../quotations/quotationView';
import { Outbox } from '../stand-ins/outbox';
import { cleanUp, faultsOf, temporaryDatabase, temporaryFolder, TENDER_BOOK, TESTER } from '../test/books';
import { unzipped } from '../test/unzipped';
import { saveChange } from '../changes/changes';
import { issueChange } from '../changes/decideChange';
import { acceptOffer, sendChange } from './offers';
import type { Sending } from './sending';
import { saveQuotation, sendQuotation } from '../quotations/quotations';

afterAll(cleanUp);

let database: Database;
let sending: Sending;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, TENDER_BOOK)).toEqual([]);
  sending = {
    outbox: new Outbox(temporaryFolder()),
    files: temporaryFolder(),
    address: 'http://ledrin.test',
    pdfOf: clientDocumentPdf,
  };
});

const send = async (more: Partial<QuotationInput> = {}) => {
  await act(database, TESTER, saveQuotation, 'J2', null, input(more));
  await act(database, TESTER, sendQuotation, sending, 'J2', 1, message);
  return (await offersOf(reading(database), 'J2', 'quotation', '1', '2031-05-02'))[0]!;
};

/** Every figure and word that must stay in the house: cost, hours, markup, overhead and profit of the tender, whole and in part. */
async function innerFigures(): Promise<string[]> {
  const estimate = await loadEstimate(reading(database), 'J2', 1);
  const { lines, totals } = priceEstimate(estimate, 2);
  const money = [
    ...lines.flatMap((it) => [it.cost, it.markup, it.net, ...it.costs.map((one) => one.cost)]),
    ...[
      totals.cost,
      totals.markup,
      totals.net,
      totals.overhead,
      totals.profit,
      totals.profitAmount,
      ...Object.values(totals.byType),
    ],
  ].filter((it) => it !== 0);
  const unitCosts = [...estimate.prices.values()].flat().map((it) => it.cost);
  return [
    ...money.flatMap((it) => [displayExact(it, 2), String(it), (it / 100).toFixed(2)]),
    ...unitCosts.flatMap((it) => [formatUnitCost(it, 2), String(it)]),
    ...[
      'cost',
      'markup',
      'overhead',
      'profit',
      'margin',
      'hours',
      'Cost',
      'Markup',
      'Overhead',
      'Profit',
      'Margin',
      'ROOF',
      'CREW',
      'build-up',
      'labour',
      'subcontract',
    ],
  ];
}

describe('what leaves the house', () => {
  test.each(
    PRESENTATIONS.flatMap((presentation) =>
      [true, false].flatMap((quantities) => [true, false].map((unitPrices) => [presentation, quantities, unitPrices] as const)),
    ),
  )(
    'by %s, quantities %s, unit prices %s: no cost and no markup, in screen, PDF, DOCX, message or answer page',
    async (presentation, quantities, unitPrices) => {
      const offer = await send({ presentation, quantities, unitPrices });
      const { document } = await quotationView(reading(database), 'J2', 1, '2031-05-02');
      const docx = unzipped(await clientDocumentDocx(document))['word/document.xml']!;
      const [sent] = await messages(reading(database));
      const answer = JSON.stringify(await answerView(reading(database), offer.token, '2031-05-03'));
      const pdf = JSON.stringify(clientDocumentContent(document));
      const inner = await innerFigures();
      expect(inner.length).toBeGreaterThan(40);
      for (const [what, text] of Object.entries({ json: JSON.stringify(document), pdf, docx, body: sent!.body, answer })) {
        const words = text.replace(/"(color|margin|style|font|fontSize|hash|seal)":/g, '').replace(/<[^>]*>/g, ' ');
        const told = inner.filter((it) => new RegExp(`(?<![\\d.,\\w])${it.replace(/[.]/g, '\\.')}(?![\\d\\w])`).test(words));
        expect([what, told]).toEqual([what, []]);
      }
      // The word processor's document has every cell of the PDF's table, a head on each page, and our type in it.
      for (const cell of clientTable(document).rows.flat()) expect(docx.includes(cell) && pdf.includes(cell)).toBe(true);
      expect(docx).toMatch(/<w:tblHeader\/>/);
      expect(docx).not.toContain('w:fill=');
      // And it does say what it must.
      for (const text of [pdf, docx])
        for (const word of ['6,177.00', 'Roof', 'Asbestos', 'Green roof', '1,853.10', 'Thirty days.'])
          expect(text).toContain(word);
      expect(pdf.includes('137.5')).toBe(quantities && presentation !== 'section');
      expect((await clientDocumentPdf(document)).subarray(0, 5).toString()).toBe('%PDF-');
    },
  );

  test('the message is an RFC 5322 file with the document attached and the link in it', async () => {
    const offer = await send();
    const [row] = await messages(reading(database));
    const file = (await reading(database).get(query(shape({ file: t.text }), 'SELECT file FROM message')))!.file;
    const eml = sending.outbox.read(file)!.toString('utf8');
    const [head = '', ...rest] = eml.split('\r\n\r\n');
    expect(head).toMatch(/^From: .*<accounts@localhost>/m);
    expect(head).toMatch(/^To: hale@northbeck\.example/m);
    expect(head).toMatch(/^Date: Fri, 02 May 2031 09:00:00 \+0000/m);
    expect(head).toMatch(/^Message-ID: </m);
    expect(head).toMatch(/^Subject: =\?UTF-8\?/m);
    expect(rest.join('\r\n\r\n')).toContain('Content-Type: application/pdf; name="Quotation 1 J2.pdf"');
    expect(eml.split('\r\n').every((line) => line.length <= 998 && !line.includes('\n'))).toBe(true);
    expect(offer.token).toMatch(/^[\w-]{32}$/);
    expect(row).toMatchObject({ recipient: 'hale@northbeck.example', attachments: ['Quotation 1 J2.pdf'] });
    expect(row!.body).toContain(`http://ledrin.test/answer/${offer.token}`);
    expect(await loadEstimate(reading(database), 'J2', 1)).toMatchObject({
      row: { status: 'sent', sentOn: '2031-05-02', reference: 'Quotation 1' },
    });
  });

  test('a change order tells what it asks for, not what it costs', async () => {
    await act(
      database,
      TESTER,
      saveChange,
      'J1',
      {
        version: 0,
        number: 'C3',
        title: 'Canopy',
        raisedOn: '2031-03-20',
        reference: '',
        reason: 'Asked on site',
        askedBy: '',
        daysAsked: 14,
        price: [{ line: '4', section: '', description: 'Canopy', quantity: null, unit: '', amount: 150_000 }],
        cost: [
          {
            section: 'A',
            costCode: '100',
            costType: 'labour',
            sovLine: '4',
            description: 'Secret',
            quantity: null,
            unit: '',
            hours: 70_000,
            amount: 98_765,
          },
        ],
      },
      null,
    );
    await expect(act(database, TESTER, sendChange, sending, 'J1', 'C3', message)).rejects.toThrow(
      /only an issued change order can be sent/,
    );
    await act(database, TESTER, issueChange, 'J1', 'C3', '2031-03-22');
    await act(database, TESTER, sendChange, sending, 'J1', 'C3', message);
    const document = await changeDocument(reading(database), 'J1', 'C3');
    const docx = unzipped(await clientDocumentDocx(document))['word/document.xml']!;
    for (const text of [JSON.stringify(document), JSON.stringify(clientDocumentContent(document)), docx]) {
      expect(text).not.toMatch(/987\.65|98765|Secret|labour/);
      expect(text).toMatch(/1,500\.00|150000/);
    }
    // Sent twice, it is answered once: the other document then takes no answer, and says why.
    await act(database, TESTER, sendChange, sending, 'J1', 'C3', { ...message, to: 'site@northbeck.example' });
    const [second, first] = await offersOf(reading(database), 'J1', 'change', 'C3', '2031-05-02');
    await act(database, { name: '', at: AT }, acceptOffer, second!.token, {
      name: 'Mr Hale',
      signature: 'M1 1L2 2',
      options: [],
    });
    expect((await jobView(reading(database), 'J1', '2031-05-31')).nextSteps[0]!.text).toBe(
      'Mr Hale accepted C3: note the decision',
    );
    await expect(
      act(database, { name: '', at: AT }, acceptOffer, first!.token, { name: 'Mr Hale', signature: 'M1 1', options: [] }),
    ).rejects.toThrow(/accepted by Mr Hale on 10 May 2031, on another document of it/);
    expect((await answerView(reading(database), first!.token, '2031-05-11')).closed).toMatch(/on another document of it/);
    expect((await offersOf(reading(database), 'J1', 'change', 'C3', '2031-05-02'))[0]).toMatchObject({
      status: 'accepted',
      answeredBy: 'Mr Hale',
      intact: true,
    });
  });
});
