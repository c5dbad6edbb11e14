import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import { CALLS } from '../../../wire/calls';
import { endpointsOf, type Base, type Sent } from './endpoints';
import { RequestIds } from './requestIds';

const send = fetchBaseQuery({ baseUrl: '/api' });
/** Random, also where the page does not come over TLS and `randomUUID` is missing. */
function newId(): string {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((it) => it.toString(16).padStart(2, '0')).join('');
}
const requestIds = new RequestIds(newId);

const base: Base = async (sent: Sent, context, extra) => {
  const { method, url, params, body } = sent;
  const request = { method, url, params, body };
  if (sent.method === 'GET') return send(request, context, extra);
  const id = requestIds.idOf(sent);
  const reply = await send({ ...request, headers: { 'Idempotency-Key': id } }, context, extra);
  requestIds.ended(sent, typeof reply.error?.status !== 'string');
  return reply;
};

/** The one API of the pages, made from the table of calls. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: base,
  tagTypes: ['books'],
  refetchOnMountOrArgChange: 30,
  endpoints: (build) => endpointsOf(CALLS, build),
});

export const {
  useAcceptOfferMutation,
  useAchievedQuery,
  useAddChangeMutation,
  useAddClientMutation,
  useAddCostCodesMutation,
  useAddDraftMutation,
  useAddEventMutation,
  useAddQuotationMutation,
  useAnswerQuery,
  useApplicationQuery,
  useAskAboutOfferMutation,
  useAttachFileMutation,
  useAwardJobMutation,
  useBillingRegisterQuery,
  useBillingScheduleQuery,
  useCertifyApplicationMutation,
  useChangeOffersQuery,
  useChangeQuery,
  useChangeRegisterQuery,
  useChooseEstimateMutation,
  useCostPageQuery,
  useCostTotalsQuery,
  useCostSubtotalsQuery,
  useCreateJobMutation,
  useDecideChangeMutation,
  useDeclineOfferMutation,
  useDeleteApplicationMutation,
  useDeleteChangeMutation,
  useDeleteDraftMutation,
  useDeleteEstimateMutation,
  useDeleteJobMutation,
  useDeleteQuotationMutation,
  useEstimateListQuery,
  useEstimateQuery,
  useEstimateVersusActualQuery,
  useImportBookMutation,
  useImportPricesMutation,
  useIssueChangeMutation,
  useJobBillingQuery,
  useJobChangesQuery,
  useJobFileQuery,
  useJobListQuery,
  useForecastQuery,
  useJobQuery,

  useJobSetupQuery,
  useJobTemplatesQuery,
  useListsQuery,
  useLoadSampleBookMutation,
  useLockJobMutation,
  useMessagesQuery,
  useMoveJobMutation,
  useMovePricesMutation,
  usePlanQuery,
  usePostCostsMutation,
  usePostingQuery,
  usePostingsQuery,
  usePreviewCertificationMutation,
  usePreviewCostsMutation,
  usePreviewPriceMoveMutation,
  usePriceBookQuery,
  usePriceHistoryQuery,
  useQuotationListQuery,
  useQuotationQuery,
  useQuotationsQuery,
  useReadSheetMutation,
  useRecordReceiptMutation,
  useReleaseRetentionMutation,
  useRemoveBuildUpMutation,
  useRemoveJobTemplateMutation,
  useRemovePriceItemMutation,
  useRemoveTermsMutation,
  useReplyToQuestionMutation,
  useReportQuery,
  useRepriceEstimateMutation,
  useRepricingQuery,
  useReturnApplicationMutation,
  useReversePostingMutation,
  useSaveApplicationMutation,
  useSaveBillingScheduleMutation,
  useSaveBuildUpMutation,
  useSaveChangeMutation,
  useSaveCheckTemplateMutation,
  useSaveChecklistMutation,
  useSaveCompanyMutation,
  useSaveDraftMutation,
  useSaveEstimateMutation,
  useSaveJobFactsMutation,
  useSaveJobTemplateMutation,
  useSavePeopleMutation,
  useSaveForecastMutation,
  useSavePlanMutation,
  useSavePriceItemsMutation,
  useSaveQuotationMutation,
  useSaveTermsMutation,
  useSendChangeMutation,
  useSendEstimateMutation,
  useSendQuotationMutation,
  useSessionQuery,
  useStartApplicationMutation,
  useStartEstimateMutation,
  useSubmitApplicationMutation,
  useTendersQuery,
  useTermsQuery,
  useTransferBudgetMutation,
  useTransfersQuery,
  useWorkingsQuery,
  useLazyEstimateQuery,
  useLazyCostPageQuery,
  useLazyJobSetupQuery,
  useLazyRepricingQuery,
} = api;
