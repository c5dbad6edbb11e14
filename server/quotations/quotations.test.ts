import { AT, input, message, payment } from './quotationFixture';
import { act, reading } from '../test/act';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import { groupsBy } from '../../core/estimates/award';
import { byPayments } from '../../core/instalments/proposedInstalments';
import { valueInstalments } from '../../core/instalments/valueInstalments';
import { billingScheduleView } from '../instalments/billingScheduleView';
import { loadInstalments } from '../billing/billedBySchedule';
import { saveInstalmentsAsSeen } from '../test/asSeen';
import { awardJob } from '../estimates/award';
import type { QuotationInput } from '../../wire/quotations';
import type { Database } from '../db/database';
import { clientDocumentPdf } from '../offers/clientDocumentPdf';
import { loadEstimate } from '../estimates/estimateViews';
import { answerView, offersOf } from '../offers/offerViews';
import { quotationList } from '../offers/quotationList';
import { Outbox } from '../stand-ins/outbox';
import { cleanUp, everything, faultsOf, temporaryDatabase, temporaryFolder, TENDER_BOOK, TESTER } from '../test/books';
import { saveChange } from '../changes/changes';
import { decideChange, issueChange } from '../changes/decideChange';
import { chooseEstimate, deleteEstimate } from '../estimates/estimates';
import { moveJob } from '../jobs/jobLife';
import { acceptOffer, askAboutOffer, declineOffer, replyToQuestion, sendChange } from '../offers/offers';
import type { Sending } from '../offers/sending';
import { deleteQuotation, saveQuotation, sendQuotation } from './quotations';

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

/** A change of J1 that asks for 100.00 on SOV line 1, issued on 2 May. */
async function issueC9(): Promise<void> {
  const price = [{ line: '1', section: '', description: '', quantity: null, unit: '', amount: 10_000 }];
  await act(
    database,
    TESTER,
    saveChange,
    'J1',
    {
      version: 0,
      number: 'C9',
      title: 'Gutter',
      raisedOn: '2031-05-01',
      reference: '',
      reason: 'Asked on site',
      askedBy: '',
      daysAsked: null,
      price,
      cost: [],
    },
    null,
  );
  await act(database, TESTER, issueChange, 'J1', 'C9', '2031-05-02');
}

describe('a quotation', () => {
  test('goes out only where its payment schedule comes to the price, while it is valid; all of it or nothing', async () => {
    await act(
      database,
      TESTER,
      saveQuotation,
      'J2',
      null,
      input({ payments: [payment('Start', 300_000, null), payment('Finish', null, 400_000)] }),
    );
    const before = await everything(database);
    // 30 % of 6,177.00 is 1,853.10; with 4,000.00 it leaves 323.90.
    await expect(act(database, TESTER, sendQuotation, sending, 'J2', 1, message)).rejects.toThrow(
      /leaves 323\.90 of the price; change it until it comes to 6,177\.00/,
    );
    expect(await everything(database)).toBe(before);
    await expect(
      act(database, TESTER, saveQuotation, 'J2', 1, input({ version: 1, payments: [payment('x', 1, 1)] })),
    ).rejects.toMatchObject({
      faults: [{ field: 'payments.0.rate' }],
    });
    await expect(act(database, TESTER, saveQuotation, 'J2', 1, input())).rejects.toThrow(/^tester saved this quotation/);
    await act(database, TESTER, saveQuotation, 'J2', 1, input({ version: 1 }));
    await expect(act(database, TESTER, sendQuotation, sending, 'J2', 1, { ...message, on: '2031-07-01' })).rejects.toMatchObject({
      faults: [{ field: 'on' }],
    });
    await expect(act(database, TESTER, deleteEstimate, 'J2', 1)).rejects.toThrow(/Quotation 1 is made from estimate 1/);
    await expect(act(database, TESTER, saveQuotation, 'J1', null, input())).rejects.toThrow(/goes out as a change order/);
    await act(database, TESTER, deleteQuotation, 'J2', 1);
    expect(await quotationList(reading(database), 'J2')).toEqual([]);
  });

  test('is asked about, answered, accepted with a signature and sealed; a later change shows', async () => {
    const { token } = await send();
    await act(database, { name: '', at: AT }, askAboutOffer, token, 'Mr Hale', 'When could you start?');
    const [asked] = (await offersOf(reading(database), 'J2', 'quotation', '1', '2031-05-02'))[0]!.questions;
    await act(database, TESTER, replyToQuestion, asked!.id, 'In June.');
    expect((await answerView(reading(database), token, '2031-05-11')).questions).toEqual([
      { askedAt: AT, askedBy: 'Mr Hale', question: 'When could you start?', answer: 'In June.', answeredBy: 'tester' },
    ]);
    await expect(act(database, TESTER, replyToQuestion, asked!.id, 'In July.')).rejects.toThrow(
      /tester answered this already: “In June\.”/,
    );
    await act(database, { name: '', at: AT }, acceptOffer, token, { name: 'J. Hale', signature: 'typed: J. Hale', options: [1] });
    expect(await quotationList(reading(database), 'J2')).toMatchObject([
      { status: 'accepted', answeredOn: '2031-05-10', answeredBy: 'J. Hale', total: 617_700 },
    ]);
    const sealed = (await offersOf(reading(database), 'J2', 'quotation', '1', '2031-05-02'))[0]!;
    expect([sealed.status, sealed.intact, sealed.seal.length]).toEqual(['accepted', true, 64]);
    // 6,177.00 as quoted and 1,437.77 for the green roof.
    expect(sealed.accepted).toEqual({ options: ['Green roof'], total: 761_477 });
    await expect(
      act(database, { name: '', at: AT }, acceptOffer, token, { name: 'J', signature: 'M1 1', options: [2] }),
    ).rejects.toThrow(/it stays so/);
    await expect(act(database, { name: '', at: AT }, declineOffer, token, 'J. Hale', 'no')).rejects.toThrow(
      /accepted by J\. Hale on 10 May 2031; it stays so/,
    );
    await expect(database.write((sql) => sql.run(`UPDATE offer SET document = '{}'`))).rejects.toThrow();
    // Somebody goes behind the product's back: what was agreed no longer is what the books say, and that shows.
    await database.write((sql) => sql.run('UPDATE quotation_alternate SET amount = amount + 1'));
    expect((await offersOf(reading(database), 'J2', 'quotation', '1', '2031-05-02'))[0]!.intact).toBe(false);
  });

  test('accepted by an order, its payments are there to be billed by', async () => {
    // The price as quoted, 6,177.00: 30 % when section B is finished, 70 % on a day.
    const payments = [payment('Start', 300_000, null), { ...payment('Finish', 700_000, null), dueOn: '2031-09-30', stage: '' }];
    await send({ payments: [{ ...payments[0]!, stage: 'b' }, payments[1]!] });
    const { lines } = await loadEstimate(reading(database), 'J2', 1);
    await act(database, TESTER, awardJob, 'J2', 1, {
      acceptedOn: '2031-05-12',
      acceptance: 'Order 7',
      agreed: 617_700,
      groups: groupsBy('section', lines).map((it) => ({ ...it, members: [...it.members] })),
    });
    const [offer] = await offersOf(reading(database), 'J2', 'quotation', '1', '2031-05-20');
    expect(offer!.closed).toBe('This work was awarded on 12 May 2031; there is nothing left to answer');
    const view = await billingScheduleView(reading(database), 'J2', '2031-05-31');
    const laid = byPayments(
      view.payments,
      view.stages.map((it) => it.name),
    );
    await saveInstalmentsAsSeen(
      database,
      'J2',
      laid.map((it) => ({ ...it, stages: [...it.stages] })),
    );
    const { instalments } = valueInstalments(await loadInstalments(reading(database), 2), view.lines, [
      { reached: null },
      { reached: null },
    ]);
    // 30 % = 1,853.10, 70 % = 4,323.90.
    expect(instalments.map((it) => it.amount)).toEqual([185_310, 432_390]);
    expect(
      (await billingScheduleView(reading(database), 'J2', '2031-05-31')).instalments.map((it) => [it.due, it.stages]),
    ).toEqual([
      ['finish', ['B']],
      ['day', []],
    ]);
  });

  test('is declined with a reason; past its day it takes no answer; a wrong link leads nowhere', async () => {
    const { token } = await send();
    await expect(
      act(database, { name: '', at: '2031-07-01T08:00:00.000Z' }, acceptOffer, token, {
        name: 'J',
        signature: 'M1 1',
        options: [],
      }),
    ).rejects.toThrow(/valid until 30 Jun 2031/);
    await expect(answerView(reading(database), `${token}x`, '2031-05-11')).rejects.toThrow(/no document behind this link/);
    expect((await answerView(reading(database), token, '2031-06-30')).closed).toBeNull();
    expect((await answerView(reading(database), token, '2031-07-01')).closed).toMatch(/valid until 30 Jun 2031/);
    await act(database, { name: '', at: AT }, declineOffer, token, 'J. Hale', 'Too dear');
    expect(await quotationList(reading(database), 'J2')).toMatchObject([{ status: 'declined' }]);
    expect((await offersOf(reading(database), 'J2', 'quotation', '1', '2031-05-02'))[0]).toMatchObject({
      reason: 'Too dear',
      seal: '',
    });
  });

  test('once the work is awarded, none is sent and none answered; what a client noted down earlier stays', async () => {
    const { token } = await send();
    await act(database, TESTER, saveQuotation, 'J2', null, input());
    await act(database, { name: '', at: AT }, askAboutOffer, token, 'Mr Hale', 'And in copper?');
    await act(database, TESTER, moveJob, 'J2', { status: 'awarded', on: '2031-05-12', reason: '' });
    const before = await everything(database);
    await expect(act(database, TESTER, sendQuotation, sending, 'J2', 2, { ...message, on: '2031-05-13' })).rejects.toThrow(
      /Job J2 is awarded; what it asks for now goes out as a change order/,
    );
    for (const answer of [
      act(database, { name: '', at: AT }, acceptOffer, token, { name: 'Mr Hale', signature: 'M1 1', options: [] }),
      act(database, { name: '', at: AT }, declineOffer, token, 'Mr Hale', 'Too dear'),
      act(database, { name: '', at: AT }, askAboutOffer, token, 'Mr Hale', 'Still?'),
    ])
      await expect(answer).rejects.toThrow(/This work was awarded on 12 May 2031/);
    await expect(act(database, TESTER, chooseEstimate, 'J2', 1)).rejects.toThrow(/Job J2 is awarded; its contract/);
    expect(await everything(database)).toBe(before);
    expect((await answerView(reading(database), token, '2031-05-13')).questions).toHaveLength(1);
  });
});

test.each([
  ['withdrawn', /C9 was withdrawn on 4 May 2031/],
  ['rejected', /C9 was rejected on 4 May 2031/],
  ['approved', /C9 was approved on 4 May 2031/],
] as const)('a change that is %s takes no answer from the client any more', async (status, told) => {
  await issueC9();
  await act(database, TESTER, sendChange, sending, 'J1', 'C9', message);
  const [{ token } = { token: '' }] = await offersOf(reading(database), 'J1', 'change', 'C9', '2031-05-02');
  expect((await answerView(reading(database), token, '2031-05-03')).closed).toBeNull();
  await act(database, TESTER, decideChange, 'J1', 'C9', {
    status,
    on: '2031-05-04',
    by: 'Mr Hale',
    note: 'By telephone',
    agreed: null,
    daysGranted: null,
  });
  const before = await everything(database);
  await expect(
    act(database, { name: '', at: AT }, acceptOffer, token, { name: 'Mr Hale', signature: 'M1 1', options: [] }),
  ).rejects.toThrow(told);
  expect((await answerView(reading(database), token, '2031-05-11')).closed).toMatch(told);
  expect(await everything(database)).toBe(before);
});
