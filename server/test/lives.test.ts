import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { APPLICATION_LIFE } from '../../core/billing/applicationLife';
import { APPLICATION_STATUSES } from '../../core/billing/application';
import { CHANGE_LIFE, CHANGE_STATUSES } from '../../core/changes/changeLife';
import { ESTIMATE_LIFE } from '../../core/estimates/estimateLife';
import { movesFrom, type Life } from '../../core/life/life';
import { QUOTATION_LIFE } from '../../core/offers/quotationLife';
import { LedrinError } from '../../core/errors/ledrinError';
import { deleteApplication, saveApplication, setSubmitted } from '../billing/applications';
import { reverseCertification } from '../billing/reverseCertification';
import { billApplication, certifyApplication } from '../billing/certify';
import { applicationView } from '../billing/applicationView';
import { recordReceipt } from '../billing/receipts';
import { deleteChange, saveChange } from '../changes/changes';
import { ClientTable } from '../company/models';
import { decideChange, issueChange } from '../changes/decideChange';
import type { Database } from '../db/database';
import { deleteEstimate, saveEstimate, sendEstimate } from '../estimates/estimates';
import { estimateView } from '../estimates/estimateViews';
import { repriceEstimate } from '../estimates/repriceEstimate';
import type { Command } from '../acts/command';
import { clientDocumentPdf } from '../offers/clientDocumentPdf';
import { sendChange } from '../offers/offers';
import { deleteQuotation, saveQuotation, sendQuotation } from '../quotations/quotations';
import { Outbox } from '../stand-ins/outbox';
import type { Context } from '../http/context';
import { UserTable } from '../users/models';
import { inviteAgain, inviteUser, saveUser, userList } from '../users/users';
import { USER_LIFE, USER_STATES } from '../../core/users/userLife';
import { reading } from './act';
import { cleanUp, faultsOf, temporaryDatabase, temporaryFolder, TENDER_BOOK } from './books';
import { EXAMPLES } from './postedBodies';

let database: Database;
const actor = { name: 'tester', at: '2031-05-02T09:00:00.000Z' };
const sending = {
  outbox: new Outbox(temporaryFolder()),
  files: temporaryFolder(),
  address: 'http://ledrin.test',
  pdfOf: clientDocumentPdf,
};

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, TENDER_BOOK)).toEqual([]);
});
afterAll(cleanUp);

class Undone extends Error {}

/** Whether a command is accepted, in a transaction that is undone; what else than its state refuses it does not count. */
async function accepts(set: (command: Command) => Promise<void>, work: (command: Command) => Promise<unknown>): Promise<boolean> {
  let accepted = true;
  try {
    await database.write(async (sql) => {
      const command: Command = { sql, actor, note: () => {}, compared: () => {} };
      await set(command);
      try {
        await work(command);
      } catch (error) {
        if (!(error instanceof LedrinError)) throw error;
        accepted = !/ is (a draft|submitted|certified|issued|approved|rejected|withdrawn|sent|accepted|declined|closed); /.test(
          error.message,
        );
      }
      throw new Undone();
    });
  } catch (error) {
    if (!(error instanceof Undone)) throw error;
  }
  return accepted;
}

type Moves = Record<string, (command: Command) => Promise<unknown>>;

/** Each move core allows is accepted by its command, and no other is. */
async function walk(
  life: Life<string, string>,
  states: readonly string[],
  into: (state: string) => (command: Command) => Promise<void>,
  moves: Moves,
) {
  const found = [];
  const expected = [];
  for (const state of states)
    for (const [move, work] of Object.entries(moves)) {
      found.push([state, move, await accepts(into(state), work)]);
      expected.push([state, move, movesFrom(life, state)[move]]);
    }
  expect(found).toEqual(expected);
}

describe('each move core allows is accepted by its command, and no other is', () => {
  test('of a user', async () => {
    const input = { name: 'Ivo Reed', email: 'ivo@reed.example', role: 'accountant' as const, allJobs: false };
    const context = { address: 'http://ledrin.test' } as Context;
    const row = async ({ sql }: Pick<Command, 'sql'>) => (await userList(sql)).find((it) => it.name === input.name)!;
    const save = async (it: Command, closed: boolean) => {
      const { id, seen } = await row(it);
      await saveUser(it, id, { ...input, closed, seen });
    };
    const into = (state: string) => async (command: Command) => {
      await inviteUser(command, input, context);
      const { id } = await row(command);
      const facts = {
        password: state === 'signs in' ? 'hash' : '',
        ...(state === 'invited' ? {} : { invitation: '', invited_until: '' }),
      };
      await command.sql.update(UserTable, { id }, facts);
      if (state === 'closed') await save(command, true);
      expect((await row(command)).state).toBe(state);
    };
    await walk(USER_LIFE, USER_STATES, into, {
      newLink: async (it) => inviteAgain(it, (await row(it)).id, context),
    });
    for (const state of USER_STATES) {
      let can = {};
      await accepts(into(state), async (it) => void ({ can } = await row(it)));
      expect([state, can]).toEqual([state, movesFrom(USER_LIFE, state)]);
    }
  });

  // The third application of J1 is submitted; the first two are certified and were paid for. Its client never certifies, so that it may be billed in one act.
  const intoApplication = (state: string) => async (command: Command) => {
    await command.sql.update(ClientTable, {}, { never_certifies: 1 });
    if (state === 'certified') await certifyApplication(command, 'J1', 3, { version: null, on: '2031-04-01', lines: [] });
    if (state === 'draft') await setSubmitted(command, 'J1', 3, false);
  };
  const lines = [{ line: '1', work: 500_000, materials: 0 }];
  const applicationMoves: Moves = {
    edit: (it) => saveApplication(it, 'J1', 3, { version: null, dated: '2031-03-31', reference: '', lines }),
    delete: (it) => deleteApplication(it, 'J1', 3),
    submit: (it) => setSubmitted(it, 'J1', 3, true),
    return: (it) => setSubmitted(it, 'J1', 3, false),
    bill: (it) => billApplication(it, 'J1', 3, { version: null, on: '2031-04-01' }),
    certify: (it) => certifyApplication(it, 'J1', 3, { version: null, on: '2031-04-01', lines: [] }),
    uncertify: (it) => reverseCertification(it, 'J1', 3, 'wrong'),
    receive: (it) => recordReceipt(it, 'J1', '3', { dated: '2031-04-20', amount: 1, reference: '' }),
  };

  test('of an application', async () => {
    await walk(APPLICATION_LIFE, APPLICATION_STATUSES, intoApplication, applicationMoves);
  });

  test('of an application, as its page offers it', async () => {
    for (const state of APPLICATION_STATUSES) {
      let can = {};
      await accepts(intoApplication(state), async ({ sql }) => {
        const { refused } = await applicationView(sql, 'J1', 3, '2031-04-30');
        can = Object.fromEntries(Object.entries(refused).map(([move, why]) => [move, why === null]));
      });
      expect([state, can]).toEqual([state, movesFrom(APPLICATION_LIFE, state)]);
    }
  });

  test('of a change order', async () => {
    const change = { ...EXAMPLES.addChange.body, number: 'X9' };
    const decide = (status: 'approved' | 'rejected' | 'withdrawn') => (it: Command) =>
      decideChange(it, 'J1', 'X9', { status, on: '2031-04-30', by: 'b', note: '', agreed: null, daysGranted: null });
    await walk(
      CHANGE_LIFE,
      CHANGE_STATUSES,
      (state) => async (command) => {
        await saveChange(command, 'J1', change, null);
        if (state !== 'draft') await issueChange(command, 'J1', 'X9', '2031-04-02');
        if (state !== 'draft' && state !== 'issued') await decide(state as 'approved')(command);
      },
      {
        edit: (it) => saveChange(it, 'J1', { ...change, version: 1 }, 'X9'),
        delete: (it) => deleteChange(it, 'J1', 'X9'),
        issue: (it) => issueChange(it, 'J1', 'X9', '2031-04-02'),
        send: (it) => sendChange(it, sending, 'J1', 'X9', EXAMPLES.sendChange.body),
        approved: decide('approved'),
        rejected: decide('rejected'),
        withdrawn: decide('withdrawn'),
      },
    );
  });

  test('of a quotation', async () => {
    const { body } = EXAMPLES.addQuotation;
    await walk(
      QUOTATION_LIFE,
      ['draft', 'sent'],
      (state) => async (command) => {
        await saveQuotation(command, 'J2', null, body);
        if (state === 'sent') await sendQuotation(command, sending, 'J2', 1, EXAMPLES.sendQuotation.body);
      },
      {
        edit: (it) => saveQuotation(it, 'J2', 1, { ...body, version: 1 }),
        delete: (it) => deleteQuotation(it, 'J2', 1),
        send: (it) => sendQuotation(it, sending, 'J2', 1, EXAMPLES.sendQuotation.body),
      },
    );
  });

  test('of an estimate', async () => {
    const { version } = await estimateView(reading(database), 'J2', 1);
    await walk(
      ESTIMATE_LIFE,
      ['draft', 'sent'],
      (state) => async (command) => {
        if (state === 'sent') await sendEstimate(command, 'J2', 1, '2031-04-01', '');
      },
      {
        edit: (it) => saveEstimate(it, 'J2', 1, { ...EXAMPLES.saveEstimate.body, version }),
        delete: (it) => deleteEstimate(it, 'J2', 1),
        reprice: (it) => repriceEstimate(it, 'J2', 1, 'not what was shown'),
        send: (it) => sendEstimate(it, 'J2', 1, '2031-04-01', ''),
      },
    );
  });
});
