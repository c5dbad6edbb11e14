import type { PlanInput, PlanView } from '../../../wire/plan';
import { api, POSTS, READS } from '../../ground/api/api';

const planApi = api.injectEndpoints({
  endpoints: (build) => ({
    plan: build.query<PlanView, { job: string; asOf: string }>({
      query: ({ job, asOf }) => ({ url: `jobs/${encodeURIComponent(job)}/plan`, params: { asOf } }),
      ...READS,
    }),
    savePlan: build.mutation<unknown, { job: string; body: PlanInput }>({
      query: ({ job, body }) => ({ url: `jobs/${encodeURIComponent(job)}/plan`, method: 'PUT', body }),
      ...POSTS,
    }),
  }),
});

export const { usePlanQuery, useSavePlanMutation } = planApi;
