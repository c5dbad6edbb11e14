import type { CostBatchInput, CostPage, CostPreview, CostSubtotalRow, Posted } from '../../../wire/costs';
import { api, POSTS, READS } from '../../ground/api/api';

export type LedgerParams = { asOf: string } & Partial<
  Record<
    | 'job'
    | 'section'
    | 'costCode'
    | 'costType'
    | 'party'
    | 'from'
    | 'to'
    | 'search'
    | 'posting'
    | 'commitment'
    | 'uninstalled'
    | 'sort'
    | 'descending'
    | 'offset'
    | 'limit',
    string
  >
>;

const costsApi = api.injectEndpoints({
  endpoints: (build) => ({
    costPage: build.query<CostPage, LedgerParams>({ query: (params) => ({ url: 'costs', params }), ...READS }),
    costSubtotals: build.query<CostSubtotalRow[], LedgerParams & { by: string }>({
      query: (params) => ({ url: 'costs/subtotals', params }),
      ...READS,
    }),
    previewCosts: build.mutation<CostPreview, CostBatchInput>({
      query: (body) => ({ url: 'costs/preview', method: 'POST', body }),
    }),
    postCosts: build.mutation<Posted, CostBatchInput>({
      query: (body) => ({ url: 'costs', method: 'POST', body }),
      ...POSTS,
    }),
  }),
});

export const { useCostPageQuery, useCostSubtotalsQuery, usePreviewCostsMutation, usePostCostsMutation } = costsApi;
export const { costPage } = costsApi.endpoints;
