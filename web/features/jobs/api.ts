import type { JobInput, JobList, JobSetup, JobTemplate, JobView } from '../../../wire/jobs';
import type { CostCodesInput, ClientInput } from '../../../wire/company';
import { api, POSTS, READS } from '../../ground/api/api';
import { addToLists } from '../../ground/api/sessionApi';

const jobsApi = api.injectEndpoints({
  endpoints: (build) => ({
    jobList: build.query<JobList, { asOf: string }>({ query: (params) => ({ url: 'jobs', params }), ...READS }),
    job: build.query<JobView, { number: string; asOf: string }>({
      query: ({ number, asOf }) => ({ url: `jobs/${encodeURIComponent(number)}`, params: { asOf } }),
      ...READS,
    }),
    createJob: build.mutation<{ number: string }, JobInput>({
      query: (body) => ({ url: 'jobs', method: 'POST', body }),
      ...POSTS,
    }),
    moveJob: build.mutation<unknown, { number: string; status: string; on: string | null }>({
      query: ({ number, ...body }) => ({ url: `jobs/${encodeURIComponent(number)}/status`, method: 'POST', body }),
      ...POSTS,
    }),
    lockJob: build.mutation<unknown, { number: string; locked: boolean; reason: string }>({
      query: ({ number, ...body }) => ({ url: `jobs/${encodeURIComponent(number)}/lock`, method: 'POST', body }),
      ...POSTS,
    }),
    deleteJob: build.mutation<unknown, string>({
      query: (number) => ({ url: `jobs/${encodeURIComponent(number)}`, method: 'DELETE' }),
      ...POSTS,
    }),
    jobSetup: build.query<JobSetup, string>({ query: (number) => `jobs/${encodeURIComponent(number)}/setup`, ...READS }),
    jobTemplates: build.query<JobTemplate[], void>({ query: () => 'job-templates', ...READS }),
    saveJobTemplate: build.mutation<unknown, JobTemplate>({
      query: (body) => ({ url: 'job-templates', method: 'PUT', body }),
      ...POSTS,
    }),
    removeJobTemplate: build.mutation<unknown, string>({
      query: (name) => ({ url: `job-templates/${encodeURIComponent(name)}`, method: 'DELETE' }),
      ...POSTS,
    }),
    saveDraft: build.mutation<{ id: number }, { id: number | null; content: Record<string, unknown> }>({
      query: ({ id, content }) => ({
        url: id === null ? 'drafts' : `drafts/${id}`,
        method: id === null ? 'POST' : 'PUT',
        body: { content },
      }),
    }),
    deleteDraft: build.mutation<unknown, number>({ query: (id) => ({ url: `drafts/${id}`, method: 'DELETE' }), ...POSTS }),
    addClient: build.mutation<unknown, ClientInput>({
      query: (body) => ({ url: 'clients', method: 'POST', body }),
      ...POSTS,
      onQueryStarted: ({ code, name, termsDays }, lifecycle) => addToLists({ clients: [{ code, name, termsDays }] }, lifecycle),
    }),
    addCostCodes: build.mutation<unknown, CostCodesInput>({
      query: (body) => ({ url: 'cost-codes', method: 'POST', body }),
      ...POSTS,
      onQueryStarted: ({ codes }, lifecycle) => addToLists({ costCodes: codes }, lifecycle),
    }),
  }),
});

export const {
  useJobListQuery,
  useJobQuery,
  useCreateJobMutation,
  useLazyJobSetupQuery,
  useJobTemplatesQuery,
  useSaveJobTemplateMutation,
  useRemoveJobTemplateMutation,
  useMoveJobMutation,
  useLockJobMutation,
  useDeleteJobMutation,
  useSaveDraftMutation,
  useDeleteDraftMutation,
  useAddClientMutation,
  useAddCostCodesMutation,
} = jobsApi;
