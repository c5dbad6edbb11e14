import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const QUOTATIONS = query(
  shape({
    number: t.whole,
    status: t.text,
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

export const LAST_QUOTATION = query(
  shape({ number: t.orNull(t.whole) }),
  'SELECT max(number) AS number FROM quotation WHERE job_id = $1',
);
