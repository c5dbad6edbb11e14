import type { BookCheck } from '../checks/checkBook';
import { type Sql } from '../../db/sql';
import { bulkInsert, saveKeyed, type BookIds } from './saveKeyed';

/**
 * Saves the documents that went to clients, with what was asked and answered, and the messages of a checked book. `outboxNames`:
 * under what name a message goes into the outbox, by its name in the book.
 */
export async function saveOffers(
  sql: Sql,
  { rows, existing }: BookCheck,
  ids: BookIds,
  outboxNames: ReadonlyMap<string, string>,
): Promise<void> {
  const offers = new Map(existing.offers);
  await saveKeyed(
    sql,
    'offer',
    [
      ...['job_id', 'kind', 'number', 'token', 'recipient', 'sent_on', 'sent_at', 'valid_until', 'document', 'hash', 'status'],
      ...['answered_at', 'answered_by', 'signature', 'reason', 'seal'],
    ],
    rows.offers,
    offers,
    (row) => row.link!,
    (row) => [
      ...[ids.jobs.get(row.job!), row.kind, row.number, row.link, row.recipient, row.sent_on, row.sent_at],
      ...[row.valid_until ?? null, row.document, row.sha256, row.status, row.answered_at ?? null, row.answered_by ?? ''],
      ...[row.signature ?? '', row.reason ?? '', row.seal ?? ''],
    ],
  );
  await bulkInsert(
    sql,
    'offer_question',
    ['offer_id', 'asked_at', 'asked_by', 'question', 'answered_at', 'answered_by', 'answer'],
    rows.offer_questions.map((row) => [
      ...[offers.get(row.link!), row.asked_at, row.asked_by, row.question],
      ...[row.answered_at ?? null, row.answered_by ?? '', row.answer ?? ''],
    ]),
  );
  await bulkInsert(
    sql,
    'message',
    ['job_id', 'recipient', 'subject', 'body', 'attachments', 'sent_at', 'actor', 'file'],
    rows.messages.map((row) => [
      ...[ids.jobs.get(row.job!), row.recipient, row.subject, row.body],
      ...[
        JSON.stringify(row.attachments ? row.attachments.split('\n') : []),
        row.sent_at,
        row.sent_by,
        outboxNames.get(row.file!),
      ],
    ]),
  );
}
