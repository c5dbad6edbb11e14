import { date, moment, oneOf, REQUIRED, text } from './columns';

/** Files of the documents that went to clients, what these asked and answered, and the messages they came with. */
export const OFFER_FILES = {
  offers: {
    link: text(REQUIRED),
    job: text(REQUIRED),
    kind: oneOf(['quotation', 'change'])(REQUIRED),
    number: text(REQUIRED),
    recipient: text(REQUIRED),
    sent_on: date(REQUIRED),
    sent_at: moment(REQUIRED),
    valid_until: date(),
    document: text(REQUIRED),
    sha256: text(REQUIRED),
    status: oneOf(['open', 'accepted', 'declined'])(REQUIRED),
    answered_at: moment(),
    answered_by: text(),
    signature: text(),
    reason: text(),
    seal: text(),
  },
  offer_questions: {
    link: text(REQUIRED),
    asked_at: moment(REQUIRED),
    asked_by: text(REQUIRED),
    question: text(REQUIRED),
    answered_at: moment(),
    answered_by: text(),
    answer: text(),
  },
  messages: {
    job: text(REQUIRED),
    recipient: text(REQUIRED),
    subject: text(REQUIRED),
    body: text(REQUIRED),
    attachments: text(),
    sent_at: moment(REQUIRED),
    sent_by: text(REQUIRED),
    file: text(REQUIRED),
  },
};
