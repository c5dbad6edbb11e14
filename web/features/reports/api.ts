import type { ColumnKind } from '../../../wire/reports';
import type { EstimateView } from '../../../wire/jobs';
import { api, READS } from '../../ground/api/api';

export interface ReportReply {
  name: string;
  title: string;
  columns: { key: string; title: string; kind: ColumnKind }[];
  rows: Record<string, string | number>[];
  hasTotal: boolean;
}

const reportsApi = api.injectEndpoints({
  endpoints: (build) => ({
    report: build.query<ReportReply, { name: string; asOf: string; job?: string }>({
      query: ({ name, ...params }) => ({ url: `reports/${name}`, params }),
      ...READS,
    }),
    estimateVsActual: build.query<EstimateView, { number: string; asOf: string }>({
      query: ({ number, asOf }) => ({ url: `jobs/${encodeURIComponent(number)}/estimate`, params: { asOf } }),
      ...READS,
    }),
  }),
});

export const { useReportQuery, useEstimateVsActualQuery } = reportsApi;
