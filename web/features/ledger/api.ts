import type { PostingRow, PostingView, Posted, ReversalInput } from '../../../wire/costs';
import { api, POSTS, READS } from '../../ground/api/api';

export interface LedgerReport {
  rows: Record<string, string | number>[];
}

const ledgerApi = api.injectEndpoints({
  endpoints: (build) => ({
    ledgerReport: build.query<LedgerReport, { name: 'trial-balance' | 'tie-out'; asOf: string }>({
      query: ({ name, asOf }) => ({ url: `reports/${name}`, params: { asOf } }),
      ...READS,
    }),
    postings: build.query<{ postings: PostingRow[]; count: number }, { asOf: string; job?: string; offset?: string }>({
      query: (params) => ({ url: 'postings', params }),
      ...READS,
    }),
    posting: build.query<PostingView, string>({ query: (id) => `postings/${encodeURIComponent(id)}`, ...READS }),
    reverse: build.mutation<Posted, { id: number; body: ReversalInput }>({
      query: ({ id, body }) => ({ url: `postings/${id}/reverse`, method: 'POST', body }),
      ...POSTS,
    }),
  }),
});

export const { useLedgerReportQuery, usePostingsQuery, usePostingQuery, useReverseMutation } = ledgerApi;
