import { QUESTIONS, ANSWERED_ELSEWHERE, MESSAGES, MESSAGE_FILE, OFFERS_OF, OFFER_BY_TOKEN } from './queries';
import { type RowOf } from '../db/fields';
import { displayDate } from '../../core/calendar/displayDate';
import { LedrinError } from '../../core/errors/ledrinError';
import type { ClientDocument } from '../../core/offers/clientDocument';
import type { AnswerView, MessageRow, OfferView } from '../../wire/quotations';
import type { Reader } from '../db/sql';
import { loadChange } from '../changes/changeViews';
import { changeDocument, contentHash, quotationDocument } from './clientDocuments';
import { jobByNumber } from '../jobs/jobByNumber';
import { loadQuotations } from './quotationList';

export type OfferRow = RowOf<typeof OFFER_BY_TOKEN>;

/** What is sealed when a document is accepted: the document, who accepted it, when, the signature, and the options chosen. */
export function sealOf(it: Pick<OfferRow, 'hash' | 'answeredAt' | 'answeredBy' | 'signature' | 'chosen'>): string {
  const chosen = it.chosen === '' ? [] : [it.chosen];
  return contentHash(JSON.stringify([it.hash, it.answeredAt, it.answeredBy, it.signature, ...chosen]));
}

/** What was accepted: the options chosen, by name, and what that comes to before tax; null where it was not. */
function acceptedOf({ status, document, chosen }: OfferRow): OfferView['accepted'] {
  if (status !== 'accepted') return null;
  const { alternates, total } = JSON.parse(document) as ClientDocument;
  const options = chosen === '' ? [] : chosen.split(';').flatMap((it) => alternates[Number(it) - 1] ?? []);
  return { options: options.map((it) => it.name), total: options.reduce((sum, it) => sum + it.amount, total) };
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
  const rows = await sql.all(OFFERS_OF, [id, kind, number]);
  const views: OfferView[] = [];
  for (const row of rows) {
    const closed = await closedTo(sql, row, today);
    views.push({ ...toView(row), closed, intact: await isIntact(sql, row), questions: await questionsOf(sql, row.id) });
  }
  return views;
}

function toView(row: OfferRow): Omit<OfferView, 'intact' | 'questions' | 'closed'> {
  const { id, token, recipient, sentOn, status, answeredAt, answeredBy, reason, signature, hash, seal } = row;
  const accepted = acceptedOf(row);
  return { id, token, recipient, sentOn, status, answeredAt, answeredBy, reason, signature, hash, seal, accepted };
}

/** The saved document still has its hash and seal, and what it was made from still says the same. */
async function isIntact(sql: Reader, row: OfferRow): Promise<boolean> {
  if (contentHash(row.document) !== row.hash) return false;
  if (row.status === 'accepted' && sealOf(row) !== row.seal) return false;
  return JSON.stringify(await rebuildDocument(sql, row)) === row.document;
}

async function rebuildDocument(sql: Reader, row: OfferRow): Promise<ClientDocument | null> {
  const saved = JSON.parse(row.document) as ClientDocument;
  // Names and addresses may change with the years; what was offered may not.
  const sameHeading = ({ company, client, job }: ClientDocument) => ({ company, client, job });
  if (row.kind === 'change')
    return { ...(await changeDocument(sql, row.job, row.number)), ...sameHeading(saved), dated: saved.dated };
  const quotation = (await loadQuotations(sql, row.job)).find((it) => String(it.number) === row.number);
  if (!quotation) return null;
  const { document } = await quotationDocument(sql, row.job, quotation.number, saved.dated, quotation);
  return { ...document, ...sameHeading(saved) };
}

function questionsOf(sql: Reader, offerId: number): Promise<OfferView['questions']> {
  return sql.all(QUESTIONS, [offerId]);
}

/** The document behind a link. Throws not-found where there is none. */
export async function offerByToken(sql: Reader, token: string): Promise<OfferRow> {
  const row = await sql.get(OFFER_BY_TOKEN, [token]);
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
    accepted: acceptedOf(row),
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
  const answered = await sql.get(ANSWERED_ELSEWHERE, [row.id]);
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
  const rows = await sql.all(MESSAGES);
  return rows.map((row) => ({ ...row, attachments: JSON.parse(row.attachments) as string[] }));
}

export async function messageFile(sql: Reader, id: number): Promise<string> {
  const row = await sql.get(MESSAGE_FILE, [id]);
  if (!row) throw new LedrinError('not-found', `There is no message ${id}`);
  return row.file;
}
