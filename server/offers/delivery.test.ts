import { afterAll, expect, test } from '@jest/globals';
import { act, reading } from '../test/act';
import { besides, cleanUp, faultsOf, temporaryDatabase, TESTER } from '../test/books';
import { wholeBook } from '../test/wholeBook';
import { Outbox } from '../stand-ins/outbox';
import { SmtpStandIn } from '../stand-ins/smtp';
import { deliver, noteDelivery } from './delivery';
import { messages } from './offerViews';

afterAll(cleanUp);

test('a message is prepared, handed to the mail server, or not taken and tried again; sent is said of what was sent alone', async () => {
  const database = await temporaryDatabase();
  expect(await faultsOf(database, await wholeBook())).toEqual([]);
  const [message] = await messages(reading(database));
  const refusing = new SmtpStandIn([message!.recipient]);
  const taking = new SmtpStandIn();
  const context = (mailServer: string | null) => ({ mailServer, outbox: new Outbox(besides(database).outbox) }) as never;
  const state = async () => (await messages(reading(database))).find((it) => it.id === message!.id)!;
  const tryOn = async (mailServer: string) =>
    act(database, TESTER, noteDelivery, message!.id, await deliver(database, message!.id, context(mailServer)));
  expect((await state()).state).toBe('prepared');
  await expect(deliver(database, message!.id, context(null))).rejects.toThrow(/No mail server is set up/);
  await tryOn(await refusing.listen());
  expect(await state()).toMatchObject({ state: 'failed', failure: expect.stringMatching(/550/), triedAt: TESTER.at });
  await tryOn(await taking.listen());
  expect(await state()).toMatchObject({ state: 'sent', failure: '' });
  expect(taking.received).toMatchObject([{ to: [message!.recipient], content: expect.stringContaining(message!.subject) }]);
  await expect(tryOn('smtp://127.0.0.1:1')).rejects.toThrow(/was sent already/);
  await Promise.all([refusing.close(), taking.close()]);
});
