import type { PaperRow, PaperView, PostedPaper, ReversalInput } from '../../../wire/costs';
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
    papers: build.query<{ papers: PaperRow[]; count: number }, { asOf: string; job?: string; offset?: string }>({
      query: (params) => ({ url: 'papers', params }),
      ...READS,
    }),
    paper: build.query<PaperView, string>({ query: (id) => `papers/${encodeURIComponent(id)}`, ...READS }),
    reverse: build.mutation<PostedPaper, { id: number; body: ReversalInput }>({
      query: ({ id, body }) => ({ url: `papers/${id}/reverse`, method: 'POST', body }),
      ...POSTS,
    }),
  }),
});

export const { useLedgerReportQuery, usePapersQuery, usePaperQuery, useReverseMutation } = ledgerApi;
