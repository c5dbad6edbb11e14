import { shape, t, type RowOf } from '../db/fields';
import { displayDate } from '../../core/calendar/displayDate';
import { LedrinError } from '../../core/errors/ledrinError';
import type { ClientDocument } from '../../core/offers/clientDocument';
import type { AnswerView, MessageRow, OfferView } from '../../wire/quotations';
import type { Reader } from '../db/sql';
import { loadChange } from '../changes/changeViews';
import { changeDocument, contentHash, quotationDocument } from './clientDocuments';
import { jobByNumber } from '../jobs/jobByNumber';
import { loadQuotations } from '../quotations/quotationList';

export const OfferRow = shape({
  id: t.whole,
  job: t.text,
  kind: t.oneOf<'quotation' | 'change'>(),
  number: t.text,
  token: t.text,
  recipient: t.text,
  sentOn: t.day,
  validUntil: t.orNull(t.day),
  document: t.text,
  hash: t.text,
  status: t.oneOf<OfferView['status']>(),
  answeredAt: t.orNull(t.moment),
  answeredBy: t.text,
  signature: t.text,
  reason: t.text,
  seal: t.text,
  pdfHash: t.text,
});
export type OfferRow = RowOf<typeof OfferRow>;

const OFFERS = `SELECT o.id, job.number AS job, o.kind, o.number, o.token, o.recipient, o.sent_on AS sentOn, o.valid_until AS validUntil, o.document, o.hash, o.status,
  o.answered_at AS answeredAt, o.answered_by AS answeredBy, o.signature, o.reason, o.seal, o.pdf_hash AS pdfHash FROM offer o JOIN job ON job.id = o.job_id`;

/** What is sealed when a document is accepted: the document, who accepted it, when, and the signature. */
export function sealOf(it: Pick<OfferRow, 'hash' | 'answeredAt' | 'answeredBy' | 'signature'>): string {
  return contentHash(JSON.stringify([it.hash, it.answeredAt, it.answeredBy, it.signature]));
}

/** The documents sent of one quotation or change, newest first, each with whether it is still as it was sent. */
export async function offersOf(
  sql: Reader,
  job: string,
  kind: OfferRow['kind'],
  number: string,
  today: string,
): Promise<OfferView[]> {
  const { id } = await jobByNumber(sql, job, 'job');
  const rows = await sql.all(OfferRow, `${OFFERS} WHERE o.job_id = $1 AND o.kind = $2 AND o.number = $3 ORDER BY o.id DESC`, [
    id,
    kind,
    number,
  ]);
  const views: OfferView[] = [];
  for (const row of rows) {
    const closed = await closedTo(sql, row, today);
    views.push({ ...toView(row), closed, intact: await isIntact(sql, row), questions: await questionsOf(sql, row.id) });
  }
  return views;
}

function toView(row: OfferRow): Omit<OfferView, 'intact' | 'questions' | 'closed'> {
  const { id, token, recipient, sentOn, status, answeredAt, answeredBy, reason, signature, hash, seal } = row;
  return { id, token, recipient, sentOn, status, answeredAt, answeredBy, reason, signature, hash, seal };
}

/** The saved document still has its hash and seal, and what it was made from still says the same. */
async function isIntact(sql: Reader, row: OfferRow): Promise<boolean> {
  if (contentHash(row.document) !== row.hash) return false;
  if (row.status === 'accepted' && sealOf(row) !== row.seal) return false;
  return JSON.stringify(await rebuildDocument(sql, row)) === row.document;
}

async function rebuildDocument(sql: Reader, row: OfferRow): Promise<ClientDocument | null> {
  const kept = JSON.parse(row.document) as ClientDocument;
  // Names and addresses may change with the years; what was offered may not.
  const sameHeading = ({ company, client, job }: ClientDocument) => ({ company, client, job });
  if (row.kind === 'change')
    return { ...(await changeDocument(sql, row.job, row.number)), ...sameHeading(kept), dated: kept.dated };
  const quotation = (await loadQuotations(sql, row.job)).find((it) => String(it.number) === row.number);
  if (!quotation) return null;
  const { document } = await quotationDocument(sql, row.job, quotation.number, kept.dated, quotation);
  return { ...document, ...sameHeading(kept) };
}

function questionsOf(sql: Reader, offerId: number): Promise<OfferView['questions']> {
  return sql.all(
    shape({ id: t.whole, askedAt: t.moment, askedBy: t.text, question: t.text, answer: t.text, answeredBy: t.text }),
    `SELECT id, asked_at AS askedAt, asked_by AS askedBy, question, answer, answered_by AS answeredBy FROM offer_question WHERE offer_id = $1 ORDER BY id`,
    [offerId],
  );
}

/** The document behind a link. Throws not-found where there is none. */
export async function offerByToken(sql: Reader, token: string): Promise<OfferRow> {
  const row = await sql.get(OfferRow, `${OFFERS} WHERE o.token = $1`, [token]);
  if (!row) throw new LedrinError('not-found', 'There is no document behind this link; ask whoever sent it for a new one');
  return row;
}

/** What the client sees behind the link. */
export async function answerView(sql: Reader, token: string, today: string): Promise<AnswerView> {
  const row = await offerByToken(sql, token);
  return {
    document: JSON.parse(row.document) as ClientDocument,
    status: row.status,
    answeredAt: row.answeredAt,
    answeredBy: row.answeredBy,
    hash: row.hash,
    seal: row.seal,
    closed: await closedTo(sql, row, today),
    questions: (await questionsOf(sql, row.id)).map(({ id: _id, ...it }) => it),
  };
}

/** Why a document that was not answered takes no answer any more; null where it does, or has its own. */
async function closedTo(sql: Reader, row: OfferRow, today: string): Promise<string | null> {
  return row.status === 'open' ? whyClosed(sql, row, today) : null;
}

/** Why an open document takes no answer any more, in words for the client; null where it does. */
export async function whyClosed(sql: Reader, row: OfferRow, today: string): Promise<string | null> {
  const answered = await sql.get(
    shape({ status: t.text, by: t.text, at: t.moment }),
    `SELECT o.status, o.answered_by AS "by", o.answered_at AS at FROM offer o JOIN offer own ON own.id = $1
      WHERE o.job_id = own.job_id AND o.kind = own.kind AND o.number = own.number AND o.status <> 'open'`,
    [row.id],
  );
  if (answered)
    return `This was ${answered.status} by ${answered.by} on ${displayDate(answered.at.slice(0, 10))}, on another document of it`;
  if (row.kind === 'change') {
    const change = await loadChange(sql, row.job, row.number);
    if (change.status !== 'issued')
      return `${row.number} was ${change.status} on ${displayDate(change.decidedOn)}; there is nothing left to answer`;
  } else {
    const job = await jobByNumber(sql, row.job, 'job');
    if (job.status !== 'tender')
      return `This work was awarded on ${displayDate(job.awarded_on)}; there is nothing left to answer`;
  }
  if (row.validUntil !== null && row.validUntil < today)
    return `This was valid until ${displayDate(row.validUntil)}; ask for it to be sent again`;
  return null;
}

/** The messages that went out, newest first. */
export async function messages(sql: Reader): Promise<MessageRow[]> {
  const rows = await sql.all(
    shape({
      actor: t.text,
      id: t.whole,
      job: t.text,
      recipient: t.text,
      subject: t.text,
      body: t.text,
      sentAt: t.moment,
      attachments: t.text,
    }),
    `SELECT m.id, job.number AS job, m.recipient, m.subject, m.body, m.attachments, m.sent_at AS sentAt, m.actor FROM message m JOIN job ON job.id = m.job_id ORDER BY m.id DESC LIMIT 500`,
  );
  return rows.map((row) => ({ ...row, attachments: JSON.parse(row.attachments) as string[] }));
}

export async function messageFile(sql: Reader, id: number): Promise<string> {
  const row = await sql.get(shape({ file: t.text }), 'SELECT file FROM message WHERE id = $1', [id]);
  if (!row) throw new LedrinError('not-found', `There is no message ${id}`);
  return row.file;
}
