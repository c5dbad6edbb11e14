import * as v from 'valibot';
import { clientDocument } from '../../wire/clientDocument';
import { acceptInput } from '../../wire/quotations';
import { isHash } from '../attachments/contents';
import { bookFile } from '../bookFormat/bookFile';
import { date, moment, oneOf, REQUIRED, text, longText } from '../bookFormat/columns';
import { isNotJson } from '../bookFormat/readJson';
import { changeOrders } from '../changes/bookFiles';
import { known } from '../../core/errors/known';
import { jobs } from '../jobs/bookFiles';
import { quotations } from '../quotations/bookFiles';
import { MessageTable, OfferQuestionTable, OfferTable } from './models';

export const offers = bookFile({
  name: 'offers',
  columns: {
    link: text(REQUIRED, '16 to 64 characters that cannot be guessed'),
    job: text(REQUIRED),
    kind: oneOf(['quotation', 'change'])(REQUIRED),
    number: text(REQUIRED),
    recipient: text(REQUIRED),
    sent_on: date(REQUIRED),
    sent_at: moment(REQUIRED),
    valid_until: date(),
    document: longText(REQUIRED, 'what went out, as JSON'),
    sha256: text(REQUIRED, 'of it'),
    status: oneOf(['open', 'accepted', 'declined'])(REQUIRED),
    answered_at: moment('required once answered'),
    answered_by: text('required once answered'),
    signature: longText('required once accepted; strokes such as `M10 12L14 20`, or `typed: ` and a name'),
    chosen: text('places of the options accepted with it, `;` between'),
    reason: text(),
    seal: text('required once accepted'),
  },
  key: ['link'],
  called: 'document behind the link',
  takenBy: 'always',
  refers: { job: { to: jobs } },
  query: `SELECT o.id, o.token AS link, j.number AS job, o.kind, o.number, o.recipient, o.sent_on, o.sent_at, o.valid_until, o.document, o.hash AS sha256, o.status,
    o.answered_at, o.answered_by, o.signature, o.reason, o.seal, o.chosen FROM offer o JOIN job j ON j.id = o.job_id`,
  check(row, book) {
    const at = (column: string, message: string) => book.fault(offers, row, column, message);
    if (row.link && !/^[\w-]{16,64}$/.test(row.link))
      at('link', 'expected 16 to 64 letters, digits, - and _ that cannot be guessed');
    if (row.job && row.number && row.kind && book.keysOf(jobs).has(row.job))
      book.resolves(offers, row, 'number', { to: row.kind === 'quotation' ? quotations : changeOrders }, [row.job, row.number]);
    if (row.sha256 && !isHash(row.sha256)) at('sha256', 'is not a SHA-256 in 64 hexadecimal digits');
    if (row.document && isNotJson(row.document, (read) => v.is(clientDocument, read)))
      at('document', 'is not a document as Ledrin saves one, JSON with its parts; take it as it was exported');
    if (row.status !== 'open' && row.status !== undefined)
      for (const column of ['answered_at', 'answered_by'] as const)
        if (row[column] === null) at(column, `missing required cell: the document is ${row.status}`);
    if (row.signature && !v.is(acceptInput.entries.signature, row.signature))
      at('signature', 'is no signature: strokes such as M10 12L14 20, or typed: and a name');
    if (row.chosen && !/^[1-9]\d{0,2}(;[1-9]\d{0,2})*$/.test(row.chosen))
      at('chosen', `"${row.chosen}" is not places of options such as 1;3`);
    if (row.status === 'accepted')
      for (const column of ['signature', 'seal'] as const)
        if (row[column] === null) at(column, 'missing required cell: the document is accepted');
  },
  save: (rows, into): Promise<void> =>
    into.keyed(
      offers,
      OfferTable,
      rows,
      (row) => [row.link],
      (row) => ({
        job_id: into.id(jobs, row.job),
        kind: row.kind,
        number: row.number,
        token: row.link,
        recipient: row.recipient,
        sent_on: row.sent_on,
        sent_at: row.sent_at,
        valid_until: row.valid_until,
        document: row.document,
        hash: row.sha256,
        status: row.status,
        answered_at: row.answered_at,
        answered_by: row.answered_by ?? '',
        signature: row.signature ?? '',
        reason: row.reason ?? '',
        seal: row.seal ?? '',
        chosen: row.chosen ?? '',
      }),
    ),
});

export const offerQuestions = bookFile({
  name: 'offer_questions',
  columns: {
    link: text(REQUIRED),
    asked_at: moment(REQUIRED),
    asked_by: text(REQUIRED),
    question: text(REQUIRED),
    answered_at: moment('required once answered'),
    answered_by: text('required once answered'),
    answer: text(),
  },
  key: [],
  refers: { link: { to: offers } },
  query: `SELECT q.id, o.token AS link, q.asked_at, q.asked_by, q.question, q.answered_at, q.answered_by, q.answer
    FROM offer_question q JOIN offer o ON o.id = q.offer_id`,
  check(row, book) {
    if (row.answer)
      for (const column of ['answered_at', 'answered_by'] as const)
        if (row[column] === null) book.fault(offerQuestions, row, column, 'missing required cell: the question is answered');
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      OfferQuestionTable,
      rows.map((row) => ({
        offer_id: into.id(offers, row.link),
        asked_at: row.asked_at,
        asked_by: row.asked_by,
        question: row.question,
        answered_at: row.answered_at,
        answered_by: row.answered_by ?? '',
        answer: row.answer ?? '',
      })),
    ),
});

export const messages = bookFile({
  name: 'messages',
  columns: {
    job: text(REQUIRED),
    recipient: text(REQUIRED),
    subject: text(REQUIRED),
    body: text(REQUIRED),
    attachments: text('names, one a line'),
    sent_at: moment(REQUIRED),
    sent_by: text(REQUIRED),
    file: text(REQUIRED, 'such as `20310310152000000-1.eml`'),
    state: oneOf(['prepared', 'sent', 'failed'])('empty: prepared'),
    tried_at: moment(),
    failure: text(),
  },
  key: [],
  takenBy: 'always',
  refers: { job: { to: jobs } },
  query: `SELECT m.id, j.number AS job, m.recipient, m.subject, m.body, (SELECT group_concat(value, char(10)) FROM json_each(m.attachments)) AS attachments, m.sent_at,
    m.actor AS sent_by, m.file, m.state, m.tried_at, m.failure FROM message m JOIN job j ON j.id = m.job_id`,
  check(row, book) {
    if (row.file && !/^[\w-]{1,80}\.eml$/.test(row.file)) {
      const message = `"${row.file.slice(0, 80)}" is not the name of a message such as 20310502-1.eml`;
      book.fault(messages, row, 'file', message);
    }
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      MessageTable,
      rows.map((row) => ({
        job_id: into.id(jobs, row.job),
        recipient: row.recipient,
        subject: row.subject,
        body: row.body,
        attachments: JSON.stringify(row.attachments ? row.attachments.split('\n') : []),
        sent_at: row.sent_at,
        actor: row.sent_by,
        file: known(into.contents.outboxNames, row.file),
        state: row.state ?? ('prepared' as const),
        tried_at: row.tried_at,
        failure: row.failure ?? '',
      })),
    ),
});
