import type { OfferView, SendInput } from '../../../wire/quotations';
import { api, POSTS, READS } from '../api/api';

/** A paper a client gets: a quotation of a job, or a change order. */
export interface PaperRef {
  job: string;
  kind: 'quotations' | 'changes';
  number: string;
}

export const paperPath = ({ job, kind, number }: PaperRef) =>
  `jobs/${encodeURIComponent(job)}/${kind}/${encodeURIComponent(number)}`;

const offersApi = api.injectEndpoints({
  endpoints: (build) => ({
    changeOffers: build.query<OfferView[], PaperRef>({ query: (of) => `${paperPath(of)}/offers`, ...READS }),
    sendPaper: build.mutation<unknown, { of: PaperRef; body: SendInput }>({
      query: ({ of, body }) => ({ url: `${paperPath(of)}/send`, method: 'POST', body }),
      ...POSTS,
    }),
    replyToQuestion: build.mutation<unknown, { id: number; answer: string }>({
      query: ({ id, answer }) => ({ url: `questions/${id}`, method: 'POST', body: { answer } }),
      ...POSTS,
    }),
  }),
});

export const { useChangeOffersQuery, useSendPaperMutation, useReplyToQuestionMutation } = offersApi;
