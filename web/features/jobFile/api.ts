import type { CheckItem, CheckTemplate, EventInput, JobFactsInput, JobFileView, Person } from '../../../wire/jobFile';
import { api, POSTS, READS } from '../../ground/api/api';

const at = (job: string) => `jobs/${encodeURIComponent(job)}`;

const jobFileApi = api.injectEndpoints({
  endpoints: (build) => ({
    jobFile: build.query<JobFileView, string>({ query: (job) => `${at(job)}/file`, ...READS }),
    saveJobFacts: build.mutation<unknown, { job: string; body: JobFactsInput }>({
      query: ({ job, body }) => ({ url: `${at(job)}/facts`, method: 'PUT', body }),
      ...POSTS,
    }),
    savePeople: build.mutation<unknown, { job: string; people: readonly Person[]; seen: string }>({
      query: ({ job, ...body }) => ({ url: `${at(job)}/people`, method: 'PUT', body }),
      ...POSTS,
    }),
    saveChecklist: build.mutation<unknown, { job: string; items: readonly CheckItem[]; seen: string }>({
      query: ({ job, ...body }) => ({ url: `${at(job)}/checklist`, method: 'PUT', body }),
      ...POSTS,
    }),
    saveCheckTemplate: build.mutation<unknown, CheckTemplate>({
      query: (body) => ({ url: 'checklists', method: 'PUT', body }),
      ...POSTS,
    }),
    addEvent: build.mutation<unknown, { job: string; body: EventInput }>({
      query: ({ job, body }) => ({ url: `${at(job)}/events`, method: 'POST', body }),
      ...POSTS,
    }),
    attachFile: build.mutation<unknown, { job: string; body: FormData }>({
      query: ({ job, body }) => ({ url: `${at(job)}/files`, method: 'POST', body }),
      ...POSTS,
    }),
  }),
});

export const {
  useJobFileQuery,
  useSaveJobFactsMutation,
  useSavePeopleMutation,
  useSaveChecklistMutation,
  useSaveCheckTemplateMutation,
  useAddEventMutation,
  useAttachFileMutation,
} = jobFileApi;
