import { t, table } from '../db/fields';

export const OfferTable = table('offer', {
  id: t.id,
  job_id: t.ref('job'),
  kind: t.oneOf('quotation', 'change'),
  number: t.text,
  token: t.text,
  recipient: t.text,
  sent_on: t.day,
  sent_at: t.moment,
  valid_until: t.orNull(t.day),
  document: t.text,
  hash: t.text,
  status: t.oneOf('open', 'accepted', 'declined'),
  answered_at: t.orNull(t.moment),
  answered_by: t.filled(t.text, ''),
  signature: t.filled(t.text, ''),
  reason: t.filled(t.text, ''),
  seal: t.filled(t.text, ''),
  pdf_hash: t.filled(t.text, ''),
  chosen: t.filled(t.text, ''),
});

export const OfferQuestionTable = table('offer_question', {
  id: t.id,
  offer_id: t.ref('offer'),
  asked_at: t.moment,
  asked_by: t.text,
  question: t.text,
  answered_at: t.orNull(t.moment),
  answered_by: t.filled(t.text, ''),
  answer: t.filled(t.text, ''),
});

export const MessageTable = table('message', {
  id: t.id,
  job_id: t.ref('job'),
  recipient: t.text,
  subject: t.text,
  body: t.text,
  attachments: t.text,
  sent_at: t.moment,
  actor: t.text,
  file: t.text,
  state: t.filled(t.oneOf('prepared', 'sent', 'failed'), 'prepared'),
  tried_at: t.orNull(t.moment),
  failure: t.filled(t.text, ''),
});
