import * as v from 'valibot';
import type { QuotationMove } from '../core/offers/quotationLife';
import type { Reasons } from '../core/refusals/reasons';
import { PRESENTATIONS, type ClientDocument } from '../core/offers/clientDocument';
import { cents, filled, list, optionalDate, plainDate, rate, text, version } from './fields';
import { command, download, query } from './call';

const flag = v.boolean('expected yes or no');

export const quotationInput = v.strictObject({
  version,
  estimate: v.pipe(v.number('expected the number of an estimate'), v.safeInteger('expected the number of an estimate')),
  title: filled(),
  presentation: v.picklist(PRESENTATIONS, `expected one of ${PRESENTATIONS.join(', ')}`),
  quantities: flag,
  unitPrices: flag,
  contact: text(),
  email: text(),
  introduction: text(4000),
  exclusions: text(4000),
  terms: text(20_000),
  validUntil: optionalDate,
  alternates: list(v.strictObject({ name: filled(400), amount: cents }), 50, 'alternates'),
  payments: list(
    v.strictObject({ name: filled(), rate: v.nullable(rate), amount: v.nullable(cents), dueOn: optionalDate, stage: text() }),
    100,
    'payments',
  ),
});
export type QuotationInput = v.InferOutput<typeof quotationInput>;

/** A message to a client with the document attached. */
export const sendInput = v.strictObject({
  on: plainDate,
  to: v.pipe(filled(), v.email('expected an address such as name@client.example')),
  subject: filled(),
  message: text(8000),
});
export type SendInput = v.InferOutput<typeof sendInput>;

export const termsInput = v.strictObject({ name: filled(80), body: filled(20_000) });
export type TermsInput = v.InferOutput<typeof termsInput>;

export const askInput = v.strictObject({ name: filled(), question: filled(4000) });
export const replyInput = v.strictObject({ answer: filled(4000) });
/** A signature as strokes of a path, `M10 12L14 20…`, or typed: `typed: Ines Tolland`. */
export const acceptInput = v.strictObject({
  name: filled(),
  signature: v.pipe(
    text(40_000),
    v.nonEmpty('expected a signature: draw it in the field, or type it'),
    v.regex(/^([ML0-9 .-]+|typed: \S.{1,199})$/, 'expected a drawn signature, or a typed one'),
  ),
  /** The options that are accepted with it, by their place in the document from 1 on. */
  options: v.optional(
    list(
      v.pipe(
        v.number('expected the place of an option'),
        v.integer('expected the place of an option'),
        v.minValue(1, 'expected the place of an option'),
      ),
      100,
      'options',
    ),
    [],
  ),
});
export type AcceptInput = v.InferOutput<typeof acceptInput>;
export const declineInput = v.strictObject({ name: filled(), reason: filled(4000) });

export interface QuotationSummary {
  number: number;
  title: string;
  estimate: number;
  status: string;
  total: number;
  validUntil: string | null;
  sentOn: string | null;
  answeredOn: string | null;
  answeredBy: string;
}

export interface QuotationView extends QuotationInput {
  number: number;
  jobStatus: string;
  status: string;
  sentOn: string | null;
  answeredOn: string | null;
  savedBy: string;
  savedAt: string;
  /** What the client reads, as it stands. */
  document: ClientDocument;
  /** What the payment schedule leaves of the price; it must be nothing. */
  difference: number;
  offers: OfferView[];
  /** Why each move of its life cannot be made; null where it can. */
  refused: Reasons<QuotationMove>;
}

/** A document that was sent, and what came back. */
export interface OfferView {
  id: number;
  token: string;
  recipient: string;
  sentOn: string;
  status: 'open' | 'accepted' | 'declined';
  answeredAt: string | null;
  answeredBy: string;
  reason: string;
  /** Why it takes no answer any more though none was given; null where it does. */
  closed: string | null;
  signature: string;
  hash: string;
  seal: string;
  /** What was accepted, with the options chosen; null where it was not. */
  accepted: { options: string[]; total: number } | null;
  /** The document saved is the one that was sent, and what it was made from still says the same. */
  intact: boolean;
  questions: { id: number; askedAt: string; askedBy: string; question: string; answer: string; answeredBy: string }[];
}

/** What a client sees behind the link. */
export interface AnswerView extends Pick<
  OfferView,
  'status' | 'answeredAt' | 'answeredBy' | 'seal' | 'hash' | 'closed' | 'accepted'
> {
  document: ClientDocument;
  questions: Pick<OfferView['questions'][number], 'askedBy' | 'askedAt' | 'question' | 'answer' | 'answeredBy'>[];
}

export interface MessageRow {
  id: number;
  job: string;
  recipient: string;
  subject: string;
  body: string;
  attachments: string[];
  /** When it was written into the outbox. */
  sentAt: string;
  actor: string;
  /** Prepared: it lies in the outbox. */
  state: 'prepared' | 'sent' | 'failed';
  triedAt: string | null;
  failure: string;
}

const quotation = '/jobs/:job/quotations/:quotation';

export const quotationCalls = {
  quotationList: query<QuotationSummary[]>('read-tenders')('/jobs/:job/quotations'),
  quotation: query<QuotationView>('read-tenders')(quotation),
  addQuotation: command<{ number: number; version: number }>('quote')('/jobs/:job/quotations', { input: quotationInput }),
  saveQuotation: command<{ number: number; version: number }>('quote')(quotation, { method: 'PUT', input: quotationInput }),
  deleteQuotation: command('quote')(quotation, { method: 'DELETE' }),
  sendQuotation: command('quote')(`${quotation}/send`, { input: sendInput }),
  quotationDocument: download('read-tenders')(`${quotation}/document.:format`),
  terms: query<TermsInput[]>('read-tenders')('/terms'),
  saveTerms: command('quote')('/terms', { method: 'PUT', input: termsInput }),
  removeTerms: command('quote')('/terms/:name', { method: 'DELETE' }),
  messages: query<MessageRow[]>('read-tenders')('/messages'),
  deliverMessage: command<{ state: string; failure: string }>('quote')('/messages/:id/deliver'),
  messageFile: download('read-tenders')('/messages/:id/file'),
  replyToQuestion: command('quote')('/questions/:id', { input: replyInput }),
};

/** What a client reaches without signing in, by the link alone. */
export const answerCalls = {
  answer: query<AnswerView>('open')('/answer/:token', {}),
  answerDocument: download('open')('/answer/:token/document.pdf', {}),
  askAboutOffer: command('open')('/answer/:token/ask', { input: askInput }),
  acceptOffer: command('open')('/answer/:token/accept', { input: acceptInput }),
  declineOffer: command('open')('/answer/:token/decline', { input: declineInput }),
};
