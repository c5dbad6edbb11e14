import type { MessageRow, QuotationInput, QuotationSummary, QuotationView, TermsInput } from '../../../wire/quotations';
import type { EstimateListRow } from '../../../wire/estimates';
import { api, POSTS, READS } from '../../ground/api/api';

interface Named {
  job: string;
  number: number;
}
const all = (job: string) => `jobs/${encodeURIComponent(job)}/quotations`;
const one = ({ job, number }: Named) => `${all(job)}/${number}`;

const quotationsApi = api.injectEndpoints({
  endpoints: (build) => ({
    quotationList: build.query<QuotationSummary[], string>({ query: all, ...READS }),
    quotation: build.query<QuotationView, Named>({ query: one, ...READS }),
    /** The estimates a quotation can be made from. */
    estimatesToQuote: build.query<EstimateListRow[], string>({
      query: (job) => `jobs/${encodeURIComponent(job)}/estimates`,
      ...READS,
    }),
    saveQuotation: build.mutation<
      { number: number; version: number },
      { job: string; number: number | null; body: QuotationInput }
    >({
      query: ({ job, number, body }) =>
        number === null ? { url: all(job), method: 'POST', body } : { url: one({ job, number }), method: 'PUT', body },
      ...POSTS,
    }),
    discardQuotation: build.mutation<unknown, Named>({ query: (at) => ({ url: one(at), method: 'DELETE' }), ...POSTS }),
    terms: build.query<TermsInput[], void>({ query: () => 'terms', ...READS }),
    saveTerms: build.mutation<unknown, TermsInput>({ query: (body) => ({ url: 'terms', method: 'PUT', body }), ...POSTS }),
    removeTerms: build.mutation<unknown, string>({
      query: (name) => ({ url: `terms/${encodeURIComponent(name)}`, method: 'DELETE' }),
      ...POSTS,
    }),
    messages: build.query<MessageRow[], void>({ query: () => 'messages', ...READS }),
  }),
});

export const {
  useQuotationListQuery,
  useQuotationQuery,
  useEstimatesToQuoteQuery,
  useSaveQuotationMutation,
  useDiscardQuotationMutation,
  useTermsQuery,
  useSaveTermsMutation,
  useRemoveTermsMutation,
  useMessagesQuery,
} = quotationsApi;
