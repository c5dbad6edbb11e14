import { LedrinError } from '../../core/errors/ledrinError';
import { quotationCalls } from '../../wire/quotations';
import { todayOf } from '../http/context';
import { handle, prepared } from '../http/handlers';
import { documentDownload } from '../offers/documentDownload';
import { replyToQuestion } from '../offers/offers';
import { deliver, noteDelivery, type Delivery } from '../offers/delivery';
import { messageFile, messages } from '../offers/offerViews';
import { prepareSending } from '../offers/sending';
import { quotationList, termsLibrary } from '../offers/quotationList';
import { deleteQuotation, removeTerms, saveQuotation, saveTerms, sendQuotation } from './quotations';
import { quotationView } from './quotationView';

export const quotationHandlers = handle(quotationCalls, {
  quotationList: (sql, { job }) => quotationList(sql, job),
  quotation: (sql, { job, quotation }, context) => quotationView(sql, job, quotation, todayOf(context)),
  addQuotation: (command, { job, body }) => saveQuotation(command, job, null, body),
  saveQuotation: (command, { job, quotation, body }) => saveQuotation(command, job, quotation, body),
  deleteQuotation: (command, { job, quotation }) => deleteQuotation(command, job, quotation),
  sendQuotation: prepared({
    prepare: async (database, { job, quotation, body }, context) => {
      const { document } = await database.read((sql) => quotationView(sql, job, quotation, body.on));
      return prepareSending(document, context);
    },
    run: (command, { job, quotation, body }, sending) => sendQuotation(command, sending, job, quotation, body),
  }),
  quotationDocument: async (database, { job, quotation, format }, context) => {
    const { document } = await database.read((sql) => quotationView(sql, job, quotation, todayOf(context)));
    return documentDownload(document, format, context);
  },
  terms: (sql) => termsLibrary(sql),
  saveTerms: (command, { body }) => saveTerms(command, body),
  removeTerms: (command, { name }) => removeTerms(command, name),
  messages: (sql) => messages(sql),
  deliverMessage: prepared<typeof quotationCalls.deliverMessage, Delivery>({
    prepare: (database, { id }, context) => deliver(database, id, context),
    run: (command, { id }, delivery) => noteDelivery(command, id, delivery),
  }),
  messageFile: async (database, { id }, { outbox }) => {
    const content = outbox.read(await database.read((sql) => messageFile(sql, id)));
    if (content) return { type: 'message/rfc822', name: 'message.eml', content };
    throw new LedrinError('not-found', 'The file of this message is no longer in the outbox; its text is in the list');
  },
  replyToQuestion: (command, { id, body }) => replyToQuestion(command, id, body.answer),
});
