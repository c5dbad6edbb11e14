import type { BillingScheduleView, InstalmentsInput } from '../../../wire/instalments';
import { api, POSTS, READS } from '../../ground/api/api';

const address = (job: string) => `jobs/${encodeURIComponent(job)}/billing-schedule`;

const instalmentsApi = api.injectEndpoints({
  endpoints: (build) => ({
    billingSchedule: build.query<BillingScheduleView, { job: string; asOf: string }>({
      query: ({ job, asOf }) => ({ url: address(job), params: { asOf } }),
      ...READS,
    }),
    saveBillingSchedule: build.mutation<unknown, { job: string; body: InstalmentsInput }>({
      query: ({ job, body }) => ({ url: address(job), method: 'PUT', body }),
      ...POSTS,
    }),
  }),
});

export const { useBillingScheduleQuery, useSaveBillingScheduleMutation } = instalmentsApi;
