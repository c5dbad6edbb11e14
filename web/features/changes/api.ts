import type { ChangeInput, ChangeSummary, ChangeView, DecideChangeInput, RegisteredChange } from '../../../wire/changes';
import type { EstimateView } from '../../../wire/jobs';
import { api, POSTS, READS } from '../../ground/api/api';

interface Named {
  job: string;
  number: string;
}
const all = (job: string) => `jobs/${encodeURIComponent(job)}/changes`;
const one = ({ job, number }: Named) => `${all(job)}/${encodeURIComponent(number)}`;

const changesApi = api.injectEndpoints({
  endpoints: (build) => ({
    jobChanges: build.query<ChangeSummary[], { job: string; asOf: string }>({
      query: ({ job, asOf }) => ({ url: all(job), params: { asOf } }),
      ...READS,
    }),
    change: build.query<ChangeView, Named & { asOf: string }>({
      query: ({ asOf, ...at }) => ({ url: one(at), params: { asOf } }),
      ...READS,
    }),
    changeRegister: build.query<RegisteredChange[], { asOf: string }>({
      query: (params) => ({ url: 'changes', params }),
      ...READS,
    }),
    /** The job's cost lines with what is spent on them: a change may be built from these. */
    spentLines: build.query<EstimateView, { job: string; asOf: string }>({
      query: ({ job, asOf }) => ({ url: `jobs/${encodeURIComponent(job)}/estimate`, params: { asOf } }),
      ...READS,
    }),
    saveChange: build.mutation<{ version: number }, { job: string; was: string | null; body: ChangeInput }>({
      query: ({ job, was, body }) =>
        was === null ? { url: all(job), method: 'POST', body } : { url: one({ job, number: was }), method: 'PUT', body },
      ...POSTS,
    }),
    discardChange: build.mutation<unknown, Named>({ query: (at) => ({ url: one(at), method: 'DELETE' }), ...POSTS }),
    issueChange: build.mutation<unknown, Named & { on: string }>({
      query: ({ on, ...at }) => ({ url: `${one(at)}/issue`, method: 'POST', body: { on } }),
      ...POSTS,
    }),
    decideChange: build.mutation<unknown, Named & { body: DecideChangeInput }>({
      query: ({ body, ...at }) => ({ url: `${one(at)}/decide`, method: 'POST', body }),
      ...POSTS,
    }),
  }),
});

export const {
  useJobChangesQuery,
  useChangeQuery,
  useChangeRegisterQuery,
  useSpentLinesQuery,
  useSaveChangeMutation,
  useDiscardChangeMutation,
  useIssueChangeMutation,
  useDecideChangeMutation,
} = changesApi;
