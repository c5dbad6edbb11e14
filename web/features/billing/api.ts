import type { ApplicationLinesInput, ApplicationView, BillingRegister, CertifyInput, JobBilling } from '../../../wire/billing';
import { api, POSTS, READS } from '../../ground/api/api';

interface At {
  job: string;
  number: number;
}
const address = ({ job, number }: At) => `jobs/${encodeURIComponent(job)}/applications/${number}`;

const billingApi = api.injectEndpoints({
  endpoints: (build) => ({
    billingRegister: build.query<BillingRegister, { asOf: string }>({
      query: (params) => ({ url: 'billing', params }),
      ...READS,
    }),
    jobBilling: build.query<JobBilling, { job: string; asOf: string }>({
      query: ({ job, asOf }) => ({ url: `jobs/${encodeURIComponent(job)}/billing`, params: { asOf } }),
      ...READS,
    }),
    application: build.query<ApplicationView, At & { asOf: string }>({
      query: ({ asOf, ...at }) => ({ url: address(at), params: { asOf } }),
      ...READS,
    }),
    startApplication: build.mutation<{ number: number }, { job: string; dated: string; reference: string; bySchedule: boolean }>({
      query: ({ job, ...body }) => ({ url: `jobs/${encodeURIComponent(job)}/applications`, method: 'POST', body }),
      ...POSTS,
    }),
    saveApplication: build.mutation<unknown, At & { body: ApplicationLinesInput }>({
      query: ({ body, ...at }) => ({ url: address(at), method: 'PUT', body }),
      ...POSTS,
    }),
    discardApplication: build.mutation<unknown, At>({ query: (at) => ({ url: address(at), method: 'DELETE' }), ...POSTS }),
    moveApplication: build.mutation<unknown, At & { to: 'submit' | 'take-back' }>({
      query: ({ to, ...at }) => ({ url: `${address(at)}/${to}`, method: 'POST' }),
      ...POSTS,
    }),
    certify: build.mutation<{ postingId: number }, At & { body: CertifyInput }>({
      query: ({ body, ...at }) => ({ url: `${address(at)}/certify`, method: 'POST', body }),
      ...POSTS,
    }),
    receive: build.mutation<
      unknown,
      { job: string; posting: string; body: { dated: string; amount: number; reference: string } }
    >({
      query: ({ job, posting, body }) => ({
        url: `jobs/${encodeURIComponent(job)}/invoices/${encodeURIComponent(posting)}/receipts`,
        method: 'POST',
        body,
      }),
      ...POSTS,
    }),
    release: build.mutation<unknown, { job: string; body: { dated: string; amount: number; reference: string } }>({
      query: ({ job, body }) => ({ url: `jobs/${encodeURIComponent(job)}/releases`, method: 'POST', body }),
      ...POSTS,
    }),
  }),
});

export const {
  useBillingRegisterQuery,
  useJobBillingQuery,
  useApplicationQuery,
  useStartApplicationMutation,
  useSaveApplicationMutation,
  useDiscardApplicationMutation,
  useMoveApplicationMutation,
  useCertifyMutation,
  useReceiveMutation,
  useReleaseMutation,
} = billingApi;
