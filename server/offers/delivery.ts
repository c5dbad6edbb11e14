import { createTransport } from 'nodemailer';
import { LedrinError } from '../../core/errors/ledrinError';
import { findCompany } from '../company/company';
import type { Database } from '../db/database';
import type { Context } from '../http/context';
import type { Command } from '../acts/command';
import { MessageTable } from './models';

/** What came of handing a message over. */
export interface Delivery {
  state: 'sent' | 'failed';
  failure: string;
}

/** Who a message is from where the company has no address yet. */
export const NO_ADDRESS = 'accounts@localhost';

/** How long a mail server may take for each step, in milliseconds. */
const PATIENCE = 15_000;

/** Hands a message of the outbox to the company's mail server, outside of any transaction. Throws refused where it was sent, or none is set up. */
export async function deliver(database: Database, id: number, { mailServer, outbox }: Context): Promise<Delivery> {
  const message = await database.read((sql) => sql.findOne(MessageTable, { id }));
  if (!message) throw new LedrinError('not-found', `There is no message ${id}`);
  if (message.state === 'sent') throw new LedrinError('refused', `This message was sent already, to ${message.recipient}`);
  if (mailServer === null)
    throw new LedrinError(
      'refused',
      'No mail server is set up: start Ledrin with LEDRIN_SMTP, or take the mail file to a mail program',
    );
  const raw = outbox.read(message.file);
  if (raw === null) throw new LedrinError('not-found', `The mail file ${message.file} is not in the outbox any more`);
  const limits = { connectionTimeout: PATIENCE, greetingTimeout: PATIENCE, socketTimeout: PATIENCE };
  const transport = createTransport({ url: mailServer, ...limits, disableUrlAccess: true, disableFileAccess: true } as never);
  try {
    await transport.sendMail({ envelope: { from: await senderAddress(database), to: [message.recipient] }, raw });
    return { state: 'sent', failure: '' };
  } catch (error) {
    return { state: 'failed', failure: (error instanceof Error ? error.message : String(error)).slice(0, 400) };
  } finally {
    transport.close();
  }
}

/** The company's own address, else one of this machine. */
async function senderAddress(database: Database): Promise<string> {
  const company = await database.read((sql) => findCompany(sql));
  return company?.email || NO_ADDRESS;
}

/** Notes what came of it; a failed message can be tried again. */
export async function noteDelivery(command: Command, id: number, { state, failure }: Delivery): Promise<Delivery> {
  await command.sql.update(MessageTable, { id }, { state, failure, tried_at: command.actor.at });
  command.note(`message ${id}`, { state, ...(failure === '' ? {} : { failure }) });
  return { state, failure };
}
