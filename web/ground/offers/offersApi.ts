import type { OfferView, SendInput } from '../../../wire/quotations';
import { api, POSTS, READS } from '../api/api';

/** A document a client gets: a quotation of a job, or a change order. */
export interface DocumentRef {
  job: string;
  kind: 'quotations' | 'changes';
  number: string;
}

export const documentPath = ({ job, kind, number }: DocumentRef) =>
  `jobs/${encodeURIComponent(job)}/${kind}/${encodeURIComponent(number)}`;

const offersApi = api.injectEndpoints({
  endpoints: (build) => ({
    changeOffers: build.query<OfferView[], DocumentRef>({ query: (of) => `${documentPath(of)}/offers`, ...READS }),
    sendDocument: build.mutation<unknown, { of: DocumentRef; body: SendInput }>({
      query: ({ of, body }) => ({ url: `${documentPath(of)}/send`, method: 'POST', body }),
      ...POSTS,
    }),
    replyToQuestion: build.mutation<unknown, { id: number; answer: string }>({
      query: ({ id, answer }) => ({ url: `questions/${id}`, method: 'POST', body: { answer } }),
      ...POSTS,
    }),
  }),
});

export const { useChangeOffersQuery, useSendDocumentMutation, useReplyToQuestionMutation } = offersApi;
