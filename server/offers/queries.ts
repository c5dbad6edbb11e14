import type { QuotationStatus } from '../../core/offers/quotationLife';
import type { OfferView } from '../../wire/quotations';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const HEADING = query(
  shape({ name: t.text, site: t.text, client: t.text, contact: t.text }),
  'SELECT job.name, job.site, c.name AS client, c.contact FROM job JOIN client c ON c.id = job.client_id WHERE job.id = $1',
);

export const QUESTIONS = query(
  shape({ id: t.whole, askedAt: t.moment, askedBy: t.text, question: t.text, answer: t.text, answeredBy: t.text }),
  `SELECT id, asked_at AS askedAt, asked_by AS askedBy, question, answer, answered_by AS answeredBy FROM offer_question WHERE offer_id = $1 ORDER BY id`,
);

export const ANSWERED_ELSEWHERE = query(
  shape({ status: t.text, by: t.text, at: t.moment }),
  `SELECT o.status, o.answered_by AS "by", o.answered_at AS at FROM offer o JOIN offer own ON own.id = $1
      WHERE o.job_id = own.job_id AND o.kind = own.kind AND o.number = own.number AND o.status <> 'open'`,
);

export const MESSAGES = query(
  shape({
    actor: t.text,
    id: t.whole,
    job: t.text,
    recipient: t.text,
    subject: t.text,
    body: t.text,
    sentAt: t.moment,
    attachments: t.text,
    state: t.oneOf<'prepared' | 'sent' | 'failed'>(),
    triedAt: t.orNull(t.moment),
    failure: t.text,
  }),
  `SELECT m.id, job.number AS job, m.recipient, m.subject, m.body, m.attachments, m.sent_at AS sentAt, m.actor, m.state, m.tried_at AS triedAt, m.failure FROM message m JOIN job ON job.id = m.job_id ORDER BY m.id DESC LIMIT 500`,
);

export const MESSAGE_FILE = query(shape({ file: t.text }), 'SELECT file FROM message WHERE id = $1');

export const QUESTION_COUNT = query(
  shape({ count: t.whole }),
  'SELECT count(*) AS count FROM offer_question WHERE offer_id = $1',
);

export const QUESTION = query(
  shape({ answer: t.text, by: t.text }),
  'SELECT answer, answered_by AS by FROM offer_question WHERE id = $1',
);

export const WAITING_ANSWERS = query(
  shape({
    kind: t.oneOf<'quotation' | 'change'>(),
    number: t.text,
    /** Asked, and not answered yet; or what the client answered to a change whose decision is not noted. */
    what: t.oneOf<'asks' | 'accepted' | 'declined'>(),
    by: t.text,
  }),
  `SELECT kind, number, what, "by" FROM (
      SELECT o.kind, o.number, 'asks' AS what, q.asked_by AS "by", q.asked_at AS at FROM offer_question q JOIN offer o ON o.id = q.offer_id
        WHERE o.job_id = $1 AND o.status = 'open' AND q.answer = '' AND substr(q.asked_at, 1, 10) <= $2
      UNION ALL SELECT o.kind, o.number, o.status, o.answered_by, o.answered_at FROM offer o JOIN change_order c ON c.job_id = o.job_id AND c.number = o.number
        WHERE o.job_id = $1 AND o.kind = 'change' AND o.status <> 'open' AND c.status = 'issued' AND substr(o.answered_at, 1, 10) <= $2
    ) ORDER BY at`,
);

const OfferRow = shape({
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
  /** Places of the options chosen, with semicolons between. */
  chosen: t.text,
});

const OFFERS = `SELECT o.id, job.number AS job, o.kind, o.number, o.token, o.recipient, o.sent_on AS sentOn, o.valid_until AS validUntil, o.document, o.hash, o.status,
  o.answered_at AS answeredAt, o.answered_by AS answeredBy, o.signature, o.reason, o.seal, o.pdf_hash AS pdfHash, o.chosen FROM offer o JOIN job ON job.id = o.job_id`;

export const OFFERS_OF = query(OfferRow, `${OFFERS} WHERE o.job_id = $1 AND o.kind = $2 AND o.number = $3 ORDER BY o.id DESC`);

export const OFFER_BY_TOKEN = query(OfferRow, `${OFFERS} WHERE o.token = $1`);

export const QUOTATIONS = query(
  shape({
    number: t.whole,
    status: t.oneOf<QuotationStatus>(),
    version: t.whole,
    savedBy: t.text,
    savedAt: t.moment,
    title: t.text,
    estimate: t.cents,
    presentation: t.oneOf<'line' | 'section' | 'lump-sum'>(),
    contact: t.text,
    email: t.text,
    introduction: t.text,
    exclusions: t.text,
    terms: t.text,
    validUntil: t.orNull(t.day),
    id: t.whole,
    sentOn: t.orNull(t.day),
    answeredOn: t.orNull(t.day),
    answeredBy: t.text,
    quantities: t.whole,
    unitPrices: t.whole,
    alternates: t.text,
    payments: t.text,
  }),
  `SELECT q.id, q.number, e.number AS estimate, q.title, q.presentation, q.quantities, q.unit_prices AS unitPrices, q.contact, q.email, q.introduction, q.exclusions, q.terms,
      q.valid_until AS validUntil, q.status, q.sent_on AS sentOn, q.answered_on AS answeredOn, q.answered_by AS answeredBy, q.version, q.saved_by AS savedBy, q.saved_at AS savedAt,
      (SELECT json_group_array(json_object('name', name, 'amount', amount) ORDER BY id) FROM quotation_alternate WHERE quotation_id = q.id) AS alternates,
      (SELECT json_group_array(json_object('name', name, 'rate', rate, 'amount', amount, 'dueOn', due_on, 'stage', stage) ORDER BY id) FROM quotation_payment WHERE quotation_id = q.id) AS payments
      FROM quotation q JOIN estimate e ON e.id = q.estimate_id WHERE q.job_id = $1 ORDER BY q.number`,
);

export const TERMS_TEXTS = query(shape({ name: t.text, body: t.text }), 'SELECT name, body FROM terms_text ORDER BY name');
