import { afterAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addDays } from '../../core/calendar/plainDate';
import { LedrinError } from '../../core/errors/ledrinError';
import { present } from '../../core/errors/known';
import { PRESENTATIONS } from '../../core/offers/clientDocument';
import type { Database } from '../db/database';
import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { startEstimate } from '../estimates/estimates';
import { acceptOffer, askAboutOffer, declineOffer, replyToQuestion } from '../offers/offers';
import { deleteQuotation, saveQuotation, sendQuotation } from '../quotations/quotations';
import { Outbox } from '../stand-ins/outbox';
import { act as carryOut, reading } from './act';
import { besides, cleanUp, everything, faultsOf, temporaryDatabase, TENDER_BOOK, TESTER } from './books';
import { offersOfTender } from './offersOfTender';
import { runs } from './runs';
import { tryOffers } from './tryOffers';
import { exportedBook } from './wholeBook';

afterAll(cleanUp);

const START = '2031-04-20';
const pick = fc.nat(5);
const save = fc.record({
  kind: fc.constant('save' as const),
  pick: fc.option(pick, { freq: 1 }),
  estimate: fc.constantFrom(1, 1, 1, 2),
  presentation: fc.constantFrom(...PRESENTATIONS),
  flags: fc.tuple(fc.boolean(), fc.boolean()),
  alternates: fc.array(fc.integer({ min: -1_000_000, max: 1_000_000 }), { maxLength: 3 }),
  // Per cents that come to the whole, or do not.
  payments: fc.constantFrom([], [1_000_000], [400_000, 600_000], [333_333, 666_667], [500_000]),
  until: fc.option(fc.integer({ min: -5, max: 30 })),
  text: fc.string({ unit: 'grapheme', maxLength: 20 }),
});
const ACT = fc.oneof(
  { arbitrary: save, weight: 3 },
  { arbitrary: fc.record({ kind: fc.constant('send' as const), pick, later: fc.integer({ min: -2, max: 9 }) }), weight: 3 },
  {
    arbitrary: fc.record({
      kind: fc.constant('accept' as const),
      pick,
      options: fc.array(fc.integer({ min: 1, max: 4 }), { maxLength: 3 }),
    }),
    weight: 3,
  },
  fc.record({ kind: fc.constantFrom('copy' as const, 'delete' as const, 'decline' as const, 'reply' as const), pick }),
  fc.record({ kind: fc.constant('ask' as const), pick, text: fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 }) }),
);
/** There is one that is sent from the start. */
const SENT = { kind: 'send' as const, pick: 0, later: 0 };
const FIRST = save.map((it) => ({ ...it, pick: null, estimate: 1 as const, payments: [1_000_000] as const, until: 60 }));
type Act = typeof ACT extends fc.Arbitrary<infer T> ? T : never;

const QUOTATIONS = query(shape({ number: t.whole, version: t.whole }), 'SELECT number, version FROM quotation ORDER BY number');
const TOKENS = query(shape({ token: t.text }), 'SELECT token FROM offer ORDER BY id');

function sendingOf(database: Database) {
  const { outbox, files } = besides(database);
  return {
    outbox: new Outbox(outbox),
    files,
    address: 'http://ledrin.test',
    pdfOf: () => Promise.resolve(Buffer.from('%PDF')),
  };
}

async function perform(database: Database, on: string, it: Act): Promise<unknown> {
  const client = { name: '', at: `${on}T10:00:00.000Z` };
  const there = await reading(database).all(QUOTATIONS);
  // One of those that are there; now and then one that is not.
  const number = there[(it.pick ?? 0) % (there.length + (it.pick === 5 ? 1 : 0))]?.number ?? 7;
  const token = async () => {
    const all = await reading(database).all(TOKENS);
    return all.length === 0 ? 'nobody' : present(all[(it.pick ?? 0) % all.length]).token;
  };
  switch (it.kind) {
    case 'copy':
      return carryOut(database, TESTER, startEstimate, 'J2', {
        name: `Copy ${it.pick}`,
        copyOf: { job: 'J2', estimate: 1 },
        pattern: null,
        reprice: false,
      });
    case 'save': {
      const version = it.pick === null ? 0 : (there.find((one) => one.number === number)?.version ?? 0);
      return carryOut(database, TESTER, saveQuotation, 'J2', it.pick === null ? null : number, {
        version,
        estimate: it.estimate,
        title: `Roof ${it.text}`,
        presentation: it.presentation,
        quantities: it.flags[0],
        unitPrices: it.flags[1],
        contact: it.text,
        email: '',
        introduction: it.text,
        exclusions: '',
        terms: `1. ${it.text}`,
        validUntil: it.until === null ? null : addDays(on, it.until),
        alternates: it.alternates.map((amount, i) => ({ name: `Option ${i}`, amount })),
        payments: it.payments.map((rate, i) => ({ name: `Part ${i}`, rate, amount: null, dueOn: null, stage: '' })),
      });
    }
    case 'send': {
      const letter = { on: addDays(on, it.later), to: 'h@x.example', subject: 'Our quotation', message: 'As walked.' };
      return carryOut(database, TESTER, sendQuotation, sendingOf(database), 'J2', number, letter);
    }
    case 'delete':
      return carryOut(database, TESTER, deleteQuotation, 'J2', number);
    case 'ask':
      return carryOut(database, client, askAboutOffer, await token(), 'Mr Hale', it.text);
    case 'reply':
      return carryOut(database, TESTER, replyToQuestion, (it.pick % 2) + 1, 'In June.');
    case 'accept':
      return carryOut(database, client, acceptOffer, await token(), {
        name: 'J. Hale',
        signature: 'typed: J. Hale',
        options: it.options,
      });
    case 'decline':
      return carryOut(database, client, declineOffer, await token(), 'J. Hale', 'Too dear');
  }
}

test('whatever quotations and answers the routes accept, in whatever order, goes out and comes in the same', async () => {
  const made = { done: 0, refused: 0, sent: 0, answered: 0 };
  await fc.assert(
    fc.asyncProperty(FIRST, fc.array(ACT, { minLength: 10, maxLength: 24 }), async (first, acts) => {
      const database = await temporaryDatabase();
      expect(await faultsOf(database, TENDER_BOOK)).toEqual([]);
      let on = START;
      for (const it of [first, SENT, ...acts]) {
        on = addDays(on, 1);
        const before = await everything(database);
        try {
          await perform(database, on, it);
          made.done += 1;
          if (it.kind === 'send') made.sent += 1;
          if (it.kind === 'accept' || it.kind === 'decline') made.answered += 1;
        } catch (error) {
          if (!(error instanceof LedrinError)) throw error;
          made.refused += 1;
          expect(await everything(database)).toBe(before);
        }
      }
      await tryOffers(database, TESTER, await offersOfTender(database, 'J2', on, sendingOf(database)));
      const out = await exportedBook(database);
      const copy = await temporaryDatabase();
      expect(await faultsOf(copy, out)).toEqual([]);
      expect(await exportedBook(copy)).toEqual(out);
      await copy.close();
      await database.close();
    }),
    { numRuns: runs(8) },
  );
  // Of each there must be some, or the test would prove little.
  expect(made.done).toBeGreaterThan(40);
  expect(made.refused).toBeGreaterThan(10);
  expect(made.sent).toBeGreaterThan(7);
  expect(made.answered).toBeGreaterThan(1);
}, 600_000);
