import type { TransferInput, TransferView } from '../../../wire/changes';
import type { EstimateView } from '../../../wire/jobs';
import { api, POSTS, READS } from '../../ground/api/api';

const budgetApi = api.injectEndpoints({
  endpoints: (build) => ({
    transfers: build.query<TransferView[], { job: string; asOf: string }>({
      query: ({ job, asOf }) => ({ url: `jobs/${encodeURIComponent(job)}/transfers`, params: { asOf } }),
      ...READS,
    }),
    budgetLines: build.query<EstimateView, { job: string; asOf: string }>({
      query: ({ job, asOf }) => ({ url: `jobs/${encodeURIComponent(job)}/estimate`, params: { asOf } }),
      ...READS,
    }),
    transferBudget: build.mutation<{ number: number }, { job: string; body: TransferInput }>({
      query: ({ job, body }) => ({ url: `jobs/${encodeURIComponent(job)}/transfers`, method: 'POST', body }),
      ...POSTS,
    }),
  }),
});

export const { useTransfersQuery, useBudgetLinesQuery, useTransferBudgetMutation } = budgetApi;
