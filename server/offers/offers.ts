import { dayOf } from '../acts/audit';
import { QUESTION_COUNT, QUESTION } from './queries';
import { present } from '../../core/errors/known';
import { QuotationTable } from '../quotations/models';
import { MessageTable, OfferQuestionTable, OfferTable } from './models';
import { movableChange } from '../changes/changes';
import type { Command } from '../acts/command';
import { randomBytes } from 'node:crypto';
import { displayDate } from '../../core/calendar/displayDate';
import { LedrinError } from '../../core/errors/ledrinError';
import type { ClientDocument } from '../../core/offers/clientDocument';
import type { SendInput } from '../../wire/quotations';
import type { Reader, Sql } from '../db/sql';
import { changeDocument, contentHash } from './clientDocuments';
import { jobByNumber } from '../jobs/jobByNumber';
import type { AcceptInput } from '../../wire/quotations';
import { findCompany } from '../company/company';
import { fieldError } from '../acts/refused';
import { NO_ADDRESS } from './delivery';
import { offerByToken, sealOf, whyClosed, type OfferRow } from './offerViews';
import { hashOf, keepContent } from '../attachments/contents';
import type { Sending } from './sending';
import { type Actor } from '../acts/audit';

interface Offered {
  job: string;
  kind: OfferRow['kind'];
  number: string;
  document: ClientDocument;
}

/** Saves a document as it goes out, with its hash and an unguessable link, and puts the message into the outbox. */
export async function offerDocument(sql: Sql, sending: Sending, actor: Actor, offered: Offered, input: SendInput): Promise<void> {
  const { id: jobId } = await jobByNumber(sql, offered.job, 'job');
  const token = randomBytes(24).toString('base64url');
  const document = JSON.stringify(offered.document);
  const pdf = await sending.pdfOf(offered.document);
  const pdfHash = hashOf(pdf);
  keepContent(sending.files, pdfHash, pdf);
  await sql.insert(OfferTable, {
    job_id: jobId,
    kind: offered.kind,
    number: offered.number,
    token,
    recipient: input.to,
    sent_on: input.on,
    sent_at: actor.at,
    valid_until: offered.document.validUntil,
    document,
    hash: contentHash(document),
    pdf_hash: pdfHash,
    status: 'open',
  });
  const body = `${input.message}\n\nRead it, ask about it, accept or decline it here:\n${sending.address}/answer/${token}\n`;
  const name = `${offered.document.title} ${offered.job}.pdf`.replace(/[^\w. -]/g, '_');
  const file = await sending.outbox.put({
    from: `"${offered.document.company.name.replaceAll('"', '')}" <${(await findCompany(sql))?.email || NO_ADDRESS}>`,
    to: input.to,
    subject: input.subject,
    text: body,
    date: new Date(actor.at),
    attachments: [{ filename: name, contentType: 'application/pdf', content: pdf }],
  });
  await sql.insert(MessageTable, {
    job_id: jobId,
    recipient: input.to,
    subject: input.subject,
    body,
    attachments: JSON.stringify([name]),
    sent_at: actor.at,
    actor: actor.name,
    file,
  });
}

/** Sends a change order that is issued to the client, with a page to answer on. */
export async function sendChange(
  command: Command,
  sending: Sending,
  job: string,
  number: string,
  input: SendInput,
): Promise<void> {
  const { sql, actor } = command;
  await movableChange(sql, 'send', job, number);
  const document = await changeDocument(sql, job, number);
  await offerDocument(sql, sending, actor, { job, kind: 'change', number, document }, input);
  command.note(`${job}/${number}`, { to: input.to, on: input.on });
}

async function openOffer(sql: Reader, token: string, today: string): Promise<OfferRow> {
  const offer = await offerByToken(sql, token);
  if (offer.status !== 'open')
    throw new LedrinError(
      'conflict',
      `This was ${offer.status} by ${offer.answeredBy} on ${displayDate(offer.answeredAt?.slice(0, 10) ?? null)}; it stays so`,
    );
  const closed = await whyClosed(sql, offer, today);
  if (closed) throw new LedrinError('refused', closed);
  return offer;
}

/** The client asks; the question stands on the page until it is answered. */
export async function askAboutOffer(command: Command, token: string, name: string, question: string): Promise<void> {
  const { sql, actor } = command;
  const { at } = actor;
  const offer = await openOffer(sql, token, dayOf(actor));
  const asked = await sql.get(QUESTION_COUNT, [offer.id]);
  if (present(asked).count >= 50) throw new LedrinError('refused', 'There are many questions already; please call');
  await sql.insert(OfferQuestionTable, { offer_id: offer.id, asked_at: at, asked_by: name, question });
  command.note(`${offer.job}/${offer.kind} ${offer.number}`, { question }, `${name} (client)`);
}

/** The company answers a question that was asked on the page. */
export async function replyToQuestion(command: Command, id: number, answer: string): Promise<void> {
  const { sql, actor } = command;
  const there = await sql.get(QUESTION, [id]);
  if (!there) throw new LedrinError('not-found', `There is no question ${id}`);
  if (there.answer)
    throw new LedrinError(
      'conflict',
      `${there.by} answered this already: “${there.answer}”. The client has read it; write a message instead`,
    );
  await sql.update(OfferQuestionTable, { id }, { answer, answered_at: actor.at, answered_by: actor.name });
  command.note(String(id), { answer });
}

/** The client accepts by name and signature; the document is sealed with both. */
export async function acceptOffer(command: Command, token: string, { name, signature, options }: AcceptInput): Promise<void> {
  const { sql, actor } = command;
  const { at } = actor;
  const offer = await openOffer(sql, token, dayOf(actor));
  const { alternates } = JSON.parse(offer.document) as ClientDocument;
  const beyond = options.findIndex((it) => it > alternates.length);
  if (beyond >= 0) throw fieldError(`options.${beyond}`, `There is no option ${options[beyond]}; there are ${alternates.length}`);
  const chosen = [...new Set(options)].sort((a, b) => a - b).join(';');
  const seal = sealOf({ hash: offer.hash, answeredAt: at, answeredBy: name, signature, chosen });
  await sql.update(
    OfferTable,
    { id: offer.id },
    { status: 'accepted', answered_at: at, answered_by: name, signature, seal, chosen },
  );
  await answered(command, offer, 'accepted', name);
}

/** The client declines, with a reason. */
export async function declineOffer(command: Command, token: string, name: string, reason: string): Promise<void> {
  const { sql, actor } = command;
  const { at } = actor;
  const offer = await openOffer(sql, token, dayOf(actor));
  await sql.update(OfferTable, { id: offer.id }, { status: 'declined', answered_at: at, answered_by: name, reason });
  await answered(command, offer, 'declined', name);
}

/** A quotation takes the answer; a change waits for the company to note its decision, since its day decides the reports. */
async function answered(command: Command, offer: OfferRow, status: 'accepted' | 'declined', name: string): Promise<void> {
  const { sql, actor } = command;
  if (offer.kind === 'quotation') {
    const { id: jobId } = await jobByNumber(sql, offer.job, 'job');
    const where = { job_id: jobId, number: Number(offer.number) };
    await sql.update(QuotationTable, where, {
      status,
      answered_on: laterOf(dayOf(actor), offer.sentOn),
      answered_by: name,
    });
  }
  command.note(`${offer.job}/${offer.kind} ${offer.number}`, { offer: offer.id, status }, `${name} (client)`);
}

/** A document dated ahead and answered before its day is answered on that day: no answer comes before what it answers. */
function laterOf(a: string, b: string): string {
  return a > b ? a : b;
}
