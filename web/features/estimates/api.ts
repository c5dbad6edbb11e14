import type {
  AwardInput,
  EstimateInput,
  EstimateListRow,
  EstimateView,
  NewEstimateInput,
  Repricing,
} from '../../../wire/estimates';
import type { QuotationSummary } from '../../../wire/quotations';
import { api, POSTS, READS } from '../../ground/api/api';

interface Named {
  job: string;
  number: number;
}
const all = (job: string) => `jobs/${encodeURIComponent(job)}/estimates`;
const one = ({ job, number }: Named) => `${all(job)}/${number}`;

const estimatesApi = api.injectEndpoints({
  endpoints: (build) => ({
    estimateList: build.query<EstimateListRow[], string>({ query: all, ...READS }),
    estimate: build.query<EstimateView, Named>({ query: one, ...READS }),
    /** The same, always from the server: what somebody else saved meanwhile. */
    freshEstimate: build.mutation<EstimateView, Named>({ query: one }),
    startEstimate: build.mutation<{ number: number }, { job: string; body: NewEstimateInput }>({
      query: ({ job, body }) => ({ url: all(job), method: 'POST', body }),
      ...POSTS,
    }),
    // Kept as it is typed: the page that types holds what is newest, so nothing is read again for it.
    saveEstimate: build.mutation<{ version: number }, Named & { body: EstimateInput }>({
      query: ({ body, ...at }) => ({ url: one(at), method: 'PUT', body }),
    }),
    estimateSaved: build.mutation<null, void>({ queryFn: () => ({ data: null }), ...POSTS }),
    discardEstimate: build.mutation<unknown, Named>({ query: (at) => ({ url: one(at), method: 'DELETE' }), ...POSTS }),
    chooseEstimate: build.mutation<unknown, Named>({ query: (at) => ({ url: `${one(at)}/choose`, method: 'POST' }), ...POSTS }),
    sendEstimate: build.mutation<unknown, Named & { on: string; reference: string }>({
      query: ({ on, reference, ...at }) => ({ url: `${one(at)}/sent`, method: 'POST', body: { on, reference } }),
      ...POSTS,
    }),
    previewReprice: build.mutation<Repricing, Named>({ query: (at) => `${one(at)}/reprice` }),
    repriceEstimate: build.mutation<unknown, Named & { seen: string }>({
      query: ({ seen, ...at }) => ({ url: `${one(at)}/reprice`, method: 'POST', body: { seen } }),
      ...POSTS,
    }),
    /** What was offered from the job's estimates: an accepted one tells the award when and by whom. */
    offered: build.query<QuotationSummary[], string>({ query: (job) => `jobs/${encodeURIComponent(job)}/quotations`, ...READS }),
    awardJob: build.mutation<unknown, Named & { body: AwardInput }>({
      query: ({ body, ...at }) => ({ url: `${one(at)}/award`, method: 'POST', body }),
      ...POSTS,
    }),
  }),
});

export const {
  useEstimateListQuery,
  useEstimateQuery,
  useFreshEstimateMutation,
  useStartEstimateMutation,
  useSaveEstimateMutation,
  useEstimateSavedMutation,
  useDiscardEstimateMutation,
  useChooseEstimateMutation,
  useSendEstimateMutation,
  usePreviewRepriceMutation,
  useRepriceEstimateMutation,
  useOfferedQuery,
  useAwardJobMutation,
} = estimatesApi;
