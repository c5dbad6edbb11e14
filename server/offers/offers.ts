import { movableChange } from '../changes/changes';
import type { Command } from '../ledger/command';
import { randomBytes } from 'node:crypto';
import { displayDate } from '../../core/calendar/displayDate';
import { LedrinError } from '../../core/errors/ledrinError';
import type { ClientDocument } from '../../core/offers/clientDocument';
import type { SendInput } from '../../wire/quotations';
import type { Reader, Sql } from '../db/sql';
import { changeDocument, contentHash } from './clientDocuments';
import { jobByNumber } from '../jobs/jobByNumber';
import { offerByToken, sealOf, whyClosed, type OfferRow } from './offerViews';
import { hashOf, keepContent } from '../attachments/contents';
import type { Sending } from './sending';
import { type Actor } from '../ledger/audit';

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
  await sql.run(
    `INSERT INTO offer (job_id, kind, number, token, recipient, sent_on, sent_at, valid_until, document, hash, pdf_hash, status) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, 'open')`,
    [
      jobId,
      offered.kind,
      offered.number,
      token,
      input.to,
      input.on,
      actor.at,
      offered.document.validUntil,
      document,
      contentHash(document),
      pdfHash,
    ],
  );
  const body = `${input.message}\n\nRead it, ask about it, accept or decline it here:\n${sending.address}/answer/${token}\n`;
  const name = `${offered.document.title} ${offered.job}.pdf`.replace(/[^\w. -]/g, '_');
  const file = await sending.outbox.put({
    from: `"${offered.document.company.name.replaceAll('"', '')}" <accounts@localhost>`,
    to: input.to,
    subject: input.subject,
    text: body,
    date: new Date(actor.at),
    attachments: [{ filename: name, contentType: 'application/pdf', content: pdf }],
  });
  await sql.run(
    'INSERT INTO message (job_id, recipient, subject, body, attachments, sent_at, actor, file) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)',
    [jobId, input.to, input.subject, body, JSON.stringify([name]), actor.at, actor.name, file],
  );
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
  const offer = await openOffer(sql, token, at.slice(0, 10));
  const asked = await sql.get<{ count: number }>('SELECT count(*) AS count FROM offer_question WHERE offer_id = $1', [offer.id]);
  if (asked!.count >= 50) throw new LedrinError('refused', 'There are many questions already; please call');
  await sql.run('INSERT INTO offer_question (offer_id, asked_at, asked_by, question) VALUES ($1, $2, $3, $4)', [
    offer.id,
    at,
    name,
    question,
  ]);
  command.note(`${offer.job}/${offer.kind} ${offer.number}`, { question }, `${name} (client)`);
}

/** The company answers a question that was asked on the page. */
export async function replyToQuestion(command: Command, id: number, answer: string): Promise<void> {
  const { sql, actor } = command;
  const there = await sql.get<{ answer: string; by: string }>(
    'SELECT answer, answered_by AS by FROM offer_question WHERE id = $1',
    [id],
  );
  if (!there) throw new LedrinError('not-found', `There is no question ${id}`);
  if (there.answer)
    throw new LedrinError(
      'conflict',
      `${there.by} answered this already: “${there.answer}”. The client has read it; write a message instead`,
    );
  await sql.run('UPDATE offer_question SET answer = $1, answered_at = $2, answered_by = $3 WHERE id = $4', [
    answer,
    actor.at,
    actor.name,
    id,
  ]);
  command.note(String(id), { answer });
}

/** The client accepts by name and signature; the document is sealed with both. */
export async function acceptOffer(command: Command, token: string, name: string, signature: string): Promise<void> {
  const { sql, actor } = command;
  const { at } = actor;
  const offer = await openOffer(sql, token, at.slice(0, 10));
  const seal = sealOf({ hash: offer.hash, answeredAt: at, answeredBy: name, signature });
  await sql.run(
    `UPDATE offer SET status = 'accepted', answered_at = $1, answered_by = $2, signature = $3, seal = $4 WHERE id = $5`,
    [at, name, signature, seal, offer.id],
  );
  await answered(command, offer, 'accepted', name);
}

/** The client declines, with a reason. */
export async function declineOffer(command: Command, token: string, name: string, reason: string): Promise<void> {
  const { sql, actor } = command;
  const { at } = actor;
  const offer = await openOffer(sql, token, at.slice(0, 10));
  await sql.run(`UPDATE offer SET status = 'declined', answered_at = $1, answered_by = $2, reason = $3 WHERE id = $4`, [
    at,
    name,
    reason,
    offer.id,
  ]);
  await answered(command, offer, 'declined', name);
}

/** A quotation takes the answer; a change waits for the company to note its decision, since its day decides the reports. */
async function answered(command: Command, offer: OfferRow, status: string, name: string): Promise<void> {
  const { sql, actor } = command;
  if (offer.kind === 'quotation')
    await sql.run(
      `UPDATE quotation SET status = $1, answered_on = $2, answered_by = $3 WHERE number = $4 AND job_id = (SELECT job_id FROM offer WHERE id = $5)`,
      [status, actor.at.slice(0, 10), name, Number(offer.number), offer.id],
    );
  command.note(`${offer.job}/${offer.kind} ${offer.number}`, { offer: offer.id, status }, `${name} (client)`);
}
